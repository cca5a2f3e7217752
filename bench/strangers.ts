/** Made-up pieces by the hundred: how many come off, whether the prover agrees, how long a plan takes; and its parts. */
import { makeJacket } from "../core/jacket/jacket.ts";
import type { JobContext } from "../core/job/context.ts";
import { areaAndVolume } from "../core/mesh/mesh.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { bareBody, hullOf } from "../core/plan/proof/freeing.ts";
import { measureBites } from "../core/release/bite.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { HARD_PIECES, hardPiece } from "../core/testing/hardPieces.ts";
import { Prover } from "../core/testing/prover.ts";
import { stranger } from "../core/testing/strangers.ts";
import type { PartingRow } from "./parting.ts";

const PIECES = 200;
const HEIGHT_MM = 500;
const SCAN_STEP_MM = 7;
const STEP_MM = 7;
const PLACES = 25;
/** What the prover may find deeper than was told before it disagrees, mm. */
const SLACK_MM = 3.2;

/** Plans two hundred pieces and proves them. */
export function benchStrangers(ctx: JobContext, report: (row: PartingRow) => void): void {
  const times: number[] = [];
  const held: string[] = [];
  const disagreed: string[] = [];
  for (let seed = 0; seed < PIECES; seed++) {
    const { kind, mesh } = stranger(seed, HEIGHT_MM, SCAN_STEP_MM);
    const piece = repairScan(mesh, ctx).mesh;
    const started = ctx.nowMs();
    const { parting } = new PlanEngine(piece).run(newPlan(), TYPICAL_RATES, STEP_MM, ctx);
    times.push(ctx.nowMs() - started);
    if (parting.sections.some(({ releases }) => !releases)) held.push(`${kind} ${seed}`);
    const prover = new Prover(parting.filled);
    const deepest = Math.max(
      ...parting.sections.flatMap(({ skin, pull, releases }) => (releases ? prover.bites(skin, pull, PLACES) : [])),
    );
    if (deepest > parting.giveMm + SLACK_MM) disagreed.push(`${kind} ${seed}: ${deepest.toFixed(1)} mm`);
  }
  times.sort((a, b) => a - b);
  const told = (list: readonly string[]) => (list.length > 0 ? ` (${list.join(", ")})` : "");
  const size = `${PIECES - held.length} of ${PIECES} come off`;
  report({ stage: "made-up pieces, the middle one", size, ms: times[times.length >> 1], ratio: null });
  report({ stage: "made-up pieces, the slowest", size: `held${told(held)}`, ms: times[times.length - 1], ratio: null });
  report({ stage: "the prover disagrees", size: `${disagreed.length}${told(disagreed)}`, ms: 0, ratio: null });
}

/** The hard pieces, a metre high, one by one. */
export function benchHardPieces(ctx: JobContext, report: (row: PartingRow) => void): void {
  for (const name of HARD_PIECES) {
    const piece = repairScan(hardPiece(name, 1000, STEP_MM), ctx).mesh;
    const started = ctx.nowMs();
    const { parting } = new PlanEngine(piece).run(newPlan(), TYPICAL_RATES, STEP_MM, ctx);
    const ms = ctx.nowMs() - started;
    const held = parting.sections.filter(({ releases }) => !releases).length;
    const told = held > 0 ? `${held} held` : `comes off in ${parting.sections.length}`;
    report({
      stage: `hard piece: ${name}`,
      size: `${told}, fill ${(parting.fillMm3 / 1e6).toFixed(1)} l`,
      ms,
      ratio: null,
    });
  }
}

/** The visible hull and the bites of a standing animal a metre high. */
export function benchRelease(ctx: JobContext, report: (row: PartingRow) => void): void {
  const piece = repairScan(stranger(0, 1000, 8).mesh, ctx).mesh;
  const { coats } = newPlan().jacket;
  const jacket = makeJacket(piece, { coats, smoothingMm: 20, rimWidthMm: 60, onBoard: true, stepMm: 5 }, ctx);
  const pulls = [
    [0, 1, 0],
    [0, -1, 0],
  ] as const;
  const size = `${(areaAndVolume(piece).areaMm2 / 1e6).toFixed(1)} m2 at 5 mm`;
  let started = ctx.nowMs();
  const hull = hullOf(jacket, bareBody(jacket, ctx), pulls, 1.5, ctx);
  report({ stage: "visible hull under two pulls", size, ms: ctx.nowMs() - started, ratio: null });
  const points = hull.mesh.positions;
  const section = Uint8Array.from({ length: points.length / 3 }, (_, v) => (points[3 * v + 1] > 0 ? 0 : 1));
  started = ctx.nowMs();
  measureBites({ body: hull.body, points, section, pulls, fineMm: 0.4 }, ctx);
  report({ stage: "bites of every vertex", size, ms: ctx.nowMs() - started, ratio: null });
}
