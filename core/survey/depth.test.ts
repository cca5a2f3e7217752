import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { together } from "../mesh/together.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { type DepthField, depthField, depthNode } from "./depth.ts";

/** Number of the node nearest a point, mm. */
function nodeNear({ size, originMm: o, stepMm: h }: DepthField, x: number, y: number, z: number): number {
  return depthNode(size, (x - o[0]) / h + 0.5, (y - o[1]) / h + 0.5, (z - o[2]) / h + 0.5);
}

describe("the depth field", () => {
  it("knows how far a place is from a ball, to half its step", () => {
    const ball = sphere(80, 32);
    const field = depthField(ball, ctx);
    for (const [x, y, z] of [
      [0, 0, 80],
      [60, 60, 60],
      [-75, 70, 10],
      [0, -40, 0],
    ]) {
      const exact = Math.abs(Math.hypot(x, y, z) - 80);
      const found = field.places[2 * nodeNear(field, x, y, z)];
      expect(Math.abs(found - exact)).toBeLessThan(field.stepMm);
    }
  });

  it("names a vertex of the nearer of two bodies", () => {
    const left = moved(box(40, 40, 40), -60, 0, 0);
    const both = together(left, moved(box(40, 40, 40), 60, 0, 0));
    const field = depthField(both, ctx);
    const half = left.positions.length / 3;
    expect(field.places[2 * nodeNear(field, -10, 3, 4) + 1]).toBeLessThan(half);
    expect(field.places[2 * nodeNear(field, 10, 3, 4) + 1]).toBeGreaterThanOrEqual(half);
  });

  it("takes its edge for points off the grid", () => {
    const field = depthField(sphere(50, 16), ctx);
    expect(nodeNear(field, -1e6, 0, 0)).toBe(nodeNear(field, field.originMm[0], 0, 0));
    expect(nodeNear(field, 1e6, 1e6, 1e6)).toBe(field.places.length / 2 - 1);
  });
});
