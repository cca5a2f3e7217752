/** The settings as they are edited: money in whole units, where it is kept in minor ones. */
import { z } from "zod";
import { type Settings, settings } from "../../contract/settings.ts";

/** Rates that are money. */
export const MONEY = [
  ["siliconePerKgMinor", "Silicone, a kilogram, when lines are suggested"],
  ["hourMinor", "An hour of hands"],
  ["waitHourMinor", "An hour of waiting for a section to set"],
  ["overLiftPerKgMinor", "A kilogram of section over the lift limit"],
  ["overHandlingPerMMinor", "A metre of section over the handling size"],
] as const;

export function shown(kept: Settings): Settings {
  const rates = { ...kept.rates };
  for (const [key] of MONEY) rates[key] = rates[key] / 100;
  return { ...kept, rates };
}

function kept(form: Settings): Settings {
  const rates = { ...form.rates };
  for (const [key] of MONEY) rates[key] = Math.round(rates[key] * 100);
  return { ...form, rates };
}

/** From what stands in the form to what is kept. */
export const settingsForm = z
  .custom<Settings>()
  .transform((form): z.input<typeof settings> => kept(form))
  .pipe(settings);
