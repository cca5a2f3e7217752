/** How the closed mould of the shown plan stands while it is filled. */
import { useMemo } from "react";
import { type Stand, standOf } from "../../../core/casting/stand.ts";
import type { Footprint } from "../../../core/foot/footprint.ts";
import { type BuiltWall, shellTerms } from "../../../core/plan/builtWalls.ts";
import type { StationProps } from "../station.ts";

export function useStand(
  walls: readonly BuiltWall[],
  footprint: Footprint | null,
  { document, planning }: Pick<StationProps, "document" | "planning">,
): Stand | null {
  const { bundle, quality } = planning;
  const mesh = bundle?.survey;
  const { shellMm } = shellTerms(document.shell);
  const { position } = document.shell.casting;
  // All walls are laid out again together; a bolt that is moved leaves them.
  const shape = walls[0]?.wall;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the first wall's shape stands for all of them.
  return useMemo(
    () =>
      mesh && quality === "settled"
        ? standOf({ mesh, shellMm, edges: [...walls.map(({ wall }) => wall.head), ...footEdges(footprint)], position })
        : null,
    [mesh, quality, shellMm, position, shape, footprint],
  );
}

/** The outer edge of the shell's foot on the board, xyz per point. */
function footEdges(footprint: Footprint | null): Float64Array[] {
  return (footprint?.foot ?? []).map((ring) => Float64Array.from(ring.flatMap(([x, y]) => [x, y, 0])));
}
