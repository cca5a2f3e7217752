import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { box, cylinder, lathe, moved, sphere } from "../testing/shapes.ts";
import { STEADY_DEG, type StandRequest, standOf } from "./stand.ts";

const on = (mesh: TriangleMesh, change: Partial<StandRequest> = {}) =>
  standOf({ mesh, shellMm: 0, edges: [], position: "as-it-stands", ...change });
const toDeg = 180 / Math.PI;

describe("how a closed mould stands", () => {
  it("is told by its middle and its narrowest side: a box tips over its longer edge", () => {
    const { ownTipDeg, feet } = on(box(200, 150, 300));
    expect(ownTipDeg).toBeCloseTo(toDeg * Math.atan(75 / 150), 1);
    expect(feet).toEqual([]);
  });

  it("is the worse of empty and full: a cone is lower in the middle when it is full", () => {
    const cone = lathe(
      [
        [0, 300],
        [100, 0],
        [0, 0],
      ],
      96,
    );
    // Its shell with its foot has its middle higher than a quarter of its height, where the middle of the whole is.
    const { ownTipDeg } = on(cone);
    const slant = Math.hypot(300, 100);
    const shellMiddle = (300 / 3) * (slant / (slant + 100));
    expect(ownTipDeg).toBeCloseTo(toDeg * Math.atan(100 / Math.max(75, shellMiddle)), 0);
  });

  it("asks for feet where it is turned over onto a point, and stands on them", () => {
    const slope = Array.from({ length: 61 }, (_, k): [number, number] => [(140 * k) / 60, 300 - 5 * k]);
    const cone = lathe([...slope, [0, 0]], 96);
    const { ownTipDeg, feet, tipDeg } = on(cone, { position: "foot-up" });
    expect(ownTipDeg).toBeLessThan(STEADY_DEG);
    expect(feet).toHaveLength(4);
    for (const { at, lengthMm } of feet) {
      // They reach from the cone's side down to the floor that its point stands on.
      expect(at[2]).toBeCloseTo(300 - lengthMm, 1);
      expect(Math.abs(Math.hypot(at[0], at[1]) - (140 * (300 - at[2])) / 300)).toBeLessThan(1.5);
    }
    // A square of feet, seen from above, and its middle 225 mm up.
    const out = Math.hypot(feet[0].at[0], feet[0].at[1]) * Math.SQRT1_2;
    expect(tipDeg).toBeGreaterThan(0.8 * toDeg * Math.atan(out / 225));
    expect(tipDeg).toBeLessThan(1.1 * toDeg * Math.atan(out / 195));
  });

  it("rests on flanges that stand out below", () => {
    const ball = moved(sphere(100, 48), 0, 0, 100);
    const ring = Float64Array.from(
      Array.from({ length: 36 }, (_, k) => [
        150 * Math.cos(k * 10 * (Math.PI / 180)),
        150 * Math.sin(k * 10 * (Math.PI / 180)),
        0,
      ]).flat(),
    );
    expect(on(ball).ownTipDeg).toBeLessThan(20);
    expect(on(ball, { edges: [ring] }).ownTipDeg).toBeCloseTo(toDeg * Math.atan(150 / 100), 0);
  });

  it("falls over by itself where its middle is not over what it stands on", () => {
    // A slab that sticks out far to one side of the post it stands on.
    const post = cylinder(30, 200);
    const slab = moved(box(400, 100, 60), 150, 0, 230);
    const positions = Float32Array.from([...post.positions, ...slab.positions]);
    const low = positions.reduce((least, value, k) => (k % 3 === 2 ? Math.min(least, value) : least), 0);
    for (let k = 2; k < positions.length; k += 3) positions[k] -= low;
    const triangles = Uint32Array.from([
      ...post.triangles,
      ...slab.triangles.map((v) => v + post.positions.length / 3),
    ]);
    expect(on({ positions, triangles }).ownTipDeg).toBe(0);
  });
});
