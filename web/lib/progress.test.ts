import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { seldom } from "./progress.ts";

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
});
