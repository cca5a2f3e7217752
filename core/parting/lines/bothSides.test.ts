import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { together } from "../../mesh/together.ts";
import type { Direction } from "../../space/directions.ts";
import { box, moved, sphere } from "../../testing/shapes.ts";
import { hiddenStretches } from "./bothSides.ts";
import type { PartingLine } from "./cut.ts";

const R = 100;
const UP: Direction = [0, 0, 1];
const DOWN: Direction = [0, 0, -1];

/** A ring round a ball at a height, between section 0 above and section 1 below. */
function ring(height: number, radius = R): PartingLine {
  const r = Math.sqrt(radius ** 2 - height ** 2);
  const points = Float32Array.from({ length: 3 * 120 }, (_, k) => {
    const a = (2 * Math.PI * Math.floor(k / 3)) / 120;
    return [r * Math.cos(a), r * Math.sin(a), height][k % 3];
  });
  return { sections: [0, 1], points, closed: true };
}

const look = (mesh: TriangleMesh, lines: readonly PartingLine[], pulls: readonly Direction[]) =>
  hiddenStretches(lines, { mesh, nearest: NearestField.about(mesh, 4, ctx), pulls, stepMm: 4 });

describe("a line looked at from both sides", () => {
  it("is in sight all round on the horizon of both pulls", () => {
    expect(look(sphere(R, 64), [ring(0)], [UP, DOWN])).toEqual([]);
  });

  it("above the horizon is out of sight from below, by as much as it lies above", () => {
    const height = R * Math.sin((40 * Math.PI) / 180);
    const [hidden, ...more] = look(sphere(R, 64), [ring(height)], [UP, DOWN]);
    expect(more).toEqual([]);
    expect(hidden.from).toBe(1);
    // All of it but the gap between first and last point.
    expect(hidden.lengthMm / (2 * Math.PI * Math.sqrt(R ** 2 - height ** 2))).toBeCloseTo(1, 1);
    // 40 degrees of the ball, less what two steps off the surface see past the horizon.
    const seenPast = Math.acos((R + 1) / (R + 8));
    const way = R * ((40 * Math.PI) / 180 - seenPast);
    expect(hidden.moveMm).toBeGreaterThan(way - 8);
    expect(hidden.moveMm).toBeLessThan(way + 8);
    // Where it is to go, both see it.
    const [x, y, z] = hidden.to ?? [0, 0, 0];
    expect(Math.hypot(x, y, z)).toBeCloseTo(R, -1);
    expect(Math.asin(z / R)).toBeLessThan(seenPast + 8 / R);
  });

  it("behind something that stands in the way is out of sight there only", () => {
    // A slab hangs over one side of the ball.
    const mesh = together(sphere(R, 48), moved(box(60, 300, 20), 80, 0, 200));
    const found = look(mesh, [ring(0)], [UP, DOWN]);
    expect(found.length).toBeGreaterThan(0);
    for (const { from, at, lengthMm } of found) {
      expect(from).toBe(0);
      expect(at[0]).toBeGreaterThan(45);
      expect(lengthMm).toBeLessThan(Math.PI * R);
    }
  });

  it("over a ring's seam is one stretch, not two", () => {
    // Hidden about +x, where the ring's points begin and end.
    const mesh = together(sphere(R, 48), moved(box(60, 300, 20), 90, 0, 200));
    expect(look(mesh, [ring(0)], [UP, DOWN]).length).toBe(1);
  });
});
