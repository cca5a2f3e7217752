/** The page's clock in the core's terms: minutes from the Monday of this week, local time. */
const MINUTE_MS = 60_000;

function monday(now: Date): Date {
  return new Date(now.getFullYear(), now.getMonth(), now.getDate() - ((now.getDay() + 6) % 7));
}

/** Minutes since the Monday of this week at midnight. */
export function minutesThisWeek(now = new Date()): number {
  return (now.getTime() - monday(now).getTime()) / MINUTE_MS;
}

/** The moment so many minutes after the Monday of this week. */
export function dateOf(minutes: number, now = new Date()): Date {
  const start = monday(now);
  // By the calendar, so that a change of clocks moves no day.
  return new Date(
    start.getFullYear(),
    start.getMonth(),
    start.getDate() + Math.floor(minutes / 1440),
    0,
    Math.round(minutes % 1440),
  );
}
