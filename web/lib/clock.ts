/** The page's clock in the core's terms: minutes from the Monday of this week, local time. */
import { addDays, differenceInMilliseconds, setMinutes, startOfISOWeek } from "date-fns";
import { DAY_MIN } from "../../core/schedule/line.ts";

const MINUTE_MS = 60_000;

/** Minutes since the Monday of this week at midnight. */
export function minutesThisWeek(now = new Date()): number {
  return differenceInMilliseconds(now, startOfISOWeek(now)) / MINUTE_MS;
}

/** The moment so many minutes after the Monday of this week, by the calendar, so that a change of clocks moves no day. */
export function dateOf(minutes: number, now = new Date()): Date {
  const day = addDays(startOfISOWeek(now), Math.floor(minutes / DAY_MIN));
  return setMinutes(day, Math.round(minutes % DAY_MIN));
}
