import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { together } from "../mesh/together.ts";
import type { Direction } from "../space/directions.ts";
import { rotation, rotations, turnedDirection } from "../testing/random.ts";
import { moved, sphere, turned } from "../testing/shapes.ts";
import { columnFrame, columnPoint, FROM_BACK, FROM_BOARD, visitColumns } from "./columns.ts";

const UP: Direction = [0, 0, 1];

interface Found {
  readonly line: number;
  readonly from: number;
  readonly to: number;
  readonly first: number;
}

function columnsOf(mesh: ReturnType<typeof sphere>, d: Direction, spacingMm: number, boardMm: number | null): Found[] {
  const found: Found[] = [];
  visitColumns(mesh, columnFrame(mesh, d, spacingMm), boardMm, (line, from, to, first) => {
    found.push({ line, from, to, first });
  });
  return found;
}

const volume = (columns: readonly Found[], spacingMm: number) =>
  columns.reduce((sum, { from, to }) => sum + spacingMm ** 2 * (to - from), 0);

describe("blocked columns", () => {
  it("between two balls one over the other are the cylinder between them less their caps, however both are turned", () => {
    const [r, apart, spacing] = [40, 120, 2];
    const pair = together(moved(sphere(r, 48), 0, 0, -apart / 2), moved(sphere(r, 48), 0, 0, apart / 2));
    // From the top of the lower to the bottom of the upper: pi r^2 apart - 4/3 pi r^3.
    const between = Math.PI * r * r * apart - (4 / 3) * Math.PI * r ** 3;
    fc.assert(
      fc.property(rotations, (turn) => {
        const m = rotation(turn);
        const columns = columnsOf(turned(pair, m), turnedDirection(m, UP), spacing, null);
        const inner = columns.filter(({ first }) => first >= 0);
        expect(volume(inner, spacing) / between).toBeCloseTo(1, 1);
      }),
      { numRuns: 12 },
    );
  });

  it("begin behind the piece where it floats, and at the board where it stands on one", () => {
    const ball = moved(sphere(40, 48), 0, 0, 50);
    const floating = columnsOf(ball, UP, 4, null);
    expect(new Set(floating.map(({ first }) => first))).toEqual(new Set([FROM_BACK]));
    const standing = columnsOf(ball, UP, 4, 0);
    expect(new Set(standing.map(({ first }) => first))).toEqual(new Set([FROM_BOARD]));
    // From the board to the lower half of the ball: pi r^2 50 - 2/3 pi r^3.
    const under = Math.PI * 40 * 40 * 50 - (2 / 3) * Math.PI * 40 ** 3;
    expect(volume(standing, 4) / under).toBeCloseTo(1, 1);
  });

  it("are only those of the lines that are wanted, and those just as among all", () => {
    const pair = together(moved(sphere(40, 32), 0, 0, -60), moved(sphere(40, 32), 10, 0, 60));
    const frame = columnFrame(pair, UP, 4);
    const lines = frame.bundle.countU * frame.bundle.countV;
    const wanted = Uint8Array.from({ length: lines }, (_, line) => (line % 5 === 0 ? 1 : 0));
    const some: Found[] = [];
    visitColumns(pair, frame, null, (line, from, to, first) => some.push({ line, from, to, first }), wanted);
    expect(some).toEqual(columnsOf(pair, UP, 4, null).filter(({ line }) => line % 5 === 0));
    expect(some.length).toBeGreaterThan(10);
  });

  it("lie on their lines in the world", () => {
    const d: Direction = [0.6, 0, 0.8];
    const frame = columnFrame(sphere(40, 16), d, 5);
    const [one, other] = [new Float64Array(3), new Float64Array(3)];
    columnPoint(frame, 7, 0, one);
    columnPoint(frame, 7, 10, other);
    expect([0, 1, 2].map((a) => (other[a] - one[a]) / 10)).toEqual([0, 1, 2].map((a) => expect.closeTo(d[a], 9)));
  });
});
