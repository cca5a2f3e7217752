import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly, rotation, rotations } from "../testing/random.ts";
import { box, moved, sphere, turned } from "../testing/shapes.ts";
import { adjacencyOf } from "./adjacency.ts";
import { clipAbove } from "./clip.ts";
import { CostHeap } from "./costHeap.ts";
import { areaAndVolume, makeMesh, meshBox, type TriangleMesh } from "./mesh.ts";
import { perMesh } from "./perMesh.ts";
import { ScanProblem } from "./problem.ts";
import { vertexNeighbours } from "./vertexNeighbours.ts";
import { dropUnusedVertices, weld } from "./weld.ts";

/** Every triangle with corners of its own. */
function torn({ positions, triangles }: TriangleMesh): TriangleMesh {
  return {
    positions: Float32Array.from(
      { length: 3 * triangles.length },
      (_, k) => positions[3 * triangles[Math.floor(k / 3)] + (k % 3)],
    ),
    triangles: Uint32Array.from({ length: triangles.length }, (_, k) => k),
  };
}

describe("a mesh", () => {
  const made = (positions: number[], triangles: number[]) =>
    makeMesh(Float32Array.from(positions), Uint32Array.from(triangles));
  const corner = [0, 0, 0, 1, 0, 0, 0, 1, 0];
  const codeOf = (work: () => unknown) => {
    try {
      work();
    } catch (error) {
      return error instanceof ScanProblem ? error.code : error;
    }
    return "fine";
  };

  it("is refused where a number in it cannot be, with the place", () => {
    expect(codeOf(() => made(corner, [0, 1, 2]))).toBe("fine");
    expect(codeOf(() => made(corner, []))).toBe("no-triangles");
    expect(codeOf(() => made(corner, [0, 1]))).toBe("malformed");
    expect(codeOf(() => made(corner, [0, 1, 3]))).toBe("malformed");
    expect(codeOf(() => made([0, 0, 0, 1, Number.NaN, 0, 0, 1, 0], [0, 1, 2]))).toBe("bad-coordinate");
    expect(() => made([0, 0, 0, 1, 0, 1e38, 0, 1, 0], [0, 1, 2])).toThrow(/The z of vertex 2 is 1.0e\+38/);
  });
});

describe("welding", () => {
  it("puts a torn ball together again: every edge has two sides, the same area and volume", () => {
    const ball = sphere(50, 24);
    const whole = weld(torn(ball), 1e-4);
    expect(whole.positions.length).toBe(dropUnusedVertices(ball).positions.length);
    expect(adjacencyOf(whole)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0 });
    expect(areaAndVolume(whole).volumeMm3).toBeCloseTo(areaAndVolume(ball).volumeMm3, 3);
  });

  it("leaves apart what is farther than the lattice", () => {
    const near = { ...torn(box(10, 10, 10)), triangles: Uint32Array.from([0, 1, 2, 3, 4, 5]) };
    expect(weld(near, 1e-3).positions.length).toBe(near.positions.length === 0 ? 0 : weld(near, 1e-4).positions.length);
    const apart: TriangleMesh = {
      positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, 0.01, 0, 0, 1.01, 0, 0, 0.01, 1, 0]),
      triangles: Uint32Array.from([0, 1, 2, 3, 4, 5]),
    };
    expect(weld(apart, 1e-3).positions.length).toBe(18);
    expect(weld(apart, 0.1).positions.length).toBe(9);
  });

  it("drops vertices that nothing uses and keeps the others' places", () => {
    const mesh: TriangleMesh = {
      positions: Float32Array.from([9, 9, 9, 0, 0, 0, 1, 0, 0, 8, 8, 8, 0, 1, 0]),
      triangles: Uint32Array.from([1, 2, 4]),
    };
    expect(dropUnusedVertices(mesh)).toEqual({
      positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]),
      triangles: Uint32Array.from([0, 1, 2]),
    });
  });
});

describe("clipping at a height", () => {
  it("keeps just the part above: a cap of a ball by its formula, however it is turned", () => {
    fc.assert(
      fc.property(rotations, evenly(-40, 40), (turn, height) => {
        const ball = turned(sphere(50, 48), rotation(turn));
        const cap = clipAbove(moved(ball, 0, 0, -height), 0);
        const h = 50 - height;
        // Open on z = 0, where the divergence theorem needs no lid.
        expect(areaAndVolume(cap).volumeMm3 / ((Math.PI * h * h * (150 - h)) / 3)).toBeCloseTo(1, 1);
        expect(meshBox(cap).min[2]).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 30 },
    );
  });

  it("gives the very mesh back where nothing lies below", () => {
    const ball = moved(sphere(50, 12), 0, 0, 60);
    expect(clipAbove(ball, 0)).toBe(ball);
  });

  it("cuts an edge once for both its triangles: no cracks but along the cut", () => {
    const half = clipAbove(sphere(50, 24), 7.3);
    const { across } = adjacencyOf(half);
    for (let e = 0; e < across.length; e++) {
      if (across[e] >= 0) continue;
      const [a, b] = [half.triangles[e], half.triangles[e % 3 === 2 ? e - 2 : e + 1]];
      expect(half.positions[3 * a + 2]).toBeCloseTo(7.3, 4);
      expect(half.positions[3 * b + 2]).toBeCloseTo(7.3, 4);
    }
  });
});

describe("what is known of a mesh", () => {
  it("is worked out once for each mesh", () => {
    let times = 0;
    const counted = perMesh((mesh: TriangleMesh) => {
      times++;
      return mesh.triangles.length;
    });
    const [one, other] = [sphere(10, 8), sphere(10, 12)];
    expect([counted(one), counted(one), counted(other)]).toEqual([
      one.triangles.length,
      one.triangles.length,
      other.triangles.length,
    ]);
    expect(times).toBe(2);
  });

  it.each([
    ["of a closed mesh", box(10, 20, 30)],
    ["of one that is open at its foot", clipAbove(sphere(50, 12), 7)],
  ])("names as neighbours just the vertices that share an edge, each once: %s", (_, mesh) => {
    const { start, list } = vertexNeighbours(mesh);
    const edges = new Set<string>();
    for (let k = 0; k < mesh.triangles.length; k++) {
      const [a, b] = [mesh.triangles[k], mesh.triangles[k % 3 === 2 ? k - 2 : k + 1]];
      edges.add(`${a} ${b}`).add(`${b} ${a}`);
    }
    const found = new Set<string>();
    for (let v = 0; v + 1 < start.length; v++)
      for (let k = start[v]; k < start[v + 1]; k++) found.add(`${v} ${list[k]}`);
    expect(found).toEqual(edges);
    expect(list).toHaveLength(edges.size);
  });
});

describe("the queue for cheapest paths", () => {
  it("gives what was put in by rising cost, whatever order that was", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(1000), evenly(0, 100))), (items) => {
        const heap = new CostHeap();
        for (const [v, cost] of items) heap.push(v, cost);
        const out: number[] = [];
        for (let next = heap.pop(); next; next = heap.pop()) out.push(next.cost);
        expect(out).toEqual(items.map(([, cost]) => cost).sort((a, b) => a - b));
      }),
    );
  });
});
