import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";
import { rotation } from "../testing/random.ts";
import { capsule, cylinder, moved, sphere, torus, turned } from "../testing/shapes.ts";
import { throughHoles } from "./holes.ts";

const holesOf = (mesh: TriangleMesh) => throughHoles(mesh, NearestField.about(mesh, 6, ctx));
const standing = [1, 0, 0, 0, 0, -1, 0, 1, 0];

describe("through-holes", () => {
  it("are none in a ball, a capsule, a drum", () => {
    for (const body of [sphere(100, 32), capsule(60, 200, 24), cylinder(80, 160, 48)])
      expect(holesOf(body)).toEqual([]);
  });

  it("is one in a ring, its girth the ring's inner girth, however it is turned", () => {
    for (const m of [[1, 0, 0, 0, 1, 0, 0, 0, 1], standing, rotation([1.1, 0.7])]) {
      const found = holesOf(turned(torus(100, 30, 96, 40), m));
      expect(found).toHaveLength(1);
      expect(found[0].girthMm / (2 * Math.PI * 70)).toBeCloseTo(1, 1);
      expect(Math.hypot(...found[0].at)).toBeLessThan(8);
    }
  });

  it("are two in two rings", () => {
    const ring = torus(100, 30, 96, 40);
    const found = holesOf(together(ring, moved(turned(ring, standing), 400, 0, 0)));
    expect(found.map(({ at }) => Math.round(at[0] / 100)).sort()).toEqual([0, 4]);
  });

  it("is under an arch that stands on the board with both feet", () => {
    const arch = clipAbove(turned(torus(100, 30, 96, 40), standing), 0);
    const found = holesOf(arch);
    expect(found).toHaveLength(1);
    // Half the inner girth, and straight over the board between the feet.
    expect(found[0].girthMm / (Math.PI * 70 + 140)).toBeCloseTo(1, 1);
    expect(found[0].at[2]).toBeGreaterThan(5);
    expect(holesOf(clipAbove(sphere(100, 48), 10))).toEqual([]);
  });
});
