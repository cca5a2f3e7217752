import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inLine, nextWorking, type Task, TYPICAL_WEEK } from "./line.ts";

const hour = 60;
const at = (day: number, clock: number) => day * 24 * hour + clock * hour;
const MONDAY = 0;
const ready = (tasks: readonly Task[], start: number) => {
  const timed = inLine(tasks, start);
  return nextWorking(timed[timed.length - 1].readyMin, TYPICAL_WEEK);
};
const section = (handsH: number, cureH: number): Task => ({
  id: "s",
  name: "s",
  handsMin: handsH * hour,
  waitMin: cureH * hour,
});

describe("tasks in line", () => {
  it("three sections of 1.5 h and 16 h of cure are ready on Thursday at eight", () => {
    expect(ready([section(1.5, 16), section(1.5, 16), section(1.5, 16)], at(MONDAY, 8))).toBe(at(3, 8));
  });

  it("three sections of 2 h and 3 h of cure are ready on Tuesday at one", () => {
    expect(ready([section(2, 3), section(2, 3), section(2, 3)], at(MONDAY, 8))).toBe(at(1, 13));
  });

  it("put long work down overnight and over the weekend", () => {
    expect(inLine([section(12, 0)], at(4, 8))[0].doneMin).toBe(at(7, 11));
  });

  it("begin when somebody is there", () => {
    expect(inLine([section(1, 0)], at(5, 10))[0].startMin).toBe(at(7, 8));
    expect(inLine([section(1, 0)], at(0, 18))[0].startMin).toBe(at(1, 8));
  });

  it("refuse a week without working time", () => {
    expect(() => inLine([], 0, { fromMin: 600, toMin: 600, days: 5 })).toThrow(RangeError);
  });

  it("never finish sooner for starting later or for more work", () => {
    const tasks = fc.array(
      fc.record({ handsMin: fc.nat(900), waitMin: fc.nat(2000) }).map((t) => ({ id: "t", name: "t", ...t })),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(tasks, fc.nat(20_000), fc.nat(600), (list, start, more) => {
        expect(ready(list, start + more)).toBeGreaterThanOrEqual(ready(list, start));
        const longer = list.map((task, k) => (k === 0 ? { ...task, handsMin: task.handsMin + more } : task));
        expect(ready(longer, start)).toBeGreaterThanOrEqual(ready(list, start));
        const hands = inLine(list, start).reduce((sum, t) => sum + t.handsMin, 0);
        expect(ready(list, start) - start).toBeGreaterThanOrEqual(hands);
      }),
      { seed: 5 },
    );
  });
});
