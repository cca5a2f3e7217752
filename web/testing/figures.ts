/** The figures of a small plan that was really worked out, for tests of what shows them. */
import { plainContext } from "../../core/job/context.ts";
import { ALONE } from "../../core/job/team.ts";
import { newPlan, type PlanDocument } from "../../core/plan/document/document.ts";
import { PlanEngine, type PlanResult } from "../../core/plan/engine.ts";
import { bundleOf } from "../../core/plan/results/bundle.ts";
import { figuresOf, type PlanFigures } from "../../core/plan/results/figures.ts";
import { TYPICAL_RATES } from "../../core/takeoff/rates.ts";
import { moved, sphere } from "../../core/testing/shapes.ts";

/** A ball in two halves, on its board. */
export const ballPlan = (): PlanDocument => ({
  ...newPlan(),
  parting: {
    ...newPlan().parting,
    pulls: [
      [1, 0, 0],
      [-1, 0, 0],
    ],
  },
});

export function planOfABall(): PlanResult {
  return new PlanEngine(moved(sphere(100, 32), 0, 0, 90)).run(ballPlan(), TYPICAL_RATES, 8, plainContext);
}

export async function figuresOfABall(): Promise<PlanFigures> {
  const { figures } = await bundleOf(planOfABall(), { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
  return figuresOf(figures, ballPlan(), TYPICAL_RATES);
}
