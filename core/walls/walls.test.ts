import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { curveLengthMm, type FlatStrip, type Strip, unrolled, withoutOverlap } from "./unroll.ts";
import { wallsOf } from "./walls.ts";

const strip = (count: number, at: (share: number) => readonly [number[], number[]]): Strip => {
  const places = Array.from({ length: count + 1 }, (_, k) => at(k / count));
  return { foot: Float64Array.from(places.flatMap(([f]) => f)), head: Float64Array.from(places.flatMap(([, h]) => h)) };
};
const apart = (p: Float64Array, i: number, q: Float64Array, j: number, dimensions: number) =>
  Math.hypot(...Array.from({ length: dimensions }, (_, a) => p[dimensions * i + a] - q[dimensions * j + a]));

/** Every edge of the strip's triangles, in space and flat. */
function edges(space: Strip, flat: FlatStrip): (readonly [number, number])[] {
  const count = space.foot.length / 3;
  return Array.from({ length: count - 1 }, (_, k) =>
    (
      [
        ["foot", k, "foot", k + 1],
        ["head", k, "head", k + 1],
        ["foot", k + 1, "head", k + 1],
        ["head", k, "foot", k + 1],
      ] as const
    ).map(([a, i, b, j]) => [apart(space[a], i, space[b], j, 3), apart(flat[a], i, flat[b], j, 2)] as const),
  ).flat();
}

describe("a strip laid flat", () => {
  it("keeps every edge of its triangles, however it winds, and turns none over", () => {
    const step = fc.tuple(fc.double({ min: 2, max: 9, noNaN: true }), fc.double({ min: -4, max: 4, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(step, fc.double({ min: -3, max: 3, noNaN: true })), { minLength: 2, maxLength: 40 }),
        (ways) => {
          let [x, y, z] = [0, 0, 0];
          const foot = [0, 0, 0];
          const head = [0, 40, 0];
          for (const [[dx, dz], sway] of ways) {
            [x, y, z] = [x + dx, y + sway, z + dz];
            foot.push(x, y, z);
            head.push(x + sway, y + 40, z + sway);
          }
          const space = { foot: Float64Array.from(foot), head: Float64Array.from(head) };
          const flat = unrolled(space);
          for (const [inSpace, laid] of edges(space, flat)) expect(laid).toBeCloseTo(inSpace, 6);
          for (let k = 0; k + 1 < foot.length / 3; k++) {
            const [ax, ay, bx, by] = [...flat.foot.subarray(2 * k, 2 * k + 4)];
            const [hx, hy] = flat.head.subarray(2 * k, 2 * k + 2);
            expect((bx - ax) * (hy - ay) - (by - ay) * (hx - ax)).toBeGreaterThan(0);
          }
        },
      ),
    );
  });

  it("round a ball is a flat ring, and is cut where it comes full circle", () => {
    const [radius, width] = [300, 45];
    const ring = strip(400, (share) => {
      const turn = 2.2 * Math.PI * share;
      const out = [Math.cos(turn), Math.sin(turn), 0];
      return [out.map((v) => v * radius), out.map((v) => v * (radius + width))];
    });
    const flat = unrolled(ring);
    // The middle of the ring lies under the first ruling, a radius below it.
    for (let k = 0; k < flat.foot.length; k += 2) {
      expect(Math.hypot(flat.foot[k], flat.foot[k + 1] + radius)).toBeCloseTo(radius, 6);
      expect(Math.hypot(flat.head[k], flat.head[k + 1] + radius)).toBeCloseTo(radius + width, 6);
    }
    const pieces = withoutOverlap(flat);
    expect(pieces).toHaveLength(2);
    expect(pieces[1].from).toBe(pieces[0].to);
    // All the way round, but for the ruling that would lie on the first.
    expect(pieces[0].to / 400).toBeCloseTo(1 / 1.1, 1);
  });

  it("along a tube is a straight board, along a screw as long as its edges in space", () => {
    const [radius, width, pitch] = [120, 45, 500];
    const board = unrolled(
      strip(50, (share) => [
        [radius, 0, 900 * share],
        [radius + width, 0, 900 * share],
      ]),
    );
    for (let k = 0; k < board.foot.length; k += 2) {
      expect(board.foot[k + 1]).toBeCloseTo(0, 9);
      expect(board.head[k + 1]).toBeCloseTo(width, 9);
    }
    const screw = (r: number) => (share: number) => {
      const turn = 2 * Math.PI * share;
      return [r * Math.cos(turn), r * Math.sin(turn), pitch * share];
    };
    const flat = unrolled(strip(400, (share) => [screw(radius)(share), screw(radius + width)(share)]));
    for (const [curve, r] of [
      [flat.foot, radius],
      [flat.head, radius + width],
    ] as const) {
      const whole = Math.hypot(2 * Math.PI * r, pitch);
      expect(Math.abs(curveLengthMm(curve, 2) - whole) / whole).toBeLessThan(0.2 / 1000);
    }
    expect(withoutOverlap(flat)).toEqual([{ from: 0, to: 400 }]);
  });
});

/** Two meshes as one. */
function both(a: TriangleMesh, b: TriangleMesh): TriangleMesh {
  const first = a.positions.length / 3;
  return {
    positions: Float32Array.from([...a.positions, ...b.positions]),
    triangles: Uint32Array.from([...a.triangles, ...b.triangles.map((v) => v + first)]),
  };
}

describe("parting walls", () => {
  const onMesh = (mesh: TriangleMesh) => NearestField.about(mesh, 8, ctx);
  const lineOf = (points: number[], closed: boolean): PartingLine => ({
    sections: [0, 1],
    closed,
    points: Float32Array.from(points),
  });
  const circle = (radius: number, from: number, to: number) =>
    Array.from({ length: 201 }, (_, k) => from + ((to - from) * k) / 200).flatMap((turn) => [
      radius * Math.cos(turn),
      0,
      radius * Math.sin(turn),
    ]);

  it("stand square to a ball all round it, as wide as they are asked for", () => {
    const mesh = sphere(300, 96);
    const line = lineOf(circle(300, 0, 2 * Math.PI).slice(0, -3), true);
    const [wall] = wallsOf({ mesh, nearest: onMesh(mesh), lines: [line], widthMm: 45, boardMm: null });
    expect(wall.sections).toEqual([1, 2]);
    expect([wall.narrowed, wall.folds]).toEqual([[], []]);
    for (let k = 0; k < wall.head.length; k += 3) {
      expect(Math.hypot(...wall.head.subarray(k, k + 3))).toBeCloseTo(345, 0);
      expect(Math.abs(wall.head[k + 1])).toBeLessThan(1);
    }
    expect([...wall.foot.slice(-3)]).toEqual([...wall.foot.slice(0, 3)]);
    const flat = unrolled(wall);
    expect(curveLengthMm(flat.foot, 2)).toBeCloseTo(curveLengthMm(wall.foot, 3), 6);
  });

  it("end on the board, lying on it, and on one ruling where lines meet", () => {
    const mesh = sphere(300, 96);
    // Three quarters of the way round meet on top; two of them begin on the board.
    const legs = [0, Math.PI].map((from) => lineOf(circle(300, from, Math.PI / 2), false));
    const third = lineOf(
      Array.from({ length: 101 }, (_, k) => (Math.PI / 2) * (k / 100)).flatMap((turn) => [
        0,
        300 * Math.cos(turn),
        300 * Math.sin(turn),
      ]),
      false,
    );
    const walls = wallsOf({ mesh, nearest: onMesh(mesh), lines: [...legs, third], widthMm: 45, boardMm: 0 });
    for (const { foot, head } of walls) {
      expect(foot[2]).toBe(0);
      expect(head[2]).toBe(0);
      expect([...head.slice(-3)]).toEqual([...walls[0].head.slice(-3)]);
    }
  });

  it("are narrowed where two parts of the piece crowd them, told with the place", () => {
    // Two pillars 50 mm apart; the line runs up the inner face of one.
    const mesh = both(moved(box(100, 100, 400), -75, 0, 200), moved(box(100, 100, 400), 75, 0, 200));
    const line = lineOf(Array.from({ length: 61 }, (_, k) => [-25, 0, 50 + 5 * k]).flat(), false);
    const [wall] = wallsOf({ mesh, nearest: onMesh(mesh), lines: [line], widthMm: 45, boardMm: null });
    expect(Math.max(...wall.widthsMm)).toBeLessThan(32);
    expect(wall.narrowed).toHaveLength(1);
    expect(wall.narrowed[0].at[0]).toBeCloseTo(-25, 3);
  });
});
