/** Brushed silicone: its mix and what to buy for a jacket. */
import { MM3_PER_CM3 } from "../units/index.ts";
import type { MaterialId } from "./catalogue.ts";
import { type MaterialLine, type Property, TYPICAL } from "./property.ts";

export const SILICONE = {
  densityGPerCm3: { value: 1.1, unit: "g/cm3", source: TYPICAL },
  catalystPer100: { value: 5, unit: "g per 100 g of base", source: TYPICAL },
  thickenerPer100: { value: 1.5, unit: "g per 100 g of base, thickened coats", source: TYPICAL },
  pigmentPer100: { value: 0.5, unit: "g per 100 g of base", source: TYPICAL },
  tackMin: { value: 90, unit: "min at 20 °C till the next coat", source: TYPICAL },
  cureMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  workingStretch: { value: 0.6, unit: "share of its length it stretches without harm", source: TYPICAL },
  wasteShare: { value: 0.1, unit: "share left in pots and brushes", source: TYPICAL },
} as const satisfies Record<string, Property>;

/** Mass of a volume of cured silicone, g. */
export function siliconeMassG(volumeMm3: number): number {
  return (volumeMm3 / MM3_PER_CM3) * SILICONE.densityGPerCm3.value;
}

/**
 * What to buy for a jacket. The catalyst is weighed against the base alone; thickener and pigment go on top.
 * @param massG silicone on the piece, rim and fill included
 * @param thickenedG the part of it in thickened coats
 * @param keysG silicone of the keys that are cast beforehand
 */
export function siliconeBuying(massG: number, thickenedG: number, keysG = 0): MaterialLine[] {
  const { catalystPer100, thickenerPer100, pigmentPer100, wasteShare } = SILICONE;
  const mixedG = (massG + keysG) * (1 + wasteShare.value);
  const baseG = mixedG / (1 + catalystPer100.value / 100);
  const thickenedBaseG = (thickenedG * (1 + wasteShare.value)) / (1 + catalystPer100.value / 100);
  const mixed = { name: "mixed silicone with waste", value: mixedG / 1000, unit: "kg" };
  const base = { name: "base", value: baseG / 1000, unit: "kg" };
  const line = (
    material: MaterialId,
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
  return [
    line("silicone-base", baseG, "silicone × (1 + waste) ÷ (1 + catalyst ÷ 100)", [
      { name: "silicone on the piece", value: massG / 1000, unit: "kg" },
      ...(keysG > 0 ? [{ name: "keys on the jacket", value: keysG / 1000, unit: "kg" }] : []),
      { name: "waste", value: wasteShare.value, unit: wasteShare.unit },
      { name: "catalyst", value: catalystPer100.value, unit: catalystPer100.unit },
    ]),
    line("silicone-catalyst", mixedG - baseG, "mixed silicone − base", [mixed, base]),
    line(
      "silicone-thickener",
      (thickenedBaseG * thickenerPer100.value) / 100,
      "base of the thickened coats × thickener ÷ 100",
      [
        { name: "base of the thickened coats", value: thickenedBaseG / 1000, unit: "kg" },
        { name: "thickener", value: thickenerPer100.value, unit: thickenerPer100.unit },
      ],
    ),
    line("silicone-pigment", (baseG * pigmentPer100.value) / 100, "base × pigment ÷ 100", [
      base,
      { name: "pigment", value: pigmentPer100.value, unit: pigmentPer100.unit },
    ]),
  ];
}
