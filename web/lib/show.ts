/** Figures as this workshop shows them. */
import { createContext, useContext, useMemo } from "react";
import { DEFAULT_SETTINGS, type Settings } from "../../contract/settings.ts";
import {
  formatArea,
  formatLength,
  formatMass,
  formatMoneyMinor,
  formatTemperature,
  formatVolume,
  formatWeighed,
} from "../../core/units/index.ts";
import { dateOf } from "./clock.ts";
import { workingDay } from "./dates.ts";

export const SettingsContext = createContext<Settings>({ ...DEFAULT_SETTINGS, memberName: "" });

export function useShow() {
  const { units, rates } = useContext(SettingsContext);
  return useMemo(() => showWith(units, rates.currency), [units, rates.currency]);
}

function showWith(units: Settings["units"], currency: string) {
  return {
    length: (mm: number) => formatLength(mm, units),
    area: (mm2: number) => formatArea(mm2, units),
    mass: (g: number) => formatMass(g, units),
    /** As a scale with such a step shows it. */
    weighed: (g: number, stepG: number) => formatWeighed(g, stepG, units),
    temperature: (celsius: number) => formatTemperature(celsius, units),
    volume: (mm3: number) => formatVolume(mm3, units),
    money: (minor: number) => formatMoneyMinor(minor, currency),
    hours: (minutes: number) => `${(minutes / 60).toFixed(minutes < 600 ? 1 : 0)}\u2009h`,
    /** A working day's date, from minutes since the Monday of this week. */
    day: (minutes: number) => workingDay(dateOf(minutes)),
    /** A stretch of time, to what matters of it. */
    span: (minutes: number) =>
      minutes >= 36 * 60 ? `${Math.round(minutes / 1440)}\u2009days` : `${Math.round(minutes / 60)}\u2009h`,
    units,
  };
}

/** Less of a fill than half a millilitre is shown as none, mm3. */
export const LEAST_SHOWN_MM3 = 500;

export const sectionCount = (count: number) => `${count} ${count === 1 ? "section" : "sections"}`;

export type Show = ReturnType<typeof useShow>;
