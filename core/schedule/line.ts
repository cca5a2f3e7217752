/**
 * Tasks done one after the other by the same hands, with waits between them: when each begins and when all is ready.
 * Hands work in working hours and put a long task down overnight; waiting (cure) goes on at night and over weekends.
 *
 * Times are minutes from a Monday at midnight.
 */
export interface Task {
  /** What it is of: "coat-1", "section-2"; stays with it whatever it is called. */
  readonly id: string;
  readonly name: string;
  /** Work of hands, minutes for all the people at it together. */
  readonly handsMin: number;
  /** Wait after the hands, before the next task can begin. */
  readonly waitMin: number;
}

export interface WorkingWeek {
  /** Start and end of a working day, minutes from midnight. */
  readonly fromMin: number;
  readonly toMin: number;
  /** Working days, from Monday. */
  readonly days: number;
}

export const TYPICAL_WEEK: WorkingWeek = { fromMin: 8 * 60, toMin: 17 * 60, days: 5 };

export interface TimedTask extends Task {
  readonly startMin: number;
  readonly doneMin: number;
  /** When its wait is over. */
  readonly readyMin: number;
}

export const DAY_MIN = 24 * 60;

/** @throws RangeError for a week with no working time in it */
export function inLine(tasks: readonly Task[], startMin: number, week: WorkingWeek = TYPICAL_WEEK): TimedTask[] {
  if (week.toMin <= week.fromMin || week.days < 1) throw new RangeError("The working week has no working time in it.");
  let at = startMin;
  return tasks.map((task) => {
    const begin = nextWorking(at, week);
    const doneMin = afterHands(begin, task.handsMin, week);
    at = doneMin + task.waitMin;
    return { ...task, startMin: begin, doneMin, readyMin: at };
  });
}

/** When somebody is there again to go on: the first working minute at or after a time. */
export function nextWorking(atMin: number, week: WorkingWeek): number {
  const day = Math.floor(atMin / DAY_MIN);
  const time = atMin - day * DAY_MIN;
  const works = ((day % 7) + 7) % 7 < week.days;
  if (works && time < week.toMin) return day * DAY_MIN + Math.max(time, week.fromMin);
  return nextWorking((day + 1) * DAY_MIN, week);
}

function afterHands(beginMin: number, handsMin: number, week: WorkingWeek): number {
  let at = beginMin;
  let left = handsMin;
  for (;;) {
    const dayEnd = Math.floor(at / DAY_MIN) * DAY_MIN + week.toMin;
    if (left <= dayEnd - at) return at + left;
    left -= dayEnd - at;
    at = nextWorking(dayEnd, week);
  }
}
