/**
 * The layers that shells are laid up of, as data: what a square metre of each takes, weighs and adds to the thickness, on the
 * skin and on the flanges, which are laid thicker: edges break first.
 */
import type { MaterialId, MaterialKey } from "../../materials/catalogue.ts";
import type { ChosenMaterial } from "../../materials/chosen.ts";
import { type GypsumYield, gypsumYield } from "../../materials/gypsum.ts";
import { laminateLayer } from "../../materials/laminate.ts";
import type { Mixture } from "../../materials/mixing.ts";

/** So much of a material, in its own unit, for a square metre. */
export interface LayerTake {
  readonly material: MaterialKey;
  /** What it stands in for; itself where it is usual. */
  readonly usual: MaterialId;
  readonly perM2: number;
  readonly flangePerM2: number;
}

/** What a layer is called: its id stays with it, whatever order it is laid in. */
export interface LayerName {
  readonly id: string;
  readonly name: string;
  /** Does it belong on the jacket, before all others? */
  readonly isFace?: boolean;
}

export interface ShellLayer extends LayerName {
  readonly thicknessMm: number;
  /** On the flanges. */
  readonly flangeThicknessMm: number;
  readonly takes: readonly LayerTake[];
  /** A square metre of it just laid, and ready to use, g. */
  readonly wetG: number;
  readonly dryG: number;
  readonly flangeDryG: number;
  /** What of it is mixed in a bucket, g for a square metre; null where nothing is. */
  readonly pot: { readonly mixture: Mixture; readonly gPerM2: number; readonly flangeGPerM2: number } | null;
}

/** A thickness on the skin, and on the flanges, mm. */
interface Thick {
  readonly mm: number;
  readonly flangeMm: number;
}

/** Gypsum is laid so fast by one person, g/min. */
const GYPSUM_G_PER_MIN = 700;

/** @param usual what it is called and how long it can be laid, where nothing stands in for it */
export function gypsumMix(
  gypsum: ChosenMaterial,
  waterPer100: number,
  usual: { readonly name: string; readonly potMin: number },
): Mixture {
  const { name, potMin } = gypsum.isInstead
    ? { name: gypsum.name, potMin: gypsum.figures.potMin ?? usual.potMin }
    : usual;
  return {
    ...{ material: gypsum.id, name, potMin, hastens: false, mostG: null, leastC: null, peroxide: null },
    gPerMin: GYPSUM_G_PER_MIN,
    parts: [
      // Powder is sifted into the water, which is weighed first.
      { name: "Water", parts: waterPer100, densityGPerCm3: 1 },
      { name: "Powder", parts: 100, densityGPerCm3: null },
    ],
    tops: [],
    densityGPerCm3: gypsumYield(waterPer100).wetKgPerLitre,
  };
}

/** A layer of gypsum, with what lies in it. @param reinforcement so much of it in a square metre, skin and flange alike */
export function gypsumLayer(
  name: LayerName,
  thick: Thick,
  { mixture, yields, usual }: { readonly mixture: Mixture; readonly yields: GypsumYield; readonly usual: MaterialId },
  reinforcement: (Pick<LayerTake, "material" | "usual" | "perM2"> & { readonly gPerM2: number }) | null,
): ShellLayer {
  const kg = (mm: number) => mm * yields.powderKgPerLitre;
  const water = (mm: number) => mm * yields.waterKgPerLitre;
  const { mm, flangeMm } = thick;
  const inIt = reinforcement?.gPerM2 ?? 0;
  return {
    ...name,
    thicknessMm: mm,
    flangeThicknessMm: flangeMm,
    takes: [
      { material: mixture.material, usual, perM2: kg(mm), flangePerM2: kg(flangeMm) },
      { material: "mixing-water", usual: "mixing-water", perM2: water(mm), flangePerM2: water(flangeMm) },
      ...(reinforcement ? [takeOf(reinforcement, reinforcement.perM2)] : []),
    ],
    wetG: 1000 * mm * yields.wetKgPerLitre + inIt,
    dryG: 1000 * mm * yields.dryKgPerLitre + inIt,
    flangeDryG: 1000 * flangeMm * yields.dryKgPerLitre + inIt,
    pot: {
      mixture,
      gPerM2: 1000 * mm * yields.wetKgPerLitre,
      flangeGPerM2: 1000 * flangeMm * yields.wetKgPerLitre,
    },
  };
}

/** So much of a material on the skin, and so often on the flanges. */
function takeOf({ material, usual }: Pick<LayerTake, "material" | "usual">, perM2: number, times = 1): LayerTake {
  return { material, usual, perM2, flangePerM2: perM2 * times };
}

/** A coat of resin alone. @param times how often it is laid on the flanges */
export function resinCoat(
  name: LayerName,
  mm: number,
  density: number,
  mixture: Mixture,
  takes: Resined,
  times = 1,
): ShellLayer {
  const gPerM2 = mm * density * 1000;
  return {
    ...name,
    thicknessMm: mm,
    flangeThicknessMm: mm * times,
    takes: resinTakes(gPerM2, takes, times),
    wetG: gPerM2,
    dryG: gPerM2,
    flangeDryG: gPerM2 * times,
    pot: { mixture, gPerM2, flangeGPerM2: gPerM2 * times },
  };
}

/** What a resin is bought as: by itself with its hardener apart, or as a kit that holds both. */
export interface Resined {
  readonly resin: ResinTaken;
  readonly hardener: (ResinTaken & { readonly percent: number }) | null;
}

type ResinTaken = Pick<LayerTake, "material" | "usual">;

function resinTakes(gPerM2: number, { resin, hardener }: Resined, times: number): LayerTake[] {
  const take = (material: ResinTaken, g: number) => takeOf(material, g / 1000, times);
  return [take(resin, gPerM2), ...(hardener ? [take(hardener, (gPerM2 * hardener.percent) / 100)] : [])];
}

export interface GlassLaid extends Resined {
  readonly glass: ResinTaken;
  readonly glassGPerM2: number;
  /** Share of glass by mass, 0..1. */
  readonly glassFraction: number;
  readonly density: number;
  /** Pieces overlap by this factor. */
  readonly overlap: number;
  /** How often it is laid on the flanges for once on the skin. */
  readonly times: number;
}

/** One layer of glass wetted out: its overlaps weigh, but count for nothing in its thickness. */
export function glassLayer(name: LayerName, laid: GlassLaid, mixture: Mixture): ShellLayer {
  const { glass, glassGPerM2, glassFraction, density, overlap, times } = laid;
  const { resinGPerM2, thicknessMm } = laminateLayer(glassGPerM2, glassFraction, density);
  const resinG = resinGPerM2 * overlap;
  const wholeG = resinG + glassGPerM2 * overlap;
  return {
    ...name,
    thicknessMm,
    flangeThicknessMm: thicknessMm * times,
    takes: [...resinTakes(resinG, laid, times), takeOf(glass, overlap, times)],
    wetG: wholeG,
    dryG: wholeG,
    flangeDryG: wholeG * times,
    pot: { mixture, gPerM2: resinG, flangeGPerM2: resinG * times },
  };
}
