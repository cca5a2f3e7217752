/** Gypsum mixes by the absolute-volume method. */

/** Density of gypsum powder (hemihydrate), g/cm3. */
export const GYPSUM_POWDER_DENSITY = 2.7;
/** Water the set keeps, g per 100 g of powder (hemihydrate to dihydrate: 27.03/145.15). */
export const WATER_KEPT_PER_100 = 18.62;

export interface GypsumYield {
  /** Powder in one litre of mix, kg. */
  readonly powderKgPerLitre: number;
  readonly waterKgPerLitre: number;
  readonly wetKgPerLitre: number;
  /** After drying: powder and the water the set keeps. */
  readonly dryKgPerLitre: number;
}

/**
 * @param waterPer100 water per 100 of powder, by mass
 * @throws RangeError for a mix with no water or more water than three times the powder
 */
export function gypsumYield(waterPer100: number): GypsumYield {
  if (!(waterPer100 > 0 && waterPer100 <= 300))
    throw new RangeError("Water per 100 of powder must be above 0 and at most 300.");
  const powder = 1 / (1 / GYPSUM_POWDER_DENSITY + waterPer100 / 100);
  return {
    powderKgPerLitre: powder,
    waterKgPerLitre: (powder * waterPer100) / 100,
    wetKgPerLitre: powder * (1 + waterPer100 / 100),
    dryKgPerLitre: powder * (1 + WATER_KEPT_PER_100 / 100),
  };
}
