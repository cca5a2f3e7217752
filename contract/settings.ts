import { z } from "zod";
import { FINENESSES } from "../core/plan/stages/steps.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { rates } from "./rates.ts";

export { rates } from "./rates.ts";

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
