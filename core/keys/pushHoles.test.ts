import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { moved, sphere } from "../testing/shapes.ts";
import { PUSH_HOLE_MM, pushHoles } from "./pushHoles.ts";

const UP: Direction = [0, 0, 1];

/** The upper half of a ball: a cap on a board. */
function cap(radius: number): TriangleMesh {
  const { positions, triangles } = moved(sphere(radius, 64), 0, 0, 0);
  const kept: number[] = [];
  for (let k = 0; k < triangles.length; k += 3) {
    const corners = [triangles[k], triangles[k + 1], triangles[k + 2]];
    if (corners.every((v) => positions[3 * v + 2] >= -1e-6)) kept.push(...corners);
  }
  return { positions, triangles: Uint32Array.from(kept) };
}

describe("push holes", () => {
  it("lie where the shell leaves straight, off its edge and apart from each other", () => {
    const holes = pushHoles([{ skin: cap(300), pull: UP }], 0);
    // Half a ball of 300 mm has 0.57 m2.
    expect(holes).toHaveLength(5);
    holes.forEach(({ at, normal }, k) => {
      expect(normal[2]).toBeGreaterThanOrEqual(0.7);
      expect(at[2]).toBeGreaterThan(50);
      for (const other of holes.slice(k + 1))
        expect(Math.hypot(...at.map((x, a) => x - other.at[a]))).toBeGreaterThan(2 * PUSH_HOLE_MM);
    });
  });

  it("are two at least, however small it is, and none where it is too small for any", () => {
    expect(pushHoles([{ skin: cap(140), pull: UP }], 0)).toHaveLength(2);
    expect(pushHoles([{ skin: cap(40), pull: UP }], 0)).toEqual([]);
  });

  it("are none where sections are parted at their edges", () => {
    const section = { skin: cap(300), pull: UP };
    expect(pushHoles([section, section], 0)).toEqual([]);
  });
});
