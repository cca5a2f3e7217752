import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";
import { evenly } from "../testing/random.ts";
import { box, moved, sphere, torus } from "../testing/shapes.ts";
import { solidAngle, WindingTree, windingNumbers } from "./winding.ts";

/** The sum over all triangles, the slow answer. */
function plainWinding(mesh: TriangleMesh, x: number, y: number, z: number): number {
  let sum = 0;
  for (let t = 0; t < mesh.triangles.length / 3; t++) sum += solidAngle(mesh, t, x, y, z);
  return sum / (4 * Math.PI);
}

const point = fc.tuple(evenly(-150, 150), evenly(-150, 150), evenly(-150, 150));

describe("winding numbers", () => {
  it("of a closed body are 1 inside and 0 outside", () => {
    const ring = torus(80, 30, 48, 24);
    fc.assert(
      fc.property(point, ([x, y, z]) => {
        const away = Math.hypot(Math.hypot(x, y) - 80, z) - 30;
        fc.pre(Math.abs(away) > 3);
        expect(plainWinding(ring, x, y, z)).toBeCloseTo(away < 0 ? 1 : 0, 6);
      }),
      { numRuns: 200, seed: 1 },
    );
  });

  it("by the tree are those of the plain sum, to a hundredth", () => {
    for (const mesh of [sphere(90, 40), together(box(100, 60, 80), moved(sphere(40, 24), 90, 20, 0))]) {
      const tree = new WindingTree(mesh);
      fc.assert(
        fc.property(point, ([x, y, z]) => {
          expect(Math.abs(tree.at(x, y, z) - plainWinding(mesh, x, y, z))).toBeLessThan(0.02);
        }),
        { numRuns: 150, seed: 2 },
      );
    }
  });

  it("count overlapping copies up, and a body with a hole falls off towards it", () => {
    const ball = sphere(100, 24);
    expect(plainWinding(together(ball, moved(ball, 30, 0, 0)), 15, 0, 0)).toBeCloseTo(2, 6);
    const open: TriangleMesh = { ...ball, triangles: ball.triangles.slice(3 * 96) };
    const middle = plainWinding(open, 0, 0, 0);
    expect(middle).toBeGreaterThan(0.5);
    expect(middle).toBeLessThan(1);
    expect(plainWinding(open, 0, 0, 300)).toBeLessThan(0.5);
  });

  it("of many points answer each in its place, by tree or by sum", () => {
    const ball = sphere(100, 24);
    const few = new Float64Array([0, 0, 0, 200, 0, 0, 0, 90, 0]);
    expect(Array.from(windingNumbers(ball, few, ctx), (w) => w > 0.5)).toEqual([true, false, true]);
    const many = new Float64Array(3 * 12_000);
    for (let k = 0; k < many.length / 3; k++) many[3 * k] = k % 2 === 0 ? 20 : 160;
    const found = windingNumbers(ball, many, ctx);
    expect(found.every((w, k) => Math.round(w) === (k % 2 === 0 ? 1 : 0))).toBe(true);
    expect(windingNumbers(ball, new Float64Array(0), ctx).length).toBe(0);
  });
});
