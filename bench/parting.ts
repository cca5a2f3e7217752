/** The search for sections: graph cuts by patches and labels, plans by sections, and what it gains on the demo pieces. */
import { makeJacket } from "../core/jacket/jacket.ts";
import type { JobContext } from "../core/job/context.ts";
import type { TriangleMesh } from "../core/mesh/mesh.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { neighbours, vertexGraph } from "../core/parting/graph/graph.ts";
import { labelVertices } from "../core/parting/graph/labelling.ts";
import { moveHandle } from "../core/parting/layout/handles.ts";
import { layoutOf, takenInHand } from "../core/parting/layout/layout.ts";
import { surfaceOf } from "../core/parting/layout/surface.ts";
import type { PartingLine } from "../core/parting/lines/cut.ts";
import { networkOf } from "../core/parting/lines/network.ts";
import { type SuggestRequest, surveyPulls, surveyRequest } from "../core/parting/search/request.ts";
import { PlanSearch } from "../core/parting/search/suggest.ts";
import type { Suggestion } from "../core/parting/search/trial.ts";
import { Glance } from "../core/plan/advice/glance.ts";
import { newPlan, type PlanDocument } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { surveyRequestFor } from "../core/plan/proof/surveyStage.ts";
import { settledStepMm } from "../core/plan/stages/steps.ts";
import { type Direction, pullDirections } from "../core/space/directions.ts";
import { surveyDirections } from "../core/survey/survey.ts";
import { NO_ZONES } from "../core/survey/zones.ts";
import { partingPrices } from "../core/takeoff/prices.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { sphere } from "../core/testing/shapes.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import { makeRelief } from "../demo/pieces/relief.ts";
import { makeWalrus } from "../demo/pieces/walrus.ts";

const prices = partingPrices(newPlan(), TYPICAL_RATES);

export interface PartingRow {
  readonly stage: string;
  readonly size: string;
  readonly ms: number;
  /** Against the row before, or against what a naive plan costs; null where there is nothing to compare. */
  readonly ratio: number | null;
}

/** Graph cuts over patches and labels, each step twice the one before. */
export function benchGraphCut(report: (row: PartingRow) => void): void {
  let last = 0;
  for (const [detail, labels] of [
    [70, 8],
    [100, 8],
    [141, 8],
    [141, 4],
    [141, 2],
  ]) {
    const mesh = sphere(500, detail);
    const problem = cutProblem(mesh, labels);
    const started = performance.now();
    labelVertices(problem);
    const ms = performance.now() - started;
    const size = `${problem.graph.vertices} patches, ${labels} labels`;
    report({ stage: "graph cut", size, ms, ratio: last > 0 ? ms / last : null });
    last = ms;
  }
}

/** Patches that want a pull they face, unevenly, so that labels compete everywhere. */
function cutProblem(mesh: TriangleMesh, labels: number) {
  const graph = vertexGraph(mesh);
  const pulls = pullDirections(60).slice(3, 3 + labels);
  const p = mesh.positions;
  const costs = pulls.map(([x, y, z], l) =>
    Float32Array.from({ length: graph.vertices }, (_, v) => {
      const facing = (x * p[3 * v] + y * p[3 * v + 1] + z * p[3 * v + 2]) / 500;
      return 60 * Math.max(0, 0.4 - facing) * (1 + 0.6 * Math.sin(0.05 * p[3 * v] + l) * Math.sin(0.07 * p[3 * v + 2]));
    }),
  );
  return { graph, costs, seamCost: graph.seamMm };
}

/** The survey of pulls, each step twice as many as the one before. */
function benchDirections(
  request: SuggestRequest,
  name: string,
  ctx: JobContext,
  report: (row: PartingRow) => void,
): void {
  let last = 0;
  for (const count of [50, 100, 200, 400]) {
    const directions = pullDirections(count);
    const started = performance.now();
    surveyDirections(surveyRequest(request, directions), ctx);
    const ms = performance.now() - started;
    report({
      stage: "survey by pulls",
      size: `${name}, ${directions.length} pulls`,
      ms,
      ratio: last > 0 ? ms / last : null,
    });
    last = ms;
  }
}

const MOVES = 20;

/** A line under the finger: moving a handle and what it comes to at a glance, the median of several moves. */
function benchHand(
  request: SuggestRequest,
  { pulls, label }: Suggestion,
  name: string,
  ctx: JobContext,
  report: (row: PartingRow) => void,
): void {
  const near = neighbours(vertexGraph(request.coarse));
  const layout = layoutOf(networkOf(request.coarse, label, near, request.nearest), pulls);
  if (layout.lines.length === 0) return;
  const glance = new Glance(request.coarse, request.boardMm, ctx);
  const longest = layout.lines.reduce(
    (best, line, n) => (line.points.length > layout.lines[best].points.length ? n : best),
    0,
  );
  const { points, handles } = layout.lines[longest];
  const k = handles[1];
  const times = Array.from({ length: MOVES }, (_, n) => {
    const to = [points[3 * k] + n, points[3 * k + 1], points[3 * k + 2] + n] as const;
    const started = performance.now();
    const moved = moveHandle(glance.surface, layout, longest, 1, to);
    glance.look(moved, NO_ZONES, 8);
    return performance.now() - started;
  });
  const ms = times.sort((a, b) => a - b)[MOVES >> 1];
  report({ stage: "a line moved, at a glance", size: `${name}, ${layout.lines.length} lines`, ms, ratio: null });
}

/** A line let go of: the whole plan proven again, settled, as the page does it. */
function benchSettled(piece: TriangleMesh, name: string, ctx: JobContext, report: (row: PartingRow) => void): void {
  const engine = new PlanEngine(piece);
  let plan: PlanDocument = newPlan();
  const stepMm = settledStepMm(plan, engine.pieceFor(plan, ctx).areaMm2, "usual");
  const run = (size: string, stage: string, against: number | null): number => {
    const started = performance.now();
    const { parting } = engine.run(plan, TYPICAL_RATES, stepMm, ctx);
    const ms = performance.now() - started;
    report({ stage, size: `${name}, ${size}`, ms, ratio: against === null ? null : ms / against });
    drawn = parting.drawn;
    numbered = parting.sections;
    return ms;
  };
  let drawn: readonly PartingLine[] = [];
  let numbered: readonly { readonly pull: Direction }[] = [];
  const whole = run(`step ${stepMm} mm`, "suggested, proven, settled", null);
  let layout = takenInHand(drawn, numbered);
  if (layout.lines.length === 0) return;
  plan = { ...plan, parting: { ...plan.parting, layout } };
  run("lines in hand", "taken in hand, proven, settled", whole);
  const surface = surfaceOf(engine.surveyed(plan, stepMm) ?? piece, 0, ctx);
  for (let move = 0; move < SETTLED_MOVES; move++) {
    const { points, handles } = layout.lines[0];
    const k = 3 * handles[1 + (move % (handles.length - 1))];
    layout = moveHandle(surface, layout, 0, 1 + (move % (handles.length - 1)), [
      points[k] + 12,
      points[k + 1],
      points[k + 2] + 12,
    ]);
    plan = { ...plan, parting: { ...plan.parting, layout } };
    const started = performance.now();
    engine.standing(plan, TYPICAL_RATES, stepMm, ctx);
    const firstMs = performance.now() - started;
    const size = `${name}, move ${move + 1}`;
    report({ stage: "a line let go of, proven on its fills", size, ms: firstMs, ratio: firstMs / whole });
    run(`move ${move + 1}`, "a line let go of, proven, settled", whole);
  }
}

const SETTLED_MOVES = 4;

/** What a plan of the search costs by its own word. */
const paid = ({ energy, handling, pulls }: Suggestion) =>
  energy + handling + pulls.length * (prices.setupPerSection + prices.waitPerSection);

/** Survey and search on the demo pieces, and their cost against the best contrary pair parted straight across. */
export function benchDemoPieces(ctx: JobContext, report: (row: PartingRow) => void): void {
  const pieces = { lamplighter: makeLamplighter, walrus: makeWalrus, relief: makeRelief };
  for (const [name, make] of Object.entries(pieces)) {
    const piece = make();
    benchSettled(piece, name, ctx, report);
    const { mesh } = repairScan(piece, ctx);
    const { coats } = newPlan().jacket;
    const jacket = makeJacket(mesh, { coats, smoothingMm: 20, rimWidthMm: 60, onBoard: true, stepMm: 6 }, ctx);
    const request = surveyRequestFor(jacket, 1, [], ctx);
    let started = performance.now();
    const table = surveyPulls(request, ctx);
    const pulls = table.directions.length;
    report({ stage: "survey", size: `${name}, ${pulls} pulls`, ms: performance.now() - started, ratio: null });
    benchDirections(request, name, ctx, report);
    const search = new PlanSearch(request, table, prices, ctx);
    benchHand(request, search.best(3, ctx), name, ctx, report);
    const costs: number[] = [];
    for (const count of [2, 3, 4, 5, 6]) {
      started = performance.now();
      const cost = paid(search.best(count, ctx));
      const ms = performance.now() - started;
      const ratio = costs.length > 0 ? cost / costs[0] : null;
      costs.push(cost);
      report({ stage: "best plan", size: `${name}, ${count} sections`, ms, ratio });
    }
    started = performance.now();
    const plain = search.straightPair();
    if (!plain) continue;
    const ratio = Math.min(...costs) / paid(plain);
    report({ stage: "cost against a straight pair", size: name, ms: performance.now() - started, ratio });
  }
}
