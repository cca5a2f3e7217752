/** The pots of the shown plan. */
import { useMemo } from "react";
import { type PotRow, potRows } from "../../../core/takeoff/pots.ts";
import type { StationProps } from "../station.ts";

export function usePots({ document, planning }: Pick<StationProps, "document" | "planning">): readonly PotRow[] {
  const figures = planning.bundle?.figures;
  const fixings = planning.fixings;
  return useMemo(() => {
    if (!figures) return [];
    const { report, takeoff } = figures;
    // Masses of the report are by the plan's own silicone already; a row's share of them is what counts.
    return potRows(document, report.jacket, report, takeoff, fixings);
  }, [figures, document, fixings]);
}
