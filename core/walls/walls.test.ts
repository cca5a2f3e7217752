import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import { lathe } from "../mesh/lathe.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import { bareBody } from "../plan/proof/freeing.ts";
import { Cells } from "../release/cells.ts";
import type { Direction } from "../space/directions.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { areaAtWidth, areasByWidth } from "./areas.ts";
import { wallGrounds } from "./ground.ts";
import { WALL_DRAFT_DEG } from "./lean.ts";
import { curveLengthMm, type FlatStrip, type Strip, unrolled, withoutOverlap } from "./unroll.ts";
import { type GroundRequest, ROOM_LIMITS, type WallGround } from "./wallGround.ts";
import { wallAreaMm2, wallsOn } from "./walls.ts";

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

function madeJacket(piece: TriangleMesh, onBoard: boolean) {
  const coats = [{ thicknessMm: THIN_MM, thickened: false }];
  const plain = { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], footClayMm: 0, onBoard, stepMm: 6 };
  const jacket = makeJacket(piece, plain, ctx);
  return { jacket, nearest: NearestField.about(jacket.mesh, 12, ctx), body: bareBody(jacket, ctx) };
}

const made = new WeakMap<TriangleMesh, ReturnType<typeof madeJacket>>();

/** A jacket over a piece, thin and plain; made once. */
function jacketOver(piece: TriangleMesh, onBoard: boolean) {
  const held = made.get(piece) ?? madeJacket(piece, onBoard);
  made.set(piece, held);
  return held;
}

/** The walls along lines on a jacket. */
function grounds(
  piece: TriangleMesh,
  lines: readonly PartingLine[],
  {
    pulls = ACROSS,
    onBoard = false,
    flangeMm = 20,
    others = null,
  }: {
    pulls?: readonly Direction[];
    onBoard?: boolean;
    flangeMm?: number;
    others?: GroundRequest["others"];
  } = {},
) {
  const { jacket, nearest, body } = jacketOver(piece, onBoard);
  const sections = pulls.map((pull) => ({ pull, travelMm: 300, lifted: false }));
  const request = { mesh: jacket.mesh, nearest, body, lines, sections, giveMm: 1.5, flangeMm };
  return wallGrounds({ ...request, boardMm: onBoard ? 0 : null, others }, ctx);
}

/** The wall of one ground. */
const wallOn = (ground: WallGround, mm: number) => wallsOn([ground], [mm])[0];

const THIN_MM = 1;
const ACROSS: readonly Direction[] = [
  [0, 1, 0],
  [0, -1, 0],
];
const lineOf = (points: number[], closed: boolean, sections: readonly [number, number] = [0, 1]): PartingLine => ({
  ...{ sections, closed },
  points: Float32Array.from(points),
});
/** Round the upright circle across y. */
const circle = (radius: number, from: number, to: number, z = 0) =>
  Array.from({ length: 201 }, (_, k) => from + ((to - from) * k) / 200).flatMap((turn) => [
    radius * Math.cos(turn),
    0,
    z + radius * Math.sin(turn),
  ]);

describe("parting walls", () => {
  it("stand square to a ball all round it, as wide as they are asked for", () => {
    // Going from x to z, the section on the left, seen from outside, is the one towards -y.
    const [ground] = grounds(sphere(299, 96), [lineOf(circle(300, 0, 2 * Math.PI).slice(0, -3), true, [1, 0])]);
    const wall = wallOn(ground, 45);
    expect(wall.sections).toEqual([2, 1]);
    expect([wall.narrowed, wall.folds]).toEqual([[], []]);
    for (let k = 0; k < wall.head.length; k += 3) {
      expect(Math.abs(Math.hypot(...wall.head.subarray(k, k + 3)) - 345)).toBeLessThan(1);
      expect(Math.abs(wall.head[k + 1])).toBeLessThan(1);
    }
    expect([...wall.foot.slice(-3)]).toEqual([...wall.foot.slice(0, 3)]);
    const flat = unrolled(wall);
    expect(curveLengthMm(flat.foot, 2)).toBeCloseTo(curveLengthMm(wall.foot, 3), 6);
    // A ring, less the corners that straight rulings cut.
    expect(wallAreaMm2(wall) / (Math.PI * (345 ** 2 - 300 ** 2))).toBeCloseTo(1, 2);
    // Each half leaves square to it.
    expect(Math.min(...ground.draft)).toBeGreaterThan(0.99);
    expect(Math.max(...ground.leanDeg)).toBe(0);
  });

  it("have areas between those that are kept as they would have at any width", () => {
    const [ground] = grounds(sphere(299, 96), [lineOf(circle(300, 0, 2 * Math.PI).slice(0, -3), true, [1, 0])]);
    const [areas] = areasByWidth([ground]);
    for (const width of [23, 45, 58, 117])
      expect(areaAtWidth(areas, width) / wallAreaMm2(wallOn(ground, width))).toBeCloseTo(1, 3);
  });

  it("end on the board, lying on it, and on one ruling where lines meet", () => {
    // Three quarters of the way round meet on top; all begin on the board.
    const legs = [lineOf(circle(300, 0, Math.PI / 2), false, [1, 0]), lineOf(circle(300, Math.PI, Math.PI / 2), false)];
    const third = lineOf(
      Array.from({ length: 101 }, (_, k) => (Math.PI / 2) * (k / 100)).flatMap((turn) => [
        0,
        300 * Math.cos(turn),
        300 * Math.sin(turn),
      ]),
      false,
      [2, 0],
    );
    const pulls: Direction[] = [...ACROSS, [-1, 0, 0]];
    const walls = wallsOn(grounds(sphere(299, 96), [...legs, third], { pulls, onBoard: true }), [45, 45, 45]);
    for (const { foot, head } of walls) {
      expect(foot[2]).toBe(0);
      expect(Math.abs(head[2])).toBeLessThan(1e-3);
      for (let a = 1; a <= 3; a++)
        expect(head[head.length - a]).toBeCloseTo(walls[0].head[walls[0].head.length - a], 3);
    }
  });

  it("are narrowed where two parts of the piece crowd them, told with the place", () => {
    // Two pillars 50 mm apart; the line runs up the inner face of one.
    const piece = both(moved(box(98, 98, 398), -75, 0, 200), moved(box(98, 98, 398), 75, 0, 200));
    const line = lineOf(Array.from({ length: 61 }, (_, k) => [-25, 0, 50 + 5 * k]).flat(), false, [1, 0]);
    const [ground] = grounds(piece, [line], { flangeMm: 1 });
    const wall = wallOn(ground, 45);
    expect(Math.max(...wall.widthsMm)).toBeLessThan(32);
    expect(wall.narrowed).toHaveLength(1);
    expect(wall.narrowed[0].at[0]).toBeCloseTo(-25, 0);
    expect(wall.narrowed[0].limit).toBe("form");
  });

  it("lean where the section that leaves first would else drag along its neighbour's flange", () => {
    // The second half leaves first, and is pulled 20 degrees towards the wall it should leave.
    const aslant: Direction = [Math.cos((110 * Math.PI) / 180), -Math.sin((110 * Math.PI) / 180), 0];
    const upright = lineOf(Array.from({ length: 81 }, (_, k) => [100, 0, -200 + 5 * k]).flat(), false, [1, 0]);
    const tube = lathe(
      [
        [99, 300],
        [99, -300],
      ],
      96,
    );
    const along: Direction = [Math.cos((70 * Math.PI) / 180), -Math.sin((70 * Math.PI) / 180), 0];
    const inwards: Direction = [-0.17364817766, 0.98480775301, 0];
    for (const [pull, lean] of [
      [[0, -1, 0] as Direction, 0],
      [aslant, 0],
      [along, 0],
      [inwards, 40],
    ] as const) {
      const [ground] = grounds(tube, [upright], { pulls: [[0, 1, 0], pull] });
      const middle = Math.floor(ground.leanDeg.length / 2);
      expect(Math.abs(ground.leanDeg[middle])).toBeCloseTo(lean, 3);
    }
    // Pulled out along the wall but for 5 degrees the wrong way: it leans by those, and the draft a wall has.
    const dragging: Direction = [Math.cos((5 * Math.PI) / 180), Math.sin((5 * Math.PI) / 180), 0];
    const [ground] = grounds(tube, [upright], { pulls: [[0, 1, 0], dragging] });
    const middle = Math.floor(ground.leanDeg.length / 2);
    expect(Math.abs(ground.leanDeg[middle])).toBeCloseTo(5 + WALL_DRAFT_DEG, 0);
    expect(ground.draft[2 * middle]).toBeCloseTo(Math.sin((WALL_DRAFT_DEG * Math.PI) / 180), 2);
  });

  it("are no wider than passes the shells that are still there", () => {
    // A pillar in two halves; the one pulled back passes another pillar, 40 mm aside, in a shell of its own that still stands.
    const piece = both(moved(box(98, 98, 398), 0, 0, 200), moved(box(98, 98, 398), 140, 160, 200));
    const line = lineOf(Array.from({ length: 61 }, (_, k) => [50, 0, 50 + 5 * k]).flat(), false, [1, 2]);
    const pulls: Direction[] = [
      [1, 0, 0],
      [0, -1, 0],
      [0, 1, 0],
    ];
    const { jacket, nearest } = jacketOver(piece, false);
    const p = jacket.mesh.positions;
    const potentials = [0, 1, 2].map((s) =>
      Float32Array.from({ length: p.length / 3 }, (_, v) => {
        const [x, y] = [p[3 * v], p[3 * v + 1]];
        const own = x > 70 && y > 80 ? 0 : y < 0 ? 1 : 2;
        return own === s ? 30 : -30;
      }),
    );
    const others = {
      cells: Cells.of(nearest, potentials).data,
      cellOf: [0, 1, 2],
      skins: [],
      shellMm: 20,
      flangesReachMm: 60,
    };
    const [free] = grounds(piece, [line], { pulls });
    const [ground] = grounds(piece, [line], { pulls, others });
    const middle = Math.floor(free.roomMm.length / 2);
    expect(free.roomMm[middle]).toBeGreaterThan(35);
    // Its tip keeps two thirds of a shell's thickness off the other jacket, to a step of 15 mm.
    expect(ground.roomMm[middle]).toBeLessThan(40 - (2 / 3) * 20 + 0.5);
    expect(ROOM_LIMITS[ground.limit[middle]]).toBe("sections");
  });

  it("are no wider than leaves with both sections", () => {
    // A line up a pillar; beside it, where one section is pulled to, stands another 60 mm off the first.
    const piece = both(moved(box(98, 98, 398), 0, 0, 200), moved(box(98, 98, 398), 90, 160, 200));
    const line = lineOf(Array.from({ length: 61 }, (_, k) => [50, 0, 50 + 5 * k]).flat(), false, [1, 0]);
    const [ground] = grounds(piece, [line]);
    const wall = wallOn(ground, 60);
    expect(Math.max(...wall.widthsMm)).toBeLessThan(10);
    expect(wall.narrowed[0].limit).toBe("release");
  });
});
