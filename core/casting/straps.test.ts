import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lathe } from "../testing/shapes.ts";
import { type StrapsRequest, strapsRound } from "./straps.ts";

/** A round post of 200 mm radius, 1 m high. */
const post = lathe(
  [[0, 1000], ...Array.from({ length: 41 }, (_, k): [number, number] => [200, 1000 - 25 * k]), [0, 0]],
  96,
);
const request: StrapsRequest = {
  mesh: post,
  shellMm: 20,
  edges: [],
  forceN: 9000,
  loadN: 1500,
  depthMm: 1000,
  position: "as-it-stands",
};

describe("straps round a mould", () => {
  it("are as many as bear the force with both their sides, each as long as it takes to go round", () => {
    const straps = strapsRound(request);
    expect(straps).toHaveLength(3);
    for (const { ring, heightMm } of straps)
      for (let k = 0; k < ring.length; k += 3) {
        expect(Math.abs(Math.hypot(ring[k], ring[k + 1]) - 220)).toBeLessThan(1);
        expect(ring[k + 2]).toBeCloseTo(heightMm, 3);
      }
    for (const { lengthMm } of straps) expect(Math.abs(lengthMm - 400 - 2 * Math.PI * 220)).toBeLessThan(8);
  });

  it("lie where each bears an equal share: closer to each other where the liquid is deepest", () => {
    const heights = strapsRound(request).map(({ heightMm }) => heightMm);
    const depths = heights.map((mm) => 1000 - mm).reverse();
    // The load above a depth grows with its square: the middles of three equal shares.
    depths.forEach((mm, k) => {
      expect(mm / 1000).toBeCloseTo(Math.sqrt((k + 0.5) / 3), 1);
    });
    const turned = strapsRound({ ...request, position: "foot-up" }).map(({ heightMm }) => 1000 - heightMm);
    turned.reverse().forEach((mm, k) => {
      expect(Math.abs(mm - heights[k])).toBeLessThan(45);
    });
  });

  it("go round flanges that stand out", () => {
    const [flanged] = strapsRound({ ...request, forceN: 10, edges: [Float64Array.from([300, 0, 700, 300, 0, 300])] });
    const [plain] = strapsRound({ ...request, forceN: 10 });
    expect(flanged.lengthMm).toBeGreaterThanOrEqual(plain.lengthMm);
  });

  it("are never fewer than two, never over their load, and lie on the mould", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 80_000, noNaN: true }),
        fc.double({ min: 50, max: 20_000, noNaN: true }),
        fc.double({ min: 50, max: 1000, noNaN: true }),
        (forceN, loadN, depthMm) => {
          const straps = strapsRound({ ...request, forceN, loadN, depthMm });
          expect(straps.length).toBeGreaterThanOrEqual(2);
          expect(forceN / (2 * straps.length)).toBeLessThanOrEqual(loadN * (1 + 1e-9));
          for (const { heightMm } of straps) {
            expect(heightMm).toBeGreaterThan(0);
            expect(heightMm).toBeLessThan(1000);
          }
        },
      ),
      { numRuns: 25 },
    );
  });
});
