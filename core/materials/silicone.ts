/** Brushed silicone: its mix and what to buy for a jacket. */
import { MM3_PER_CM3 } from "../units/index.ts";
import { entryOf, type MaterialKey, type SiliconeId, type SiliconeKey } from "./catalogue.ts";
import { AS_USUAL, type ChosenMaterials, chosenFor } from "./chosen.ts";
import type { OwnEntry } from "./entries/own.ts";
import { type MaterialLine, type Property, TYPICAL } from "./property.ts";

/** What a plan's silicone is where nothing else was chosen. */
export const USUAL_SILICONE: SiliconeId = "tin-brushable-low";

/** Figures that go for every silicone that is brushed. */
export const SILICONE = {
  thickenerPer100: { value: 1.5, unit: "g per 100 g of base, thickened coats", source: TYPICAL },
  pigmentPer100: { value: 0.5, unit: "g per 100 g of base", source: TYPICAL },
  wasteShare: { value: 0.1, unit: "share left in pots and brushes", source: TYPICAL },
} as const satisfies Record<string, Property>;

/** So much thickener goes into thickened coats: as what stands in for the usual one says, if it says so. */
export function thickenerPer100(materials: ChosenMaterials): Property {
  const { isInstead, figures } = chosenFor("silicone-thickener", materials);
  const { per100 } = figures;
  return isInstead && per100 !== undefined ? { ...SILICONE.thickenerPer100, value: per100 } : SILICONE.thickenerPer100;
}

/** A jacket is stretched off safely by this share of what its rubber breaks at: a rule of thumb. */
const SAFE_STRETCH = 1 / 3;

export interface SiliconeFigures {
  readonly densityGPerCm3: number;
  readonly potMin: number;
  /** Until the next coat, and until it is cured, minutes at 20 °C. */
  readonly tackMin: number;
  readonly cureMin: number;
  /** Of the mix, by mass: what is not the base. */
  readonly hardenerShare: number;
  /** By how much of its length it stretches without harm, as a property that says where it comes from. */
  readonly workingStretch: Property;
}

/** @param own entries of the workshop, where it is one of those */
export function siliconeOf(id: SiliconeKey, own: readonly OwnEntry[] = []): SiliconeFigures {
  const { figures, mix = [] } = entryOf(id, own);
  const of = (key: "densityGPerCm3" | "potMin" | "tackMin" | "cureMin" | "stretchPercent") => figures[key] ?? 0;
  const [base, hardener] = mix;
  return {
    densityGPerCm3: of("densityGPerCm3"),
    potMin: of("potMin"),
    tackMin: of("tackMin"),
    cureMin: of("cureMin"),
    hardenerShare: base && hardener ? hardener.parts / (base.parts + hardener.parts) : 0,
    workingStretch: {
      value: (of("stretchPercent") / 100) * SAFE_STRETCH,
      unit: "share of its length it stretches without harm: a third of its stretch at break",
      source: TYPICAL,
    },
  };
}

/** Density that results of the geometry are weighed by, g/cm3: another silicone's masses follow from its own. */
export const WEIGHED_AT_G_PER_CM3 = siliconeOf(USUAL_SILICONE).densityGPerCm3;

/** How much heavier a silicone is than what results are weighed by. */
export function heavierThanWeighed(id: SiliconeKey, own: readonly OwnEntry[] = []): number {
  return siliconeOf(id, own).densityGPerCm3 / WEIGHED_AT_G_PER_CM3;
}

/** Mass of a volume of cured silicone, g. */
export function siliconeMassG(volumeMm3: number, densityGPerCm3 = WEIGHED_AT_G_PER_CM3): number {
  return (volumeMm3 / MM3_PER_CM3) * densityGPerCm3;
}

/** What is laid of one silicone, g on the piece. */
export interface SiliconeLaid {
  readonly id: SiliconeKey;
  /** Rim and fill included. */
  readonly massG: number;
  /** The part of it that is thickened. */
  readonly thickenedG: number;
  /** Of the keys that are cast beforehand. */
  readonly keysG: number;
}

/**
 * What to buy for a jacket. Silicone is sold as base with its catalyst, which is weighed against the base alone; thickener and
 * pigment go on top.
 * @param laid one a silicone
 */
export function siliconeBuying(laid: readonly SiliconeLaid[], materials: ChosenMaterials = AS_USUAL): MaterialLine[] {
  const { pigmentPer100, wasteShare } = SILICONE;
  const { own } = materials;
  const thickener = thickenerPer100(materials);
  const line = (
    material: MaterialKey,
    grams: number,
    formula: string,
    inputs: MaterialLine["working"]["inputs"],
  ): MaterialLine => ({
    material,
    use: "jacket",
    group: "jacket",
    quantity: grams / 1000,
    unit: "kg",
    working: { formula, inputs },
  });
  const mixed = laid.map(({ id, massG, thickenedG, keysG }) => {
    const baseShare = 1 - siliconeOf(id, own).hardenerShare;
    const mixedG = (massG + keysG) * (1 + wasteShare.value);
    return {
      ...{ id, massG, keysG, mixedG },
      baseG: mixedG * baseShare,
      thickenedBaseG: thickenedG * (1 + wasteShare.value) * baseShare,
    };
  });
  const baseG = mixed.reduce((sum, each) => sum + each.baseG, 0);
  const thickenedBaseG = mixed.reduce((sum, each) => sum + each.thickenedBaseG, 0);
  return [
    ...mixed.map((each) =>
      line(each.id, each.mixedG, "silicone × (1 + waste), base and catalyst together", [
        { name: "silicone on the piece", value: each.massG / 1000, unit: "kg" },
        ...(each.keysG > 0 ? [{ name: "keys on the jacket", value: each.keysG / 1000, unit: "kg" }] : []),
        { name: "waste", value: wasteShare.value, unit: wasteShare.unit },
        { name: "of it base", value: each.baseG / 1000, unit: "kg" },
        { name: "of it catalyst", value: (each.mixedG - each.baseG) / 1000, unit: "kg" },
      ]),
    ),
    line(
      "silicone-thickener",
      (thickenedBaseG * thickener.value) / 100,
      "base of the thickened coats × thickener ÷ 100",
      [
        { name: "base of the thickened coats", value: thickenedBaseG / 1000, unit: "kg" },
        { name: "thickener", value: thickener.value, unit: thickener.unit },
      ],
    ),
    line("silicone-pigment", (baseG * pigmentPer100.value) / 100, "base × pigment ÷ 100", [
      { name: "base", value: baseG / 1000, unit: "kg" },
      { name: "pigment", value: pigmentPer100.value, unit: pigmentPer100.unit },
    ]),
  ];
}
