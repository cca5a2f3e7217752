import { z } from "zod";
import { type Rates, TYPICAL_RATES } from "../core/plan/estimate.ts";
import { FINENESSES } from "../core/plan/steps.ts";

const money = z.number().int().min(0).max(100_000_00);
const minutes = z.number().min(0).max(10_000);

export const rates = z.object({
  currency: z.string().trim().min(1).max(4),
  siliconePerKgMinor: money,
  shellPerKgMinor: money,
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
  cutOffMin: minutes.default(TYPICAL_RATES.cutOffMin),
  keepClearWeight: z.number().min(1).max(100).default(TYPICAL_RATES.keepClearWeight),
}) satisfies z.ZodType<Rates>;

export const settings = z.object({
  units: z.enum(["metric", "imperial", "both"]),
  theme: z.enum(["day", "night"]),
  fineness: z.enum(FINENESSES),
  memberName: z.string().trim().min(1, "Type your name.").max(80),
  rates,
});
export type Settings = z.infer<typeof settings>;

export const DEFAULT_SETTINGS: Omit<Settings, "memberName"> = {
  units: "metric",
  theme: "day",
  fineness: "usual",
  rates: TYPICAL_RATES,
};

export const session = z.object({
  workshop: z.object({ id: z.uuid(), name: z.string() }),
  member: z.object({ id: z.uuid(), name: z.string() }),
  settings,
});
export type Session = z.infer<typeof session>;
