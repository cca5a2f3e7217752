/** What of the shown plan's mould stands on the board. */
import { useMemo } from "react";
import type { Footprint } from "../../../core/foot/footprint.ts";
import { builtFootprint } from "../../../core/plan/builtFoot.ts";
import type { BuiltWall } from "../../../core/plan/builtWalls.ts";
import type { StationProps } from "../station.ts";

export function useFootprint(
  walls: readonly BuiltWall[],
  { document, planning }: Pick<StationProps, "document" | "planning">,
): Footprint | null {
  const { bundle, quality } = planning;
  const { shell, jacket, seat } = document;
  const [piece, survey] = [bundle?.piece, bundle?.survey];
  // All walls are laid out again together; a bolt that is moved leaves them.
  const shape = walls[0]?.wall;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the first wall's shape stands for all of them.
  return useMemo(
    () =>
      piece && survey && quality === "settled"
        ? builtFootprint({ piece, jacket: survey }, { shell, jacket, seat }, walls)
        : null,
    [
      piece,
      survey,
      quality,
      shape,
      shell.foot,
      shell.figures,
      shell.system,
      shell.flanges.bolts.diameterMm,
      jacket,
      seat,
    ],
  );
}
