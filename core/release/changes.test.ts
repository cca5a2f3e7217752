import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { columnFrame, visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";
import { evenly, lumps, lumpy, rotation, rotations, turnedDirection } from "../testing/random.ts";
import { sphere, torus } from "../testing/shapes.ts";
import { Cells } from "./cells.ts";
import { changedNodes } from "./changes.ts";
import { LockMemory, type LockRequest, measureLocks } from "./locks.ts";

const STEP_MM = 6;
const R = 160;
const PULLS: readonly Direction[] = [
  [0, 0, 1],
  [0.6, 0, -0.8],
  [-0.6, 0, -0.8],
];

/** A swelling about a place of the surface: where it is and how high. */
type Swelling = readonly [Direction, number];

const bump = ([at, high]: Swelling, p: ArrayLike<number>, k: number): number => {
  const away = Math.hypot(p[k] - R * at[0], p[k + 1] - R * at[1], p[k + 2] - R * at[2]);
  // Nothing at all beyond its foot: what is elsewhere stays the same to the last bit.
  return away < 50 ? high * (1 - (away / 50) ** 2) ** 2 : 0;
};

function swollen(mesh: TriangleMesh, swelling: Swelling): TriangleMesh {
  const positions = mesh.positions.map((x, k) => {
    const own = bump(swelling, mesh.positions, k - (k % 3));
    return own === 0 ? x : x * (1 + own / R);
  });
  return { ...mesh, positions };
}

/** Three sections: above a level, and below it right and left; the lines give way to a swelling. */
function cellsOn(mesh: TriangleMesh, levelMm: number, swelling: Swelling | null): Cells {
  const p = mesh.positions;
  const lead = Float32Array.from({ length: p.length / 3 }, (_, v) => {
    const own = p[3 * v + 2] - levelMm - (swelling ? bump(swelling, p, 3 * v) : 0);
    return Math.max(-15, Math.min(15, own));
  });
  const side = Float32Array.from({ length: lead.length }, (_, v) => Math.max(-15, Math.min(15, p[3 * v])));
  const potentials = [
    lead,
    lead.map((own, v) => Math.min(-own, side[v])),
    lead.map((own, v) => Math.min(-own, -side[v])),
  ];
  return Cells.of(NearestField.about(mesh, 2 * STEP_MM, ctx), potentials);
}

function requestsOn(jacket: TriangleMesh): LockRequest[] {
  const common = { jacket, spacingMm: STEP_MM, alongMm: STEP_MM, boardMm: null, fillDepthMm: 30 };
  return PULLS.map((pull, section) => ({ ...common, pull, section, residueMm: 2 * STEP_MM, shellMm: 15 }));
}

const places = rotations.map((turn) => turnedDirection(rotation(turn), [0, 0, 1]));

describe("a measure that remembers the one before", () => {
  it("finds just what a measure from scratch finds: lines moved, jacket changed, or both", () => {
    const shares: number[] = [];
    fc.assert(
      fc.property(
        lumps,
        evenly(-40, 40),
        fc.tuple(places, evenly(-30, 30)),
        fc.tuple(places, evenly(-12, 0)),
        fc.boolean(),
        (waves, levelMm, line, dent, both) => {
          const jacket = lumpy(sphere(R, 40), waves);
          const memory = new LockMemory();
          measureLocks(requestsOn(jacket), cellsOn(jacket, levelMm, null), ctx, memory);
          const next = both ? swollen(jacket, dent) : jacket;
          const cells = cellsOn(next, levelMm, line);
          const requests = requestsOn(next);
          const frames = requests.map(({ pull }) => columnFrame(next, pull, STEP_MM));
          for (const known of memory.recall(requests, frames, cells)) {
            if (known) shares.push(known.wanted.reduce((sum, one) => sum + one, 0) / known.wanted.length);
          }
          const found = measureLocks(requests, cells, ctx, memory);
          expect(found).toEqual(measureLocks(requests, cells, ctx));
          // And once more from there, back to where it began.
          const again = measureLocks(requestsOn(jacket), cellsOn(jacket, levelMm, null), ctx, memory);
          expect(again).toEqual(measureLocks(requestsOn(jacket), cellsOn(jacket, levelMm, null), ctx));
        },
      ),
      { numRuns: 8, seed: 81, endOnFailure: true },
    );
    expect(shares.length).toBeGreaterThan(8);
    expect(Math.min(...shares)).toBeLessThan(0.7);
  });

  it("begins afresh where nothing can be compared", () => {
    const [ball, larger] = [sphere(R, 24), sphere(R + 20, 24)];
    expect(changedNodes(cellsOn(ball, 0, null), cellsOn(larger, 0, null))).toBeNull();
    const memory = new LockMemory();
    measureLocks(requestsOn(ball), cellsOn(ball, 0, null), ctx, memory);
    const cells = cellsOn(larger, 0, null);
    expect(measureLocks(requestsOn(larger), cells, ctx, memory)).toEqual(measureLocks(requestsOn(larger), cells, ctx));
  });

  it("has nothing to look at where nothing has changed", () => {
    const ball = sphere(R, 24);
    expect(changedNodes(cellsOn(ball, 0, null), cellsOn(ball, 0, null))).toHaveLength(0);
  });
});

describe("columns of wanted lines", () => {
  it("are those of all lines, without the others", () => {
    const ring = torus(100, 40, 64, 32);
    for (const pull of PULLS) {
      const frame = columnFrame(ring, pull, 7);
      const { countU, countV } = frame.bundle;
      const wanted = Uint8Array.from({ length: countU * countV }, (_, line) => (line % 5 === 0 ? 1 : 0));
      const told = (only: Uint8Array | null) => {
        const columns: number[][] = [];
        visitColumns(ring, frame, null, (...column) => columns.push(column), only);
        return columns;
      };
      expect(told(wanted)).toEqual(told(null).filter(([line]) => wanted[line] === 1));
    }
  });
});
