import { describe, expect, it } from "vitest";
import type { Direction } from "../../space/directions.ts";
import { weighedPrice } from "./choosing.ts";

describe("one section more", () => {
  const up: Direction = [0, 0, 1];
  const priced = (energy: number, sections: number) =>
    weighedPrice(
      { energy, handling: 100, pulls: Array.from({ length: sections }, () => up) },
      { setupPerSection: 40, waitPerSection: 10 },
    );

  it("is tried first where it saves more than the survey can be wrong by, and last where it saves hardly anything", () => {
    // Three sections come to 1250, four to 1245 and to 1200.
    expect(priced(945, 4)).toBeGreaterThan(priced(1000, 3));
    expect(priced(900, 4)).toBeLessThan(priced(1000, 3));
  });
});
