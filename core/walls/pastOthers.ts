/**
 * Do flanges pass the sections that are still there? Places of a section's flange are moved along its pull, and where one
 * bites into the shell of a section that leaves later, the flange is narrowed there:
 *
 *   bite = max over s > 0 of min(phi(y), T - phi(y), lead(y))        y = x + s d
 *
 * the measure that sections block each other by (`core/release/blocks.ts`): phi the distance from the jacket, lead how far y is
 * inside the other's cell. What is no more than a third of a shell's thickness is trimmed by hand.
 */
import { Cells, type CellsData } from "../release/cells.ts";
import { alongAt, leftOf } from "./lean.ts";
import type { Draft, LeavingSection } from "./wallGround.ts";

export interface PastOthers {
  readonly cells: CellsData;
  /** The cell of each section, in the order they are built. */
  readonly cellOf: readonly number[];
  readonly sections: readonly LeavingSection[];
  readonly shellMm: number;
  readonly flangeMm: number;
  readonly boardMm: number | null;
}

/** Flanges are followed at every so many rulings, at steps of so much of their width, mm. */
export const PAST_RULINGS = 4;
const REACH_STEP_MM = 15;
/** A way is looked at in steps no shorter than this, mm. */
const STEP_MM = 3;
const TRIM_SHARE = 1 / 3;

/**
 * @param roomMm how far the flange may reach at every place otherwise
 * @returns for every ruling that is followed, how far it may reach; infinite where nothing is in the way
 */
export function roomPastOthers(draft: Draft, roomMm: Float64Array, request: PastOthers): Float64Array {
  const { cells: data, sections, shellMm, flangeMm } = request;
  const cells = new Cells(data);
  const { line, foot, out } = draft;
  const count = foot.length / 3;
  const room = new Float64Array(Math.ceil(count / PAST_RULINGS)).fill(Number.POSITIVE_INFINITY);
  for (let n = 0; n < room.length; n++) {
    const k = n * PAST_RULINGS;
    const up = [out[3 * k], out[3 * k + 1], out[3 * k + 2]] as const;
    const left = leftOf(alongAt(foot, k, line.closed), up);
    line.sections.forEach((s, side) => {
      // Sections built before it leave after it.
      if (s === 0 || !sections[s]) return;
      const off = (side === 0 ? 1 : -1) * (flangeMm / 2);
      for (let reachMm = shellMm; reachMm <= Math.min(roomMm[k], room[n]); reachMm += REACH_STEP_MM) {
        const start = [0, 1, 2].map((a) => foot[3 * k + a] + reachMm * up[a] + off * left[a]);
        if (!passes(cells, s, start, request)) room[n] = Math.max(0, reachMm - REACH_STEP_MM);
      }
    });
  }
  return room;
}

function passes(
  cells: Cells,
  s: number,
  start: readonly number[],
  { cellOf, sections, shellMm, boardMm }: PastOthers,
): boolean {
  const { pull, travelMm } = sections[s];
  const point = new Float64Array(3);
  const trimMm = TRIM_SHARE * shellMm;
  for (let moved = STEP_MM; moved < travelMm; ) {
    for (let a = 0; a < 3; a++) point[a] = start[a] + moved * pull[a];
    if (boardMm !== null && point[2] < boardMm) return true;
    const away = cells.distance(point);
    if (away < shellMm) {
      const { section: cell, leadMm } = cells.leadAt(point[0], point[1], point[2]);
      const by = cellOf.indexOf(cell);
      if (by >= 0 && by < s && Math.min(away, shellMm - away, leadMm) > trimMm) return false;
    }
    moved += Math.max(STEP_MM, away - cells.slackMm - shellMm);
  }
  return true;
}
