import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import { refined } from "../mesh/refine.ts";
import { labelsOfLayout } from "../parting/layout/sections.ts";
import { surfaceOf } from "../parting/layout/surface.ts";
import { seamRoute } from "../parting/seam/seamRoute.ts";
import { NO_ZONES } from "../survey/zones.ts";
import { cylinder, moved, torus, turned } from "../testing/shapes.ts";
import { NO_SEAM, SEAM_SCHOOLS, seamTakeoff } from "./seam.ts";

describe("what a seam takes", () => {
  const points = [0, 0, 0, 0, 0, 600, 0, 0, 1500];

  it("is its length by the school's minutes, faces and shims", () => {
    expect(seamTakeoff({ kind: "slit", school: "shims", points }, 8)).toEqual({
      lengthMm: 1500,
      makeMin: 45,
      releasedMm2: 2 * 1500 * 8,
      shims: 30,
    });
    expect(seamTakeoff({ kind: "parts", school: "cut", points }, 8)).toMatchObject({ releasedMm2: 0, shims: 0 });
  });

  it("is nothing for a sock, whatever was laid before", () => {
    for (const { id } of SEAM_SCHOOLS) {
      const { lengthMm, makeMin, shims } = seamTakeoff({ ...NO_SEAM, school: id, points }, 8);
      expect([lengthMm, makeMin, shims]).toEqual([0, 0, 0]);
    }
  });
});

describe("a suggested route", () => {
  const drum = surfaceOf(clipAbove(refined(moved(cylinder(100, 440, 72), 0, 0, 180), 14), 0), 0, ctx);
  const common = { slitMm: 240, keepClear: NO_ZONES.keepClear, overMm: 0 };
  const pointsOf = (p: readonly number[]) =>
    Array.from({ length: p.length / 3 }, (_, k) => [p[3 * k], p[3 * k + 1], p[3 * k + 2]]);

  it("slits the back, straight, as far up as the stretch asks", () => {
    const route = pointsOf(seamRoute(drum, { ...common, kind: "slit" }).points);
    expect(route[0][2]).toBeLessThan(5);
    expect(route.at(-1)?.[2]).toBeCloseTo(240, -1);
    for (const [, y] of route) expect(y).toBeGreaterThan(-10);
    const length = route.slice(1).reduce((sum, p, k) => sum + Math.hypot(...p.map((x, a) => x - route[k][a])), 0);
    expect(length).toBeLessThan(1.06 * 240);
  });

  it("turns aside from a zone to keep clear", () => {
    const plain = pointsOf(seamRoute(drum, { ...common, kind: "slit" }).points);
    const [x, y, z] = plain[Math.floor(plain.length / 2)];
    const zone = [x, y, z, x / 100, y / 100, 0, 60];
    const route = pointsOf(seamRoute(drum, { ...common, kind: "slit", keepClear: zone }).points);
    for (const p of route) expect(Math.hypot(p[0] - x, p[1] - y, p[2] - z)).toBeGreaterThan(45);
  });

  it("for two parts runs from the foot over the top and down on the other side", () => {
    const route = pointsOf(seamRoute(drum, { ...common, kind: "parts" }).points);
    expect(Math.max(...route.map(([, , z]) => z))).toBeCloseTo(400, -0.5);
    const [first, last] = [route[0], route[route.length - 1]];
    expect(first[2] + last[2]).toBeLessThan(10);
    expect(Math.hypot(first[0] - last[0], first[1] - last[1])).toBeGreaterThan(180);
  });

  it("for two parts leaves neither a strip, though one side is far cheaper than the other", () => {
    // All round but for the back a mm is dear: two ways along the back would be the cheapest.
    const zone = [0, -100, 200, 0, -1, 0, 190];
    const { points, lines } = seamRoute(drum, { ...common, kind: "parts", keepClear: zone });
    expect(lines).toBe(1);
    const line = { points, handles: [0, points.length / 3 - 1], closed: false, left: 0, right: 1 };
    const label = labelsOfLayout(drum, { sections: [{ pull: [1, 0, 0] }, { pull: [-1, 0, 0] }], lines: [line] });
    const areas = [0, 1].map((s) => label.reduce((sum, own, v) => sum + (own === s ? drum.areasMm2[v] : 0), 0));
    expect(Math.min(...areas) / (areas[0] + areas[1])).toBeGreaterThan(0.28);
  });

  it("takes more than one line where a hole runs through, and says so", () => {
    // A ring lying on its edge: either half of it is cut off at two places.
    const ring = surfaceOf(moved(turned(torus(120, 40, 64, 24), [1, 0, 0, 0, 0, -1, 0, 1, 0]), 0, 0, 160), null, ctx);
    expect(seamRoute(ring, { ...common, kind: "parts" }).lines).toBe(2);
  });
});
