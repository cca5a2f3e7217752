import type { PlanFigures } from "../../../core/plan/results/figures.ts";
import { formatMoneyMinor } from "../../../core/units/index.ts";
import type { Show } from "../../lib/show.ts";

/** What a plan comes to, line by line; money with the mark it had. */
export function tallyLines(
  { report, takeoff }: PlanFigures,
  currency: string,
  show: Show,
): readonly (readonly [string, string])[] {
  return [
    ["Sections", String(report.sections.length)],
    ["Heaviest", show.mass(Math.max(0, ...takeoff.sectionMassesG))],
    ["Silicone", show.mass(takeoff.siliconeG)],
    ["Shell", show.mass(takeoff.shellG)],
    ["Parting line", show.length(report.partingLengthMm)],
    ["Hands", show.hours(takeoff.handsMin)],
    ["Cost", formatMoneyMinor(takeoff.costMinor, currency)],
  ];
}
