/** Areas of a wall by the width that is asked for, so that quantities follow a change of width without its geometry. */
import { MOST_WIDTH_MM, type WallGround } from "./wallGround.ts";
import { wallAreaMm2, wallsOn } from "./walls.ts";

/** The widths that areas are kept for are so far apart, mm. */
export const AREA_STEP_MM = 5;

/** Areas of one face of every wall, mm2, all as wide as each other: at widths of 0, 5, 10 ... mm. */
export function areasByWidth(grounds: readonly WallGround[]): number[][] {
  const widths = Array.from({ length: MOST_WIDTH_MM / AREA_STEP_MM + 1 }, (_, n) => n * AREA_STEP_MM);
  const areas = widths.map((mm) =>
    wallsOn(
      grounds,
      grounds.map(() => mm),
    ).map(wallAreaMm2),
  );
  return grounds.map((_, n) => areas.map((of) => of[n]));
}

/** The area at a width, mm2, between those that are kept. */
export function areaAtWidth(areasMm2: readonly number[], widthMm: number): number {
  const at = Math.max(0, Math.min(areasMm2.length - 1, widthMm / AREA_STEP_MM));
  const low = Math.min(areasMm2.length - 2, Math.floor(at));
  return areasMm2[low] + (at - low) * (areasMm2[low + 1] - areasMm2[low]);
}
