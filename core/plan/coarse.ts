/** The first, coarse answer: of the scan thinned as the file has it, on a coarse grid, looked for in haste. */
import { thinnedRoughly } from "../display/thin.ts";
import type { JobContext } from "../job/context.ts";
import { lathe } from "../mesh/lathe.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { HASTY } from "../parting/search/request.ts";
import { type Rates, TYPICAL_RATES } from "../takeoff/rates.ts";
import { newPlan, type PlanDocument } from "./document/document.ts";
import { PlanEngine, type PlanResult } from "./engine.ts";
import { coarseStepMm, type Fineness, settledStepMm } from "./stages/steps.ts";

const COARSE_TRIANGLES = 30_000;

/** By then most of what a glance runs is compiled. */
const PRACTICE_ROUNDS = 3;
/** A flat cap on a stem, standing: it locks, is filled and parts, as pieces do. Mm. */
const PRACTICE_PIECE = [
  [0, 2000],
  [600, 2000],
  [600, 1800],
  [300, 1800],
  [300, 0],
  [0, 0],
] as const;

/** @param scan triangles as the file has them, joined or not, in the file's unit */
export function coarseEngineOf(scan: TriangleMesh): PlanEngine {
  return new PlanEngine(thinnedRoughly(scan, COARSE_TRIANGLES), HASTY);
}

/**
 * @param engine see `coarseEngineOf`
 * @param fineness how finely the plan will be settled: the coarse step goes with it
 */
export function coarsePlan(
  engine: PlanEngine,
  document: PlanDocument,
  rates: Rates,
  fineness: Fineness,
  ctx: JobContext,
): PlanResult {
  const { areaMm2 } = engine.pieceFor(document, ctx);
  return engine.run(document, rates, coarseStepMm(settledStepMm(document, areaMm2, fineness)), ctx);
}

/**
 * Coarse answers for a made-up piece, of which nothing is kept: engines compile what they have run some times over, and
 * a glance that runs for the first time takes more than twice as long.
 * @throws Cancelled
 */
export function practise(ctx: JobContext): void {
  const piece = lathe(PRACTICE_PIECE, 96);
  for (let round = 0; round < PRACTICE_ROUNDS; round++)
    coarsePlan(coarseEngineOf(piece), newPlan(), TYPICAL_RATES, "usual", ctx);
}
