/** The shell as it grows on the jacket: the walls of a section set up, then the section laid against them, one after another. */
import { type Block, blocksUnder } from "../walls/blocks.ts";
import type { BuiltWall } from "./builtWalls.ts";

export interface BuildStep {
  /** Its walls are set up, or it is laid. */
  readonly kind: "walls" | "laid";
  /** Number of the section, from one, in the order they are built. */
  readonly section: number;
  /** Walls that stand now, from 0: between it and what is built later. What was built before needs none. */
  readonly walls: readonly number[];
  /** What holds those up that hang over, with the wall's place among the walls. */
  readonly blocks: readonly (Block & { readonly wall: number })[];
  /** How many sections stand on the jacket. */
  readonly standing: number;
}

/**
 * @param sections how many
 * @param boardMm height of the board, mm; null where it floats: nothing stands on it then
 */
export function buildSteps(
  sections: number,
  walls: readonly Pick<BuiltWall, "wall">[],
  boardMm: number | null,
): BuildStep[] {
  return Array.from({ length: sections }, (_, k) => k + 1).flatMap((section): BuildStep[] => {
    const own = walls.flatMap(({ wall }, n) => (Math.min(...wall.sections) === section ? [n] : []));
    const blocks =
      boardMm === null
        ? []
        : own.flatMap((n) => blocksUnder(walls[n].wall, boardMm).map((block) => ({ ...block, wall: n })));
    const laid = { kind: "laid", section, walls: own, blocks, standing: section } as const;
    return own.length > 0 ? [{ ...laid, kind: "walls", standing: section - 1 }, laid] : [laid];
  });
}
