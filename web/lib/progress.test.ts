import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { seldom, shareOfPlan } from "./progress.ts";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe("progress", () => {
  it("is told at once, and then four times a second, however often there is news", () => {
    const told: number[] = [];
    const tell = seldom((fraction: number) => told.push(fraction));
    for (let ms = 0; ms < 1000; ms += 10) {
      tell(ms / 1000);
      vi.advanceTimersByTime(10);
    }
    expect(told).toEqual([0, 0.25, 0.5, 0.75]);
  });

  it("of a plan goes on from stage to stage, and ends with the last", () => {
    const told = ["repair", "field", "jacket", "survey", "parting"].flatMap((stage) =>
      (stage === "repair" ? [0] : [0, 0.5, 1]).map((fraction) => shareOfPlan(stage, fraction)),
    );
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect([told[0], told.at(-1)]).toEqual([0, 1]);
  });
});
