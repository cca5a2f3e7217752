import { describe, expect, it } from "vitest";
import { box, moved } from "../testing/shapes.ts";
import { meshOf, type Solid, withSolids } from "./kernel.ts";

const SIDE_MM = 10;
const cubeAt = (x: number) => moved(box(SIDE_MM, SIDE_MM, SIDE_MM), x, 0, 0);

describe("bodies that are let go of", () => {
  it("leave what was made of them as it is", async () => {
    await withSolids((solids) => {
      const made: Solid[] = [];
      const both = solids.only(() => {
        made.push(solids.fromMesh(cubeAt(0), "one"), solids.fromMesh(cubeAt(5), "two"));
        return solids.union(made);
      });
      expect(both.volume()).toBeCloseTo(1.5 * SIDE_MM ** 3, 6);
      for (const solid of made) expect(() => solid.volume()).toThrow();
    });
  });

  it("are none of those that were there before, though it is one of them that the work ends with", async () => {
    await withSolids((solids) => {
      const before = solids.fromMesh(cubeAt(0), "one");
      expect(solids.only(() => before)).toBe(before);
      expect(before.volume()).toBeCloseTo(SIDE_MM ** 3, 6);
    });
  });

  it("are worked out of before: the rest of a body stays when the body goes", async () => {
    await withSolids((solids) => {
      const [whole, by] = [solids.fromMesh(cubeAt(0), "one"), solids.fromMesh(cubeAt(5), "two")];
      const { within, rest } = solids.split(whole, by);
      solids.letGo([whole, by], within, rest);
      expect([within.volume(), rest.volume()].map((mm3) => Math.round(mm3))).toEqual([500, 500]);
      expect(() => whole.volume()).toThrow();
    });
  });
});

describe("the pieces of a body", () => {
  it("are those that hang together, the largest first", async () => {
    await withSolids((solids) => {
      const one = solids.fromMesh(cubeAt(0), "one");
      expect(solids.pieces(one, 0)).toEqual([one]);
      expect(solids.pieces(one, 1001)).toEqual([]);
      const apart = solids.union([one, solids.fromMesh(moved(box(4, 4, 4), 100, 0, 0), "another")]);
      const volumesMm3 = (leastMm3: number) =>
        solids.pieces(apart, leastMm3).map((piece) => Math.round(piece.volume()));
      expect(volumesMm3(0)).toEqual([1000, 64]);
      expect(volumesMm3(65)).toEqual([1000]);
      expect(meshOf(apart).triangles.length / 3).toBe(24);
    });
  });
});
