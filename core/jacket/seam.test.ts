import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { refined } from "../mesh/refine.ts";
import { seamRoute } from "../parting/hand/seamRoute.ts";
import { surfaceOf } from "../parting/hand/surface.ts";
import { NO_ZONES } from "../survey/zones.ts";
import { cylinder, moved } from "../testing/shapes.ts";
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
  const drum = surfaceOf(refined(moved(cylinder(100, 400, 72), 0, 0, 200), 14), 0, ctx);
  const common = { slitMm: 240, keepClear: NO_ZONES.keepClear, overMm: 0 };
  const pointsOf = (p: readonly number[]) =>
    Array.from({ length: p.length / 3 }, (_, k) => [p[3 * k], p[3 * k + 1], p[3 * k + 2]]);

  it("slits the back, straight, as far up as the stretch asks", () => {
    const route = pointsOf(seamRoute(drum, { ...common, kind: "slit" }));
    expect(route[0][2]).toBeLessThan(5);
    expect(route.at(-1)?.[2]).toBeCloseTo(240, -1);
    for (const [, y] of route) expect(y).toBeGreaterThan(-10);
    const length = route.slice(1).reduce((sum, p, k) => sum + Math.hypot(...p.map((x, a) => x - route[k][a])), 0);
    expect(length).toBeLessThan(1.06 * 240);
  });

  it("turns aside from a zone to keep clear", () => {
    const plain = pointsOf(seamRoute(drum, { ...common, kind: "slit" }));
    const [x, y, z] = plain[Math.floor(plain.length / 2)];
    const zone = [x, y, z, x / 100, y / 100, 0, 60];
    const route = pointsOf(seamRoute(drum, { ...common, kind: "slit", keepClear: zone }));
    for (const p of route) expect(Math.hypot(p[0] - x, p[1] - y, p[2] - z)).toBeGreaterThan(45);
  });

  it("for two parts runs from the foot over the top and down on the other side", () => {
    const route = pointsOf(seamRoute(drum, { ...common, kind: "parts" }));
    expect(Math.max(...route.map(([, , z]) => z))).toBeCloseTo(400, -0.5);
    const [first, last] = [route[0], route[route.length - 1]];
    expect(first[2] + last[2]).toBeLessThan(10);
    expect(Math.hypot(first[0] - last[0], first[1] - last[1])).toBeGreaterThan(180);
  });
});
