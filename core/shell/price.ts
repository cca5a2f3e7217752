/**
 * What a shell costs by its weight, against the one that the workshop's rate is for. The rate is one figure, for plaster and jute;
 * another system's is as much higher as its materials are dearer at the catalogue's typical prices, in their largest packs.
 */
import { entryOf } from "../materials/catalogue.ts";
import { shellLayers, typicalLayup, USUAL_TERMS } from "./index.ts";
import type { LayTerms, Layup } from "./layup.ts";

/** The system that the workshop's rate for a kilogram of shell is for. */
const RATED = "gypsum-jute";

/** Typical price of the materials in a kilogram of shell, minor units. */
function typicalMinorPerKg(layup: Layup, terms: LayTerms): number {
  let [minor, grams] = [0, 0];
  for (const { takes, dryG } of shellLayers(layup, terms)) {
    grams += dryG;
    for (const { material, perM2 } of takes) {
      const prices = entryOf(material, terms.materials.own).packs.map(({ amount, priceMinor }) => priceMinor / amount);
      if (prices.length > 0) minor += perM2 * Math.min(...prices);
    }
  }
  return minor / (grams / 1000);
}

export function dearerThanRated(layup: Layup, terms: LayTerms = USUAL_TERMS): number {
  const usual = typicalLayup(RATED);
  const isUsual = layup.system === RATED && Object.keys(terms.materials.instead).length === 0;
  return isUsual ? 1 : typicalMinorPerKg(layup, terms) / typicalMinorPerKg(usual, USUAL_TERMS);
}
