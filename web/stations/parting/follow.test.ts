import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";
import { moved, sphere } from "../../../core/testing/shapes.ts";
import { sectionInPlaceOf } from "./follow.ts";

/** The triangles of a ball whose middles lie on one side of a plane through it. */
function half(ball: TriangleMesh, side: number, levelMm: number): TriangleMesh {
  const { positions: p, triangles: t } = ball;
  const kept: number[] = [];
  const places: number[] = [];
  for (let k = 0; k < t.length; k += 3) {
    const corners = [t[k], t[k + 1], t[k + 2]];
    if (side * (corners.reduce((sum, v) => sum + p[3 * v], 0) / 3 - levelMm) < 0) continue;
    for (const v of corners) {
      kept.push(kept.length);
      places.push(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    }
  }
  return { positions: Float32Array.from(places), triangles: Uint32Array.from(kept) };
}

describe("the section that was looked at", () => {
  const ball = sphere(100, 32);
  const [right, left] = [half(ball, 1, 0), half(ball, -1, 0)];

  it("is found where it lay, whatever its number is now", () => {
    expect(sectionInPlaceOf(right, [right, left])).toBe(0);
    expect(sectionInPlaceOf(right, [left, right])).toBe(1);
  });

  it("is found when its line has moved, and among more sections than before", () => {
    const further = [half(ball, -1, 25), half(ball, 1, 25)];
    expect(sectionInPlaceOf(right, further)).toBe(1);
    expect(sectionInPlaceOf(left, further)).toBe(0);
    expect(sectionInPlaceOf(left, [moved(ball, 0, 0, 900), right, half(ball, -1, -10)])).toBe(2);
  });

  it("is nowhere in a plan of no sections", () => {
    expect(sectionInPlaceOf(right, [])).toBe(-1);
  });
});
