import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Direction, dot, pullDirections } from "../space/directions.ts";
import { evenly, rotation, rotations, turnedDirection } from "../testing/random.ts";
import { box, cylinder, lBlock, sphere, turned } from "../testing/shapes.ts";
import { bodyAxes, eigenvectors, withBodyAxes } from "./axes.ts";

const AXES: Direction[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** Degrees between a direction and the nearest axis, without sign. */
function offBy(axes: readonly Direction[], wanted: Direction): number {
  const nearest = Math.max(...axes.map((axis) => Math.abs(dot(axis, wanted))));
  return (Math.acos(Math.min(1, nearest)) * 180) / Math.PI;
}

describe("a body's own axes", () => {
  it("of a brick and of an L are its edges, however it is turned", () => {
    for (const piece of [box(200, 150, 300), lBlock(200, 70, 120)]) {
      fc.assert(
        fc.property(rotations, (angles) => {
          const m = rotation(angles);
          const axes = bodyAxes(turned(piece, m));
          for (const edge of AXES) expect(offBy(axes, turnedDirection(m, edge))).toBeLessThan(0.6);
        }),
        { numRuns: 12, seed: 3 },
      );
    }
  });

  it("of a cylinder is the way it runs", () => {
    fc.assert(
      fc.property(rotations, (angles) => {
        const m = rotation(angles);
        const axes = bodyAxes(turned(cylinder(60, 240, 48), m));
        expect(offBy(axes, turnedDirection(m, [0, 0, 1]))).toBeLessThan(0.6);
      }),
      { numRuns: 12, seed: 4 },
    );
  });

  it("are few and apart, even of a ball that has none", () => {
    const axes = bodyAxes(sphere(80, 24));
    expect(axes.length).toBeLessThanOrEqual(12);
    axes.forEach((axis, k) => {
      expect(Math.hypot(...axis)).toBeCloseTo(1, 9);
      for (const other of axes.slice(k + 1)) expect(Math.abs(dot(axis, other))).toBeLessThan(Math.cos(Math.PI / 180));
    });
  });

  it("join the even set both ways", () => {
    const plain = pullDirections(40);
    const axis: Direction = [0.6, 0, 0.8];
    const floating = withBodyAxes(plain, [axis]);
    expect(floating.slice(plain.length)).toEqual([axis, [-0.6, -0, -0.8]]);
    expect(withBodyAxes(plain, [[0, 0, 1]])).toEqual(plain);
  });
});

describe("eigenvectors", () => {
  it("diagonalise any symmetric matrix", () => {
    const entries = fc.tuple(...Array.from({ length: 6 }, () => evenly(-50, 50)));
    fc.assert(
      fc.property(entries, ([a, b, c, d, e, f]) => {
        const m = [a, d, e, d, b, f, e, f, c];
        const vectors = eigenvectors(m);
        const image = (v: Direction) => [0, 3, 6].map((r) => m[r] * v[0] + m[r + 1] * v[1] + m[r + 2] * v[2]);
        vectors.forEach((v, k) => {
          const w = image(v) as unknown as Direction;
          const along = dot(w, v);
          for (let x = 0; x < 3; x++) expect(w[x] - along * v[x]).toBeCloseTo(0, 6);
          for (const other of vectors.slice(k + 1)) expect(dot(v, other)).toBeCloseTo(0, 6);
        });
      }),
      { numRuns: 200, seed: 5 },
    );
  });
});
