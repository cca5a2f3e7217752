import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../survey/directions.ts";
import { box, lathe, moved, mushroom, sphere, together } from "../testing/shapes.ts";
import { barycentric, Cells } from "./cells.ts";
import { type LockRequest, measureLocks } from "./locks.ts";

const UP: Direction = [0, 0, 1];

/** Everything belongs to section 0. */
function wholeCells(mesh: TriangleMesh): Cells {
  return Cells.of(NearestField.about(mesh, 8, ctx), [new Float32Array(mesh.positions.length / 3).fill(1)]);
}

/** The half with x > 0 is section 0, the other section 1. */
function halvedCells(mesh: TriangleMesh): Cells {
  const x = Float32Array.from({ length: mesh.positions.length / 3 }, (_, v) => mesh.positions[3 * v]);
  return Cells.of(NearestField.about(mesh, 4, ctx), [x, x.map((value) => -value)]);
}

const lockOf = (mesh: TriangleMesh, { cells, ...more }: Partial<LockRequest & { cells: Cells }> = {}) => {
  const request: LockRequest = {
    jacket: mesh,
    section: 0,
    pull: UP,
    spacingMm: 4,
    alongMm: 4,
    boardMm: 0,
    fillDepthMm: 40,
    residueMm: 8,
    shellMm: 20,
    ...more,
  };
  return measureLocks([request], cells ?? wholeCells(mesh), ctx)[0];
};

describe("the lock of a section", () => {
  it("is the ring of space under a mushroom's cap, pi (90^2 - 40^2) 200", () => {
    const body = mushroom(40, 200, 90, 30, 96);
    const exact = Math.PI * (90 ** 2 - 40 ** 2) * 200;
    const errors = [10, 5, 2.5].map((spacingMm) => Math.abs(lockOf(body, { spacingMm }).lockMm3 / exact - 1));
    expect(errors.map((e, k) => e < [0.02, 0.01, 0.005][k])).toEqual([true, true, true]);
    const { openMm3, holdingMm3, deepestMm, at } = lockOf(body);
    expect(openMm3 / exact).toBeCloseTo(1, 1);
    expect(holdingMm3 / exact).toBeCloseTo(1, 1);
    // As deep as the stem is tall: from the board to the underside of the cap.
    expect(deepestMm).toBeCloseTo(200, 0);
    const reach = Math.hypot(at?.[0] ?? 0, at?.[1] ?? 0);
    expect(reach).toBeGreaterThan(39);
    expect(reach).toBeLessThan(91);
  });

  it("is nothing for a half pulled away from the other half", () => {
    const body = mushroom(40, 200, 90, 30, 96);
    const cells = halvedCells(body);
    for (const [section, pull] of [
      [0, [1, 0, 0]],
      [1, [-1, 0, 0]],
    ] as const) {
      expect(lockOf(body, { cells, section, pull }).openMm3).toBe(0);
      expect(lockOf(body, { cells, section, pull }).holdingMm3).toBe(0);
    }
  });

  it("of a half pulled the wrong way is never filled: the body is in its way", () => {
    const body = moved(sphere(60, 32), 0, 0, 200);
    const cells = halvedCells(body);
    const wrong = lockOf(body, { cells, section: 0, pull: [-1, 0, 0], boardMm: null });
    expect(wrong.openMm3).toBeGreaterThan(0);
    expect(wrong.holdingMm3).toBeGreaterThan(0);
  });

  it("shallower than the fill depth is filled, deeper is left open", () => {
    const grooved = (depthMm: number) =>
      lathe(
        [
          [0, 140],
          [80, 140],
          [80, 100],
          [80 - depthMm, 100],
          [80 - depthMm, 100 - depthMm],
          [80, 100 - depthMm],
          [80, 0],
          [0, 0],
        ],
        96,
      );
    const shallow = lockOf(grooved(12));
    expect(shallow.openMm3).toBe(0);
    expect(shallow.fillMm3).toBeCloseTo(shallow.lockMm3, 3);
    expect(shallow.columns.length).toBeGreaterThan(0);
    // Filled, it still holds as the jacket stands.
    expect(shallow.holdingMm3).toBeGreaterThan(0);
    expect(Math.max(...shallow.columns.map((column) => column.toMm - column.fromMm))).toBeLessThan(13);
    const deep = lockOf(grooved(60), { fillDepthMm: 25 });
    expect(deep.openMm3).toBeGreaterThan(0.9 * deep.lockMm3);
  });

  it("of a long shallow hollow is filled by its thickness, not its length", () => {
    // A wall that steps back by 10 mm over 150 mm of its height: 150 deep along the pull, 10 thick.
    const body = lathe(
      [
        [0, 200],
        [80, 200],
        [80, 170],
        [70, 165],
        [70, 15],
        [80, 10],
        [80, 0],
        [0, 0],
      ],
      96,
    );
    const lock = lockOf(body);
    expect(lock.deepestMm).toBeGreaterThan(120);
    expect(lock.openMm3).toBe(0);
    expect(lock.holdingMm3).toBeGreaterThan(0);
  });

  it("does not count space the section does not reach: a shelf far below another's overhang", () => {
    const roof = moved(box(200, 200, 20), 0, 0, 400);
    const floor = moved(box(200, 200, 20), 0, 0, 10);
    const body = together(roof, floor);
    const p = body.positions;
    // Section 1 is the roof; section 0 the floor, whose cell ends half way up.
    const height = Float32Array.from({ length: p.length / 3 }, (_, v) => 200 - p[3 * v + 2]);
    const cells = Cells.of(NearestField.about(body, 8, ctx), [height, height.map((value) => -value)]);
    const below = lockOf(body, { cells });
    expect(below.openMm3).toBeGreaterThan(0);
    expect(below.lockMm3 / (200 * 200 * 185)).toBeCloseTo(1, 1);
    expect(lockOf(body, { cells, shellMm: 0.1 }).lockMm3).toBe(0);
  });

  it("spreads points through itself: open ones deeper than none, filled ones negative", () => {
    const open = lockOf(mushroom(40, 200, 90, 30, 64));
    expect(open.points.length).toBeGreaterThan(400);
    expect(open.points.length / 4).toBeLessThanOrEqual(1500);
    for (let k = 3; k < open.points.length; k += 4) expect(open.points[k]).toBeGreaterThan(0);
  });
});

describe("cells", () => {
  it("tell whose patch is nearest, on both sides of the tie and far from it", () => {
    const cells = halvedCells(sphere(60, 32));
    for (const x of [200, 61, 20, 3]) {
      expect(cells.at(x, 5, 7)).toBe(0);
      expect(cells.at(-x, 5, 7)).toBe(1);
    }
    expect(cells.distance(Float64Array.from([100, 0, 0]))).toBeCloseTo(40, 0);
  });

  it("are carried over to a mesh near by with their lines where they were", () => {
    const cells = halvedCells(sphere(60, 32));
    const grown = sphere(66, 48);
    const [own, other] = cells.carried(grown);
    let wrong = 0;
    for (let v = 0; v < own.length; v++) {
      const x = grown.positions[3 * v];
      if (Math.abs(x) > 4 && own[v] > other[v] !== x > 0) wrong++;
    }
    expect(wrong).toBe(0);
  });

  it("weigh a triangle's corners so that they make the point again", () => {
    const mesh: TriangleMesh = {
      positions: Float32Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0]),
      triangles: Uint32Array.from([0, 1, 2]),
    };
    const [a, b, c] = weightsAt(mesh, [2, 3, 0]);
    expect([a, b, c].map((w) => Number(w.toFixed(6)))).toEqual([0.5, 0.2, 0.3]);
    const flat = { ...mesh, triangles: Uint32Array.from([0, 1, 1]) };
    expect(weightsAt(flat, [2, 3, 0])).toEqual([1, 0, 0]);
  });
});

function weightsAt(mesh: TriangleMesh, point: readonly number[]): number[] {
  const out = new Float64Array(3);
  barycentric(out, mesh, 0, Float64Array.from(point));
  return [...out];
}
