/** The parting walls of a plan, and their patterns at 1:1. */
import { NearestField } from "../field/nearest.ts";
import type { JobContext } from "../job/context.ts";
import { FLANGE_WIDTH_MM } from "../shell/index.ts";
import { patternsOf, type WallPattern } from "../walls/pattern.ts";
import { type Wall, wallsOf } from "../walls/walls.ts";
import type { PlanResult } from "./results/planResult.ts";

export interface PlanWalls {
  /** One for every parting line, in their order. */
  readonly walls: readonly Wall[];
  readonly patterns: readonly WallPattern[];
}

export function planWalls({ jacket, parting }: PlanResult, ctx: JobContext): PlanWalls {
  const { onBoard, stepMm } = jacket.request;
  const boardMm = onBoard ? 0 : null;
  const walls = wallsOf({
    mesh: parting.filled,
    nearest: NearestField.about(parting.filled, 2 * stepMm, ctx),
    lines: parting.lines,
    widthMm: FLANGE_WIDTH_MM,
    boardMm,
  });
  return { walls, patterns: patternsOf(walls, boardMm) };
}

/** What the command line tells of the walls. */
export function wallReport({ walls, patterns }: PlanWalls) {
  return patterns.map(({ number, sections, lengthMm, patternLengthMm, areaMm2, pieces, ends }, w) => ({
    number,
    sections,
    lengthMm,
    patternLengthMm,
    areaMm2,
    /** The width that was asked for, and stretches where there was no room for it. */
    widthMm: FLANGE_WIDTH_MM,
    narrowed: walls[w].narrowed,
    /** Places where it would cross itself. */
    folds: walls[w].folds,
    ends,
    pieces: pieces.map(({ widthMm, heightMm, fromMm, toMm, bends }) => ({
      ...{ widthMm, heightMm, fromMm, toMm, bends: bends.length },
    })),
  }));
}

export type WallReport = ReturnType<typeof wallReport>;
