import { describe, expect, it } from "vitest";
import { dateOf, minutesThisWeek } from "./clock.ts";

const monday = new Date(2026, 10, 23);

describe("the page's clock", () => {
  it("counts minutes from the Monday of the week", () => {
    expect(minutesThisWeek(new Date(2026, 10, 23, 8, 30))).toBe(8 * 60 + 30);
    expect(minutesThisWeek(new Date(2026, 10, 29, 23, 0))).toBe(6 * 1440 + 23 * 60);
  });

  it("comes back to the date, over the end of a month and a change of clocks", () => {
    for (const now of [monday, new Date(2026, 9, 22, 14), new Date(2026, 2, 27, 9)]) {
      for (const minutes of [0, 485, 5 * 1440 + 480, 9 * 1440 + 60]) {
        const date = dateOf(minutes, now);
        const days = Math.floor(minutes / 1440);
        const start = new Date(now.getFullYear(), now.getMonth(), now.getDate() - ((now.getDay() + 6) % 7));
        expect(date.getDate()).toBe(new Date(start.getFullYear(), start.getMonth(), start.getDate() + days).getDate());
        expect(date.getHours() * 60 + date.getMinutes()).toBe(minutes % 1440);
      }
    }
  });
});
