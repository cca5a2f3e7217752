/** Area and volume inside several levels of one field, shared out among threads. */
import type { BrickGrid } from "../field/grid.ts";
import { surfaceFigures } from "../field/surfaceFigures.ts";
import { type BrickRanges, type BrickRun, brickRanges } from "../field/sweep.ts";
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf } from "../job/team.ts";

export interface LevelFigures {
  readonly areaMm2: number;
  readonly volumeMm3: number;
}

/** One level in a run of bricks. */
interface LevelShare {
  readonly grid: BrickGrid;
  readonly values: Float32Array;
  readonly ranges: BrickRanges;
  readonly level: number;
  readonly onBoard: boolean;
  readonly bricks: BrickRun;
  /** Out: area and volume. */
  readonly figures: Float64Array;
}

export const levelKernel: Kernel<LevelShare> = {
  name: "level",
  run({ grid, values, ranges, level, onBoard, bricks, figures }) {
    const { areaMm2, volumeMm3 } = surfaceFigures(grid, values, level, ranges, bricks, onBoard);
    figures[0] = areaMm2;
    figures[1] = volumeMm3;
  },
};

/** Runs the bricks of a level are cut into. */
const RUNS = 2;

/** What each level of a field encloses, above the board where there is one. */
export function levelFigures(
  grid: BrickGrid,
  values: Float32Array,
  levels: readonly number[],
  onBoard: boolean,
  ctx: JobContext,
): LevelFigures[] {
  const ranges = brickRanges(values);
  const shares = levels.map((level) =>
    runsOf(grid.brickOf.length, RUNS).map((bricks): LevelShare => {
      const figures = new Float64Array(ctx.team.buffer(16));
      return { grid, values, ranges, level, onBoard, bricks, figures };
    }),
  );
  ctx.team.run(levelKernel, shares.flat(), () => ctx.checkCancelled());
  return shares.map((runs) => ({
    areaMm2: runs.reduce((sum, { figures }) => sum + figures[0], 0),
    volumeMm3: runs.reduce((sum, { figures }) => sum + figures[1], 0),
  }));
}
