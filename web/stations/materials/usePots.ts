/** The pots of the shown plan. */
import { useMemo } from "react";
import { told } from "../../../core/plan/results/figures.ts";
import { type PotRow, potRows } from "../../../core/takeoff/pots.ts";
import type { StationProps } from "../station.ts";

export function usePots({ document, planning }: Pick<StationProps, "document" | "planning">): readonly PotRow[] {
  const figures = planning.bundle?.figures;
  const fixings = planning.fixings;
  return useMemo(() => {
    if (!figures) return [];
    return potRows(document, told(figures), figures.takeoff, fixings);
  }, [figures, document, fixings]);
}
