/** The first, coarse answer: of the scan thinned as the file has it, on a coarse grid, looked for in haste. */
import { thinnedRoughly } from "../export/thin.ts";
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { HASTY } from "../parting/request.ts";
import type { PlanDocument } from "./document.ts";
import { PlanEngine, type PlanResult } from "./engine.ts";
import type { Rates } from "./estimate.ts";
import { coarseStepMm, type Fineness, settledStepMm } from "./steps.ts";

const COARSE_TRIANGLES = 30_000;

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
