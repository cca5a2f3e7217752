import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly } from "../../testing/random.ts";
import { distanceTo, SegmentIndex, type SidedLine, shareNearest, sideOf } from "./segments.ts";

/** A star-shaped ring in the plane z = 0, anticlockwise seen from above: what it holds lies on its left. */
const rings = fc.array(evenly(20, 90), { minLength: 5, maxLength: 14 }).map(
  (radii): SidedLine => ({
    points: Float64Array.from(
      radii.flatMap((r, k) => {
        const a = (2 * Math.PI * k) / radii.length;
        return [r * Math.cos(a), r * Math.sin(a), 0];
      }),
    ),
    closed: true,
    left: 0,
    right: 1,
  }),
);

/** Crossings of a ray to the right (Shimrat 1962). */
function inside({ points: p }: SidedLine, x: number, y: number): boolean {
  let within = false;
  for (let k = 0; k < p.length; k += 3) {
    const o = (k + 3) % p.length;
    if (p[k + 1] > y === p[o + 1] > y) continue;
    if (x < p[k] + ((y - p[k + 1]) / (p[o + 1] - p[k + 1])) * (p[o] - p[k])) within = !within;
  }
  return within;
}

function nearestByHand(line: SidedLine, x: number, y: number, z: number): number {
  let least = Infinity;
  for (let k = 0; k < line.points.length; k += 3) {
    const segment = { line, from: k, to: (k + 3) % line.points.length };
    least = Math.min(least, distanceTo(segment, shareNearest(segment, x, y, z), x, y, z));
  }
  return least;
}

describe("the index of segments", () => {
  it("finds the nearest within its reach, and nothing beyond", () => {
    fc.assert(
      fc.property(rings, evenly(-110, 110), evenly(-110, 110), evenly(4, 40), (ring, x, y, reach) => {
        const found = new SegmentIndex([ring], reach).nearest(x, y, 3);
        const least = nearestByHand(ring, x, y, 3);
        if (least < reach) expect(found?.distanceMm).toBeCloseTo(least, 9);
        else expect(found).toBeNull();
      }),
    );
  });

  it("tells the side at segments and corners, however sharp: what a ring holds is on its left", () => {
    const up = [0, 0, 1];
    fc.assert(
      fc.property(rings, evenly(-100, 100), evenly(-100, 100), (ring, x, y) => {
        const found = new SegmentIndex([ring], 300).nearest(x, y, 0);
        if (!found || found.distanceMm < 1e-6) return;
        expect(sideOf(found, up, 0, [x, y, 0], 0) > 0).toBe(inside(ring, x, y));
      }),
      { numRuns: 400 },
    );
  });
});
