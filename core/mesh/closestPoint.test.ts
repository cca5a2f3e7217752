import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import { adjacencyOf } from "./adjacency.ts";
import { closestPointOnTriangle, walkToClosest } from "./closestPoint.ts";
import type { TriangleMesh } from "./mesh.ts";

const coordinate = evenly(-100, 100);
const place = fc.tuple(coordinate, coordinate, coordinate);
const alone = (corners: readonly (readonly number[])[]): TriangleMesh => ({
  positions: Float32Array.from(corners.flat()),
  triangles: Uint32Array.from([0, 1, 2]),
});

describe("the closest point of a triangle", () => {
  it("is nearer than every other point of it, and lies in it", () => {
    const q = new Float64Array(3);
    fc.assert(
      fc.property(place, place, place, place, (a, b, c, [x, y, z]) => {
        const d2 = closestPointOnTriangle(q, alone([a, b, c]), 0, x, y, z);
        expect(Math.sqrt(d2)).toBeCloseTo(Math.hypot(q[0] - x, q[1] - y, q[2] - z), 3);
        for (let i = 0; i <= 8; i++) {
          for (let j = 0; i + j <= 8; j++) {
            const p = [0, 1, 2].map((k) => a[k] + ((b[k] - a[k]) * i) / 8 + ((c[k] - a[k]) * j) / 8);
            expect(Math.hypot(p[0] - x, p[1] - y, p[2] - z)).toBeGreaterThan(Math.sqrt(d2) - 1e-2);
          }
        }
      }),
      { numRuns: 300, seed: 1 },
    );
  });

  it("of needles and points without area is still theirs", () => {
    const q = new Float64Array(3);
    expect(
      closestPointOnTriangle(
        q,
        alone([
          [0, 0, 0],
          [10, 0, 0],
          [5, 0, 0],
        ]),
        0,
        7,
        3,
        0,
      ),
    ).toBeCloseTo(9, 4);
    expect([...q].map((v) => Math.round(v * 1000) / 1000)).toEqual([7, 0, 0]);
    expect(
      closestPointOnTriangle(
        q,
        alone([
          [4, 4, 4],
          [4, 4, 4],
          [4, 4, 4],
        ]),
        0,
        4,
        4,
        9,
      ),
    ).toBeCloseTo(25, 4);
  });
});

describe("walking to the closest triangle", () => {
  it("of a convex body ends on the best of all triangles for every point outside it, from any triangle", () => {
    const mesh = sphere(90, 16);
    const { across } = adjacencyOf(mesh);
    const count = mesh.triangles.length / 3;
    const q = new Float64Array(3);
    fc.assert(
      fc.property(place, fc.nat(count - 1), ([x, y, z], start) => {
        fc.pre(Math.hypot(x, y, z) > 90.5);
        let least = Infinity;
        for (let k = 0; k < count; k++) least = Math.min(least, closestPointOnTriangle(q, mesh, k, x, y, z));
        walkToClosest(q, mesh, across, start, x, y, z);
        expect(Math.hypot(q[0] - x, q[1] - y, q[2] - z)).toBeCloseTo(Math.sqrt(least), 2);
      }),
      { numRuns: 80, seed: 2 },
    );
  });
});
