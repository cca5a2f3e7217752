/** Area and volume inside several levels of one field, shared out among threads. */
import type { BrickGrid } from "../field/grid.ts";
import { type BrickRanges, brickRanges, isosurface } from "../field/isosurface.ts";
import { type JobContext, plainContext } from "../job/context.ts";
import type { Kernel } from "../job/team.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume } from "../mesh/mesh.ts";

export interface LevelFigures {
  readonly areaMm2: number;
  readonly volumeMm3: number;
}

interface LevelShare {
  readonly grid: BrickGrid;
  readonly values: Float32Array;
  readonly ranges: BrickRanges;
  readonly level: number;
  readonly onBoard: boolean;
  /** Out: area and volume. */
  readonly figures: Float64Array;
}

export const levelKernel: Kernel<LevelShare> = {
  name: "level",
  run({ grid, values, ranges, level, onBoard, figures }) {
    const surface = isosurface(grid, values, level, plainContext, ranges);
    const { areaMm2, volumeMm3 } = areaAndVolume(onBoard ? clipAbove(surface, 0) : surface);
    figures[0] = areaMm2;
    figures[1] = volumeMm3;
  },
};

/** What each level of a field encloses, above the board where there is one. */
export function levelFigures(
  grid: BrickGrid,
  values: Float32Array,
  levels: readonly number[],
  onBoard: boolean,
  ctx: JobContext,
): LevelFigures[] {
  const ranges = brickRanges(values);
  const shares = levels.map((level): LevelShare => {
    const figures = new Float64Array(ctx.team.buffer(16));
    return { grid, values, ranges, level, onBoard, figures };
  });
  ctx.team.run(levelKernel, shares, () => ctx.checkCancelled());
  return shares.map(({ figures }) => ({ areaMm2: figures[0], volumeMm3: figures[1] }));
}
