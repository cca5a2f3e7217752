/**
 * The layers that shells are laid up of, as data: what a square metre of each takes, weighs and adds to the thickness, on the
 * skin and on the flanges, which are laid thicker: edges break first.
 */
import type { MaterialId } from "../../materials/catalogue.ts";
import { type GypsumYield, gypsumYield } from "../../materials/gypsum.ts";
import { laminateLayer } from "../../materials/laminate.ts";
import type { Mixture } from "../../materials/mixing.ts";

/** So much of a material, in its own unit, for a square metre. */
export interface LayerTake {
  readonly material: MaterialId;
  readonly perM2: number;
  readonly flangePerM2: number;
}

export interface ShellLayer {
  readonly name: string;
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

export function gypsumMix(material: MaterialId, name: string, waterPer100: number, workMin: number): Mixture {
  return {
    ...{ material, name, potMin: workMin, hastens: false, mostG: null, leastC: null, gPerMin: GYPSUM_G_PER_MIN },
    parts: [
      // Powder is sifted into the water, which is weighed first.
      { name: "Water", parts: waterPer100, densityGPerCm3: 1 },
      { name: "Powder", parts: 100, densityGPerCm3: null },
    ],
    tops: [],
    densityGPerCm3: gypsumYield(waterPer100).wetKgPerLitre,
  };
}

/** A layer of gypsum, with what lies in it. @param reinforced g of reinforcement in a square metre of it, skin and flange alike */
export function gypsumLayer(
  name: string,
  thick: Thick,
  mixture: Mixture,
  yields: GypsumYield,
  reinforcement: { readonly material: MaterialId; readonly perM2: number; readonly gPerM2: number } | null,
): ShellLayer {
  const kg = (mm: number) => mm * yields.powderKgPerLitre;
  const water = (mm: number) => mm * yields.waterKgPerLitre;
  const { mm, flangeMm } = thick;
  const inIt = reinforcement?.gPerM2 ?? 0;
  return {
    name,
    thicknessMm: mm,
    flangeThicknessMm: flangeMm,
    takes: [
      { material: mixture.material, perM2: kg(mm), flangePerM2: kg(flangeMm) },
      { material: "mixing-water", perM2: water(mm), flangePerM2: water(flangeMm) },
      ...(reinforcement
        ? [{ material: reinforcement.material, perM2: reinforcement.perM2, flangePerM2: reinforcement.perM2 }]
        : []),
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

/** A coat of resin alone. @param times how often it is laid on the flanges */
export function resinCoat(
  name: string,
  mm: number,
  density: number,
  mixture: Mixture,
  takes: Resined,
  times = 1,
): ShellLayer {
  const gPerM2 = mm * density * 1000;
  return {
    name,
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
  readonly resin: MaterialId;
  readonly hardener: { readonly material: MaterialId; readonly percent: number } | null;
}

function resinTakes(gPerM2: number, { resin, hardener }: Resined, times: number): LayerTake[] {
  const take = (material: MaterialId, g: number): LayerTake => ({
    material,
    perM2: g / 1000,
    flangePerM2: (g * times) / 1000,
  });
  return [take(resin, gPerM2), ...(hardener ? [take(hardener.material, (gPerM2 * hardener.percent) / 100)] : [])];
}

export interface GlassLaid extends Resined {
  readonly glass: MaterialId;
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
export function glassLayer(name: string, laid: GlassLaid, mixture: Mixture): ShellLayer {
  const { glass, glassGPerM2, glassFraction, density, overlap, times } = laid;
  const { resinGPerM2, thicknessMm } = laminateLayer(glassGPerM2, glassFraction, density);
  const resinG = resinGPerM2 * overlap;
  const wholeG = resinG + glassGPerM2 * overlap;
  return {
    name,
    thicknessMm,
    flangeThicknessMm: thicknessMm * times,
    takes: [...resinTakes(resinG, laid, times), { material: glass, perM2: overlap, flangePerM2: overlap * times }],
    wetG: wholeG,
    dryG: wholeG,
    flangeDryG: wholeG * times,
    pot: { mixture, gPerM2: resinG, flangeGPerM2: resinG * times },
  };
}
