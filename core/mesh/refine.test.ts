import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly } from "../testing/random.ts";
import { box, lathe } from "../testing/shapes.ts";
import { adjacencyOf, OPEN } from "./adjacency.ts";
import { areaAndVolume, type TriangleMesh } from "./mesh.ts";
import { refined } from "./refine.ts";

function longestEdge({ positions: p, triangles: t }: TriangleMesh): number {
  let most = 0;
  for (let k = 0; k < t.length; k++) {
    const [a, b] = [t[k], t[k % 3 === 2 ? k - 2 : k + 1]];
    most = Math.max(most, Math.hypot(...[0, 1, 2].map((c) => p[3 * a + c] - p[3 * b + c])));
  }
  return most;
}

describe("a refined mesh", () => {
  it("has no long edges, the same surface, and no seams torn open", () => {
    fc.assert(
      fc.property(evenly(20, 200), evenly(30, 300), evenly(12, 60), (radius, height, longest) => {
        const drum = lathe(
          [
            [0, height],
            [radius, height],
            [radius, 0],
            [0, 0],
          ],
          9,
        );
        const fine = refined(drum, longest);
        expect(longestEdge(fine)).toBeLessThanOrEqual(longest * 1.001);
        const [before, after] = [areaAndVolume(drum), areaAndVolume(fine)];
        expect(after.areaMm2 / before.areaMm2).toBeCloseTo(1, 5);
        expect(after.volumeMm3 / before.volumeMm3).toBeCloseTo(1, 5);
        expect(adjacencyOf(fine).across.includes(OPEN)).toBe(adjacencyOf(drum).across.includes(OPEN));
      }),
      { numRuns: 60 },
    );
  });

  it("is the mesh itself where nothing is long", () => {
    const small = box(10, 10, 10);
    expect(refined(small, 20)).toBe(small);
  });
});
