import { enGB, enUS } from "date-fns/locale";
import { describe, expect, it } from "vitest";
import { localeOf, longDate, moment, timeOfDay, workingDay } from "./dates.ts";

const afternoon = new Date(2026, 10, 29, 14, 5);

describe("dates", () => {
  it("are written as the member's browser writes them", () => {
    const british = [longDate, workingDay, moment, timeOfDay].map((show) => show(afternoon, enGB));
    expect(british).toEqual(["29 November 2026", "Sun 29 Nov", "29 Nov, 14:05", "14:05"]);
    const american = [longDate, workingDay, moment, timeOfDay].map((show) => show(afternoon, enUS));
    expect(american).toEqual(["November 29, 2026", "Sun, Nov 29", "Nov 29, 2:05 PM", "2:05 PM"]);
  });

  it("go by the first English of the member's languages", () => {
    expect(localeOf(["de-AT", "en-US", "en-GB"])).toBe(enUS);
    expect(localeOf(["fr"])).toBe(enGB);
  });
});
