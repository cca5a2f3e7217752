import { describe, expect, it } from "vitest";
import { plainContext } from "../job/context.ts";
import { ALONE, type Team } from "../job/team.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { areaAndVolume } from "../mesh/mesh.ts";
import { CUBE_TRIANGLES, EDGE_CORNERS } from "./cubes.ts";
import { type BrickGrid, gridFromActive, nodeCount, nodePoint } from "./grid.ts";
import { isosurface } from "./isosurface.ts";

/** Four threads' worth of runs, walked over one after the other. */
const inRuns: Team = { size: 4, buffer: (bytes) => new SharedArrayBuffer(bytes), run: ALONE.run };

const box: BrickGrid = gridFromActive([-21, -17, -14], 1.4, [4, 3, 3], new Uint8Array(36).fill(1));

function fieldOf(value: (x: number, y: number, z: number) => number): Float32Array {
  const at = new Float64Array(3);
  return Float32Array.from({ length: nodeCount(box) }, (_, n) => {
    nodePoint(box, n, at, 0);
    return value(at[0], at[1], at[2]);
  });
}

describe("a surface worked out in runs of bricks", () => {
  const fields = {
    "a ball": fieldOf((x, y, z) => Math.sqrt(x * x + y * y + z * z) - 11.3),
    "a field full of surface, more than there is room for at first": fieldOf((x, y, z) =>
      Math.sin(1e4 * Math.sin(12.9 * x + 78.2 * y + 37.7 * z)),
    ),
    "a field that nothing runs through": fieldOf(() => 1),
  };

  for (const [name, values] of Object.entries(fields)) {
    it(`is that of one run, number by number: ${name}`, () => {
      const whole = isosurface(box, values, 0, plainContext);
      const runs = isosurface(box, values, 0, { ...plainContext, team: inRuns });
      expect(runs.triangles).toEqual(whole.triangles);
      expect(runs.positions).toEqual(whole.positions);
    });
  }

  it("is closed, and a ball's: 4/3 pi r^3", () => {
    const ball = isosurface(box, fields["a ball"], 0, { ...plainContext, team: inRuns });
    expect(adjacencyOf(ball)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
    const share = areaAndVolume(ball).volumeMm3 / ((4 / 3) * Math.PI * 11.3 ** 3);
    expect(share).toBeGreaterThan(0.985);
    expect(share).toBeLessThan(1);
  });
});

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
