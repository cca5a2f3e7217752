/** The straps round the shown plan's mould, where walls are strapped. */
import { useMemo } from "react";
import type { Strap } from "../../../core/casting/straps.ts";
import { builtStraps } from "../../../core/plan/builtStraps.ts";
import type { BuiltWall } from "../../../core/plan/builtWalls.ts";
import type { StationProps } from "../station.ts";

const NONE: readonly Strap[] = [];

export function useStraps(
  walls: readonly BuiltWall[],
  { document, planning }: Pick<StationProps, "document" | "planning">,
): readonly Strap[] {
  const { bundle, quality } = planning;
  const { shell, brief } = document;
  return useMemo(
    () =>
      bundle && quality === "settled"
        ? builtStraps({ jacket: bundle.survey, cavity: bundle.figures.report.cavity }, { shell, brief }, walls)
        : NONE,
    [bundle, quality, shell, brief, walls],
  );
}
