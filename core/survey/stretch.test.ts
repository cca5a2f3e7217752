import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly } from "../testing/random.ts";
import { box, lathe } from "../testing/shapes.ts";
import { girthsOf, hullPerimeterMm, stretchCheck } from "./stretch.ts";

/** A turned body: radii by height from the board up. */
const turnedBody = (profile: readonly (readonly [number, number])[]) =>
  lathe([[0, profile[profile.length - 1][1]], ...[...profile].reverse(), [0, 0]], 96);

describe("the stretch check", () => {
  it("needs none where the piece only narrows upwards", () => {
    const cone = turnedBody([
      [100, 0],
      [30, 300],
    ]);
    const { needed, slitMm } = stretchCheck(cone, 0.5);
    expect(needed).toBeLessThan(0.01);
    expect(slitMm).toBe(0);
  });

  it("is the ratio of the widest girth above to the neck below it", () => {
    fc.assert(
      fc.property(evenly(30, 60), evenly(70, 140), (neck, head) => {
        const body = turnedBody([
          [neck, 0],
          [neck, 200],
          [head, 260],
          [head, 300],
        ]);
        const { needed, narrow, wide } = stretchCheck(body, 0.5);
        expect(needed).toBeCloseTo(head / neck - 1, 2);
        expect(narrow.girthMm / (2 * Math.PI * neck)).toBeCloseTo(1, 2);
        expect(wide.heightMm).toBeGreaterThan(255);
      }),
      { numRuns: 20 },
    );
  });

  it("slits the jacket up to where it is wide enough, and no farther", () => {
    const bell = turnedBody([
      [40, 0],
      [80, 400],
    ]);
    // Above the height where the radius is 80 / 1.25 = 64 a quarter more is enough: three fifths of the way up.
    expect(stretchCheck(bell, 0.25).slitMm).toBeCloseTo(240, -1);
    expect(stretchCheck(bell, 1.1).slitMm).toBe(0);
  });

  it("measures as a tape does: round the hull, over hollows", () => {
    for (const { girthMm } of girthsOf(box(120, 80, 200))) expect(girthMm).toBeCloseTo(400, 3);
    expect(
      hullPerimeterMm([
        [0, 0],
        [4, 0],
        [4, 3],
        [0, 3],
        [2, 1],
        [1, 2],
      ]),
    ).toBeCloseTo(14);
    expect(hullPerimeterMm([])).toBe(0);
  });
});
