import { describe, expect, it } from "vitest";
import { box, fromSoup, moved, mushroom, sphere } from "../testing/shapes.ts";
import { adjacencyOf, labelParts, NON_MANIFOLD, OPEN } from "./adjacency.ts";
import { clipAbove } from "./clip.ts";
import { areaAndVolume, makeMesh, type TriangleMesh } from "./mesh.ts";
import { boundaryLoops, repairScan } from "./repair.ts";
import { together } from "./together.ts";
import { weld } from "./weld.ts";

/** Every triangle with corners of its own, as STL has it. */
function soup(mesh: TriangleMesh): TriangleMesh {
  const positions = new Float32Array(mesh.triangles.length * 3);
  mesh.triangles.forEach((v, k) => {
    positions.set(mesh.positions.subarray(3 * v, 3 * v + 3), 3 * k);
  });
  return { positions, triangles: Uint32Array.from({ length: mesh.triangles.length }, (_, k) => k) };
}
const without = (mesh: TriangleMesh, drop: (triangle: number) => boolean): TriangleMesh => ({
  positions: mesh.positions,
  triangles: mesh.triangles.filter((_, k) => !drop(Math.floor(k / 3))),
});

describe("weld", () => {
  it("brings a soup back to shared vertices", () => {
    const mesh = sphere(100, 20);
    expect(weld(soup(mesh), 1e-3).positions.length).toBe(mesh.positions.length);
  });
  it("leaves apart what is apart", () => {
    const near = together(box(10, 10, 10), moved(box(10, 10, 10), 10.01, 0, 0));
    expect(weld(near, 1e-3).positions.length).toBe(16 * 3);
  });
});

describe("adjacency", () => {
  it("pairs every edge of a closed body with its mate, both ways", () => {
    const { across, openEdges, nonManifoldEdges } = adjacencyOf(sphere(50, 12));
    expect([openEdges, nonManifoldEdges]).toEqual([0, 0]);
    across.forEach((mate, edge) => {
      expect(across[mate]).toBe(edge);
    });
  });
  it("tells open edges and edges of three triangles", () => {
    const fin = fromSoup([
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [1, 0, 0],
      [0, 0, 0],
      [0, -1, 0],
      [0, 0, 0],
      [1, 0, 0],
      [0, 0, 1],
    ]);
    const { across, openEdges, nonManifoldEdges } = adjacencyOf(fin);
    expect([openEdges, nonManifoldEdges]).toEqual([6, 1]);
    expect([...across].filter((mate) => mate === NON_MANIFOLD)).toHaveLength(3);
    expect([...across].filter((mate) => mate === OPEN)).toHaveLength(6);
  });
  it("counts parts", () => {
    expect(labelParts(together(sphere(10, 6), moved(sphere(10, 6), 50, 0, 0))).parts).toBe(2);
  });
});

describe("repair", () => {
  it("leaves a sound scan as it is and says nothing", () => {
    const { mesh, report } = repairScan(soup(sphere(100, 20)));
    expect(report).toMatchObject({ repairs: [], warnings: [], openEdges: 0, flippedTriangles: 0, parts: 1 });
    expect(areaAndVolume(mesh).volumeMm3).toBeCloseTo(areaAndVolume(sphere(100, 20)).volumeMm3, 0);
  });
  it("turns a scan that is inside out", () => {
    const ball = sphere(100, 20);
    const inside = { positions: ball.positions, triangles: ball.triangles.slice().reverse() };
    expect(areaAndVolume(inside).volumeMm3).toBeLessThan(0);
    expect(areaAndVolume(repairScan(inside).mesh).volumeMm3).toBeGreaterThan(0);
  });
  it("closes an open foot at the board, and reports it as that", () => {
    const open = clipAbove(moved(sphere(100, 40), 0, 0, 60), 0);
    const { mesh, report } = repairScan(open);
    expect(report.openEdges).toBeGreaterThan(20);
    expect(report.repairs).toContain("closed the foot at the board");
    expect(adjacencyOf(mesh).openEdges).toBe(0);
    // A ball of 100 cut 60 below its middle: pi h^2 (3 R - h) / 3 with h = 160.
    expect(areaAndVolume(mesh).volumeMm3 / ((Math.PI * 160 ** 2 * (300 - 160)) / 3)).toBeCloseTo(1, 2);
  });
  it("closes small holes quietly and warns of a large one, with its place", () => {
    const ball = sphere(100, 40);
    const small = repairScan(without(ball, (t) => t === 1500));
    expect(small.report.repairs).toContain("closed 1 small hole");
    expect(small.report.warnings).toEqual([]);
    const large = repairScan(without(ball, (t) => t < 900));
    expect(large.report.warnings.join()).toMatch(/hole about \d+ mm wide near \(/);
  });
  it("drops dust and degenerate triangles", () => {
    const dirty = together(sphere(100, 20), moved(sphere(0.4, 4), 160, 0, 0));
    const withNeedle = { positions: dirty.positions, triangles: Uint32Array.of(...dirty.triangles, 0, 0, 1) };
    const { report } = repairScan(withNeedle);
    expect(report.repairs.join("; ")).toMatch(/1 degenerate.*1 loose speck/);
    expect(report.parts).toBe(1);
  });
  it("finds boundary loops in order", () => {
    const loops = boundaryLoops(without(box(10, 10, 10), (t) => t < 2));
    expect(loops).toHaveLength(1);
    expect(loops[0]).toHaveLength(4);
  });
});

describe("clip", () => {
  it("keeps what is above the board, exactly", () => {
    const whole = mushroom(40, 200, 90, 30, 64);
    const cut = clipAbove(moved(whole, 0, 0, -50), 0);
    const stem = Math.PI * 40 ** 2 * 150;
    const cap = Math.PI * 90 ** 2 * 30;
    expect(areaAndVolume(cut).volumeMm3 / (stem + cap)).toBeCloseTo(1, 2);
    for (let v = 2; v < cut.positions.length; v += 3) expect(cut.positions[v]).toBeGreaterThanOrEqual(0);
    expect(clipAbove(whole, -1)).toBe(whole);
  });
});

describe("a mesh is made only when it holds together", () => {
  it.each([
    ["no triangles", Float32Array.of(0, 0, 0), new Uint32Array(0), "no-triangles"],
    ["half a triangle", Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0), Uint32Array.of(0, 1), "malformed"],
    ["a vertex that is not there", Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0), Uint32Array.of(0, 1, 3), "malformed"],
    [
      "an infinite coordinate",
      Float32Array.of(0, 0, 0, Infinity, 0, 0, 0, 1, 0),
      Uint32Array.of(0, 1, 2),
      "bad-coordinate",
    ],
  ])("not with %s", (_name, positions, triangles, code) => {
    expect(() => makeMesh(positions, triangles)).toThrow(expect.objectContaining({ code }));
  });
});
