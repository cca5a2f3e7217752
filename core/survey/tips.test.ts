import { describe, expect, it } from "vitest";
import { together } from "../mesh/together.ts";
import { lathe, moved, sphere } from "../testing/shapes.ts";
import { airTips } from "./tips.ts";

describe("tips that catch air", () => {
  it("are none in a ball: its lowest place is where it is filled from", () => {
    expect(airTips(sphere(100, 32), null)).toEqual([]);
    expect(airTips(moved(sphere(100, 32), 0, 0, 100), 0)).toEqual([]);
  });

  it("is the lower rim of a cap over a stem, as deep as it hangs down", () => {
    const hat = lathe(
      [
        [0, 200],
        [90, 190],
        [90, 120],
        [80, 120],
        [40, 150],
        [40, 0],
        [0, 0],
      ],
      48,
    );
    const tips = airTips(hat, 0);
    expect(tips).toHaveLength(1);
    expect(tips[0].at[2]).toBeCloseTo(120);
    expect(tips[0].depthMm).toBeCloseTo(30);
  });

  it("are told deepest first, the lowest of all not among them", () => {
    const two = together(sphere(50, 24), moved(sphere(50, 24), 0, 0, 300));
    // Two bodies never meet: neither is the other's tip.
    expect(airTips(two, null)).toEqual([]);
  });
});
