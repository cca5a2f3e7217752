/** The figures of a small plan that was really worked out. */
import { plainContext } from "../../core/job/context.ts";
import { ALONE } from "../../core/job/team.ts";
import { newPlan } from "../../core/plan/document/document.ts";
import { PlanEngine } from "../../core/plan/engine.ts";
import { bundleOf } from "../../core/plan/results/bundle.ts";
import { figuresOf, type PlanFigures } from "../../core/plan/results/figures.ts";
import { identifiable, identified } from "../../core/plan/results/identified.ts";
import { TYPICAL_RATES } from "../../core/takeoff/rates.ts";
import { moved, sphere } from "../../core/testing/shapes.ts";

export async function figuresOfABall(): Promise<PlanFigures> {
  const document = newPlan();
  const result = new PlanEngine(moved(sphere(100, 24), 0, 0, 90)).run(document, TYPICAL_RATES, 10, plainContext);
  const bundle = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
  const identity = identified(identifiable(bundle, document.parting), document.identity);
  return figuresOf(bundle.figures, document, TYPICAL_RATES, identity);
}
