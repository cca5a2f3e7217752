/** Everything in a plan that needs the user, in plain words. */
import type { PlanDocument } from "../document/document.ts";
import type { PlanFigures } from "./figures.ts";
import { METRIC, type Words, warningInWords } from "./warnings.ts";

export function planCautions(
  { report, takeoff, warnings }: PlanFigures,
  document: PlanDocument,
  words: Words = METRIC,
): string[] {
  const { liftLimitKg } = document.brief;
  const heavy = takeoff.sectionMassesG.flatMap((massG, k) =>
    massG > liftLimitKg * 1000
      ? [`Section ${k + 1} is over your lift limit of ${liftLimitKg} kg: two people or a hoist.`]
      : [],
  );
  return [...warnings.map((warning) => warningInWords(warning, report.piece.boxMm, words)), ...heavy];
}
