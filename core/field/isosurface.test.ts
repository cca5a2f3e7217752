import { describe, expect, it } from "vitest";
import { CUBE_TRIANGLES, EDGE_CORNERS } from "./cubes.ts";

describe("the case table of the cubes", () => {
  it("crosses just the edges between inside and outside corners, each loop closed", () => {
    CUBE_TRIANGLES.forEach((triangles, mask) => {
      const crossed = new Set(
        EDGE_CORNERS.map(([a, b], e) => (((mask >> a) & 1) !== ((mask >> b) & 1) ? e : -1)).filter((e) => e >= 0),
      );
      expect(new Set(triangles)).toEqual(crossed);
      // In a closed patch the directed edges inside the cube cancel; what is left lies on faces, each once.
      const left = new Map<string, number>();
      for (let k = 0; k < triangles.length; k += 3) {
        for (let e = 0; e < 3; e++) {
          const [from, to] = [triangles[k + e], triangles[k + ((e + 1) % 3)]];
          left.set(`${from}>${to}`, (left.get(`${from}>${to}`) ?? 0) + 1);
        }
      }
      for (const [edge, count] of left) {
        expect(count).toBe(1);
        const [from, to] = edge.split(">").map(Number);
        if (left.has(`${to}>${from}`)) continue;
        const corners = new Set([...EDGE_CORNERS[from], ...EDGE_CORNERS[to]]);
        const onFace = [0, 1, 2].some((axis) =>
          [0, 1].some((side) => [...corners].every((c) => ((c >> axis) & 1) === side)),
        );
        expect(onFace).toBe(true);
      }
    });
  });
});
