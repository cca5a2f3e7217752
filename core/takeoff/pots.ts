/**
 * Every coat and every layer of a plan in pots: what it takes, with what stays in bucket and brush, in equal pots none of which
 * sets before it is laid, and the weigh-out card of each.
 */
import { entryOf, type SiliconeKey } from "../materials/catalogue.ts";
import { type ChosenMaterials, chosenFor } from "../materials/chosen.ts";
import {
  greatestPot,
  hardenedAt,
  type MixingSettings,
  type Mixture,
  type Pots,
  potMinAt,
  potsFor,
  type Weighed,
  weighOut,
} from "../materials/mixing.ts";
import type { Working } from "../materials/property.ts";
import { SILICONE, siliconeOf, thickenerPer100 } from "../materials/silicone.ts";
import { coatSilicones, layTerms, type PlanDocument } from "../plan/document/document.ts";
import { shellLayers, wasteOf } from "../shell/index.ts";
import { layupsFor } from "../shell/layup.ts";
import { MM2_PER_M2 } from "../units/index.ts";
import { type Fixings, spanAsBuilt } from "./fixings.ts";
import { spanOf } from "./flanges.ts";
import type { Quantities } from "./quantities.ts";
import type { PartingTotals } from "./totals.ts";

export interface PotRow {
  /** What is laid: a coat, or a layer of a section. */
  readonly step: {
    readonly kind: "coat" | "fills" | "keys" | "layer";
    /** Of the coat, or of the section. */
    readonly number: number;
    /** Of the layer. */
    readonly name: string;
  };
  readonly mixture: Mixture;
  /** What ends on the work, and what stays in bucket and brush, g. */
  readonly laidG: number;
  readonly lossG: number;
  /** How what is laid, and the size of a pot, come about. */
  readonly working: Working;
  /** What the last pot leaves, because pots are of a round size, g. */
  readonly leftOverG: number;
  readonly pots: Pots;
  /** Of one pot. */
  readonly card: readonly Weighed[];
  /** How long a pot can be laid at the temperature expected, minutes; null where it does not set at all. */
  readonly potMin: number | null;
  /** The same work on a day as hot as `HOT_C`. */
  readonly whenHot: { readonly count: number; readonly potMin: number };
}

/** A hot day at the bench, °C. */
export const HOT_C = 28;
/** A pot that lasts shorter is laid in a hurry; one that lasts longer is waited for: another catalyst is worth a thought, min. */
export const HURRY_MIN = 8;
export const LONG_MIN = 60;

/** One person brushes so much silicone a minute, g. */
const SILICONE_G_PER_MIN = 90;

export function potRows(
  document: PlanDocument,
  parting: PartingTotals,
  quantities: Pick<Quantities, "coatsG" | "fillG" | "keysG">,
  fixings: Fixings = { bolts: 0, jacketKeys: 0 },
): PotRow[] {
  return [...jacketRows(document, quantities), ...shellRows(document, parting, fixings)];
}

/** A silicone as it is mixed: thickener and pigment go on top of the base. */
export function siliconeMix(silicone: SiliconeKey, materials: ChosenMaterials, thickened: boolean): Mixture {
  const { own } = materials;
  const { name, mix = [], family } = entryOf(silicone, own);
  const { potMin, densityGPerCm3 } = siliconeOf(silicone, own);
  const { dropsPerG = null } = chosenFor("silicone-thickener", materials).figures;
  // Parts of platinum silicones are about as dense as what they make: those are often measured by volume.
  const alike = family === "platinum-silicone" ? densityGPerCm3 : null;
  return {
    ...{ material: silicone, name, potMin, densityGPerCm3, hastens: true, mostG: null, leastC: null, peroxide: null },
    gPerMin: SILICONE_G_PER_MIN,
    parts: mix.map((part) => ({ ...part, densityGPerCm3: part.densityGPerCm3 ?? alike })),
    tops: [
      ...(thickened ? [{ name: "Thickener", per100: thickenerPer100(materials).value, dropsPerG }] : []),
      { name: "Pigment", per100: SILICONE.pigmentPer100.value, dropsPerG: null },
    ],
  };
}

/** How what is laid of silicone comes about. */
const LAID = {
  coat: "space between the offsets that the coat lies between, with its share of rim and streamlining × density",
  fills: "fills of silicone × density",
  keys: "keys × volume of one × density",
} as const;

function jacketRows(
  { jacket, materials, mixing }: PlanDocument,
  { coatsG, fillG, keysG }: Pick<Quantities, "coatsG" | "fillG" | "keysG">,
): PotRow[] {
  const row = (kind: "coat" | "fills" | "keys", number: number, silicone: SiliconeKey, thick: boolean, laidG: number) =>
    rowOf(
      { kind, number, name: "" },
      siliconeMix(silicone, materials, thick),
      laidG,
      SILICONE.wasteShare.value,
      mixing,
      {
        formula: LAID[kind],
        inputs: [{ name: "density", value: siliconeOf(silicone, materials.own).densityGPerCm3, unit: "g/cm³" }],
      },
    );
  const silicones = coatSilicones(jacket);
  return [
    ...(keysG > 0 ? [row("keys", 1, jacket.silicone, false, keysG)] : []),
    ...jacket.coats.map(({ thickened }, k) => row("coat", k + 1, silicones[k], thickened, coatsG[k])),
    ...(fillG > 0 ? [row("fills", 1, jacket.silicone, true, fillG)] : []),
  ];
}

function shellRows(document: PlanDocument, parting: PartingTotals, fixings: Fixings): PotRow[] {
  const layups = layupsFor(
    document.shell,
    parting.sections.map(({ id }) => id),
  );
  const estimated = spanOf(document, parting);
  const { areasMm2, flangeAreasMm2: flanges } = spanAsBuilt(estimated, fixings, layups);
  return parting.sections.flatMap(({ number }, s) =>
    shellLayers(layups[s], layTerms(document)).flatMap(({ name, pot }) => {
      if (!pot) return [];
      const laidG = (areasMm2[s] * pot.gPerM2 + flanges[s] * pot.flangeGPerM2) / MM2_PER_M2;
      const laid = {
        formula: "skin × what a m² takes + flanges × what a m² of them takes",
        inputs: [
          { name: "skin", value: areasMm2[s] / MM2_PER_M2, unit: `m² at ${Math.round(pot.gPerM2)} g` },
          { name: "flanges", value: flanges[s] / MM2_PER_M2, unit: `m² at ${Math.round(pot.flangeGPerM2)} g` },
        ],
      };
      const step = { kind: "layer", number, name } as const;
      return [rowOf(step, pot.mixture, laidG, wasteOf(layups[s]), document.mixing, laid)];
    }),
  );
}

function rowOf(
  step: PotRow["step"],
  mixture: Mixture,
  laidG: number,
  waste: number,
  mixing: MixingSettings,
  laid: Working,
): PotRow {
  const lossG = laidG * waste;
  const needG = laidG + lossG;
  const isTooCold = mixture.leastC !== null && mixing.temperatureC < mixture.leastC;
  const own = hardenedAt(mixture, mixing.temperatureC);
  const inHeat = hardenedAt(mixture, HOT_C);
  const pots = potsFor(needG, own, mixing);
  const greatest = greatestPot(own, mixing);
  return {
    working: {
      formula: `${laid.formula}; × (1 + waste); in as few equal pots as are no larger than the greatest, of a round size`,
      inputs: [
        ...laid.inputs,
        { name: "laid", value: laidG, unit: "g" },
        { name: "waste", value: waste, unit: "share" },
        { name: "greatest pot", value: greatest.g, unit: "g" },
        { name: "pots", value: pots.count, unit: `of ${Number(pots.eachG.toPrecision(4))} g` },
      ],
    },
    ...{ step, mixture: own, laidG, lossG, pots },
    leftOverG: Math.max(0, pots.count * pots.eachG - needG),
    card: weighOut(own, pots.eachG, mixing),
    potMin: isTooCold ? null : potMinAt(own, mixing.temperatureC),
    whenHot: {
      count: potsFor(needG, inHeat, { ...mixing, temperatureC: HOT_C }).count,
      potMin: potMinAt(inHeat, HOT_C),
    },
  };
}
