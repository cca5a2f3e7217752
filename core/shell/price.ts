/**
 * What a shell costs by its weight, against the one that the workshop's rate is for. The rate is one figure, for plaster and jute;
 * another system's is as much higher as its materials are dearer at the catalogue's typical prices, in their largest packs.
 */
import { entryOf } from "../materials/catalogue.ts";
import { shellLayers } from "./index.ts";

/** The system that the workshop's rate for a kilogram of shell is for. */
const RATED = "gypsum-jute";

/** Typical price of the materials in a kilogram of shell, minor units. */
function typicalMinorPerKg(system: string, figures: Readonly<Record<string, number>>): number {
  let [minor, grams] = [0, 0];
  for (const { takes, dryG } of shellLayers(system, figures)) {
    grams += dryG;
    for (const { material, perM2 } of takes) {
      const prices = entryOf(material).packs.map(({ amount, priceMinor }) => priceMinor / amount);
      if (prices.length > 0) minor += perM2 * Math.min(...prices);
    }
  }
  return minor / (grams / 1000);
}

export function dearerThanRated(system: string, figures: Readonly<Record<string, number>>): number {
  return system === RATED ? 1 : typicalMinorPerKg(system, figures) / typicalMinorPerKg(RATED, {});
}
