import { describe, expect, it } from "vitest";
import type { Direction } from "../../space/directions.ts";
import { moved, sphere, torus } from "../../testing/shapes.ts";
import { contraryPair } from "./contraryPair.ts";

const AXES: readonly Direction[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
];
const prices = { fillPerMm3: 1e-3, lift: 200 };

describe("the pair of contrary pulls that fills least", () => {
  const ring = { coarse: moved(torus(100, 30), 0, 0, 30), spacingMm: 3, boardMm: 0 };
  // Along x a line at height z crosses a hole of radius R - sqrt(r2 - z2): its area, over the height of the ring.
  const holeMm3 = Math.PI * (100 ** 2 * 60 - 200 * ((Math.PI * 30 ** 2) / 2) + (4 / 3) * 30 ** 3);

  it("goes up and down where a lift is cheaper than the hole of a ring", () => {
    const { pulls, energy } = contraryPair(ring, AXES, true, prices);
    expect(pulls.map(([, , z]) => Math.abs(z))).toEqual([1, 1]);
    expect(energy).toBeCloseTo(200, 0);
  });

  it("is level where the piece may not be lifted, and pays for the hole", () => {
    const { pulls, energy, label } = contraryPair(ring, AXES, false, prices);
    expect(pulls.every(([, , z]) => z === 0 || Object.is(z, -0))).toBe(true);
    expect(Math.abs(energy / (holeMm3 * prices.fillPerMm3) - 1)).toBeLessThan(0.03);
    const p = ring.coarse.positions;
    const [[x, y]] = pulls;
    // The outside of the ring goes with the pull it faces.
    for (let v = 0; v < label.length; v++) {
      const along = x * p[3 * v] + y * p[3 * v + 1];
      if (Math.hypot(p[3 * v], p[3 * v + 1]) > 110 && Math.abs(along) > 10) expect(label[v]).toBe(along > 0 ? 0 : 1);
    }
  });

  it("pays nothing for a ball", () => {
    const ball = { coarse: sphere(100, 48), spacingMm: 4, boardMm: null };
    expect(contraryPair(ball, AXES, true, prices).energy).toBe(0);
  });
});
