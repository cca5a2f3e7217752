/** The workshop's rates on the wire, and those of them that a search for sections goes by. */
import { z } from "zod";
import { SEARCH_RATES, type SearchRates } from "../core/plan/document/searchRates.ts";
import { type Rates, TYPICAL_RATES } from "../core/takeoff/rates.ts";

/** As a material is sold. */
const pack = z.object({
  amount: z.number().gt(0, "A pack holds more than nothing.").max(100_000),
  priceMinor: z.number().int().min(0, "A price is not less than nothing.").max(100_000_00),
  from: z.number().int().min(2).max(1000).optional(),
});
export const packs = z.array(pack).max(12);

const money = z.number().int().min(0).max(100_000_00);
const minutes = z.number().min(0).max(10_000);

export const rates = z.object({
  currency: z.string().trim().min(1).max(4),
  siliconePerKgMinor: money,
  // Of the store, where the rates are kept with what is built from.
  packs: z.record(z.string(), packs.readonly()).readonly().optional(),
  hourMinor: money,
  coatMinPerM2: minutes,
  layerMinPerM2: minutes,
  wallMinPerM: minutes,
  sectionSetupMin: minutes,
  // Later rates stand at their typical value in settings kept before they came.
  finishMinPerM: minutes.default(TYPICAL_RATES.finishMinPerM),
  waitHourMinor: money.default(TYPICAL_RATES.waitHourMinor),
  overLiftPerKgMinor: money.default(TYPICAL_RATES.overLiftPerKgMinor),
  overHandlingPerMMinor: money.default(TYPICAL_RATES.overHandlingPerMMinor),
  liftMin: minutes.default(TYPICAL_RATES.liftMin),
  fillMinPerL: minutes.default(TYPICAL_RATES.fillMinPerL),
  cutOffMin: minutes.default(TYPICAL_RATES.cutOffMin),
  keepClearWeight: z.number().min(1).max(100).default(TYPICAL_RATES.keepClearWeight),
}) satisfies z.ZodType<Partial<Rates>>;

export const searchRates = rates.pick(
  Object.fromEntries(SEARCH_RATES.map((name) => [name, true])) as Record<(typeof SEARCH_RATES)[number], true>,
) satisfies z.ZodType<SearchRates>;
