import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { box, moved, mushroom, sphere } from "../testing/shapes.ts";
import { NearestField } from "./nearest.ts";

/** Every triangle in turn: the slow answer. */
function plainDistance(mesh: TriangleMesh, x: number, y: number, z: number): number {
  const out = new Float64Array(3);
  let least = Infinity;
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    closestPointOnTriangle(out, mesh, t, x, y, z);
    least = Math.min(least, Math.hypot(out[0] - x, out[1] - y, out[2] - z));
  }
  return least;
}

/** Evenly spread: doubles by their bits would nearly all lie by the middle. */
const tenths = (most: number) => fc.integer({ min: -10 * most, max: 10 * most }).map((value) => value / 10);

const bodies = { ball: sphere(60, 24), brick: box(120, 80, 160), toadstool: mushroom(30, 90, 70, 20, 48) };

describe("the nearest field", () => {
  for (const [name, mesh] of Object.entries(bodies)) {
    it(`agrees with every triangle in turn on a ${name}`, () => {
      const field = NearestField.about(mesh, 4, ctx);
      const coordinate = tenths(110);
      fc.assert(
        fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
          const plain = plainDistance(mesh, x, y, z);
          // Near the middle of a body the nearest place leaps; the walk may settle for one hardly farther.
          expect(field.distance(x, y, z)).toBeLessThanOrEqual(plain * 1.02 + 0.5);
          expect(field.distance(x, y, z)).toBeGreaterThanOrEqual(plain - 1e-3);
        }),
        { numRuns: 150, seed: 21 },
      );
    });
  }

  it("hands back the point itself, on the triangle it names", () => {
    const mesh = moved(sphere(50, 24), 10, -20, 30);
    const field = NearestField.about(mesh, 3, ctx);
    const out = new Float64Array(3);
    const triangle = field.nearest(out, 10, -20, 130);
    expect([...out].map(Math.round)).toEqual([10, -20, 80]);
    const again = new Float64Array(3);
    closestPointOnTriangle(again, mesh, triangle, 10, -20, 130);
    expect(Math.hypot(again[0] - out[0], again[1] - out[1], again[2] - out[2])).toBeLessThan(1e-6);
  });

  it("is sure of a class only where it is the nearest triangle's own", () => {
    const mesh = sphere(60, 32);
    const field = NearestField.about(mesh, 4, ctx);
    const upper = Uint8Array.from({ length: mesh.triangles.length / 3 }, (_, t) => {
      const z = [0, 1, 2].reduce((sum, c) => sum + mesh.positions[3 * mesh.triangles[3 * t + c] + 2], 0);
      return z > 0 ? 1 : 0;
    });
    const classes = field.classes(upper);
    const point = new Float64Array(3);
    let sure = 0;
    fc.assert(
      fc.property(fc.tuple(tenths(90), tenths(90), tenths(90)), ([x, y, z]) => {
        const known = field.sureClass(classes, x, y, z);
        if (known < 0) return;
        sure++;
        if (Math.hypot(x, y, z) > 20) expect(known).toBe(upper[field.nearest(point, x, y, z)]);
      }),
      { numRuns: 300, seed: 4 },
    );
    expect(sure).toBeGreaterThan(80);
    expect(field.sureClass(classes, 5000, 0, 0)).toBe(-1);
  });
});
