import type { BundleFigures } from "./bundle.ts";
import type { PlanDocument } from "./document.ts";

/** Everything in a plan that needs the user, in plain words. */
export function planCautions(figures: BundleFigures, document: PlanDocument): string[] {
  const { liftLimitKg } = document.brief;
  const heavy = figures.estimate.sectionMassesG.flatMap((massG, k) =>
    massG > liftLimitKg * 1000
      ? [`Section ${k + 1} is over your lift limit of ${liftLimitKg} kg: two people or a hoist.`]
      : [],
  );
  return [...figures.report.warnings, ...heavy];
}
