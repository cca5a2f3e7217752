/**
 * Suggests sections: surveys the pulls on a coarse mesh of the jacket, takes the cheapest sets of two or three,
 * labels the patches for each by least fill and then shortest line, and keeps the best.
 */
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Direction, dot, frameAcross, normalised, pullDirections } from "../survey/directions.ts";
import { type SurveyRequest, surveyOne, vertexNormals } from "../survey/survey.ts";
import { choosePulls } from "./choosePulls.ts";
import { absorbIslands, labellingEnergy, labelVertices, type VertexGraph, vertexGraph } from "./labelling.ts";

/** A millimetre of line weighs as much as this much fill, mm3: fill first, then the shorter line. */
const LINE_WEIGHT_MM3 = 60;
/** A patch short of the draft is charged as a lock this deep. */
const DRAFT_DEPTH_MM = 12;

/** How hard to look for a plan. */
export interface SearchEffort {
  /** Pulls surveyed. */
  readonly directions: number;
  /** Vertices the survey's mesh should have. */
  readonly vertices: number;
  /** Pull sets that are turned to their best and labelled in full. */
  readonly finalists: number;
}

/** For the plan that is kept: lines to a centimetre, a few seconds. */
export const THOROUGH: SearchEffort = { directions: 200, vertices: 26_000, finalists: 4 };
/** For a first glance. */
export const HASTY: SearchEffort = { directions: 44, vertices: 4500, finalists: 1 };

export interface SuggestRequest {
  readonly coarse: TriangleMesh;
  readonly boardMm: number | null;
  readonly spacingMm: number;
  readonly fillDepthMm: number;
  readonly draftDeg: number;
  readonly effort: SearchEffort;
}

export interface SurveyTable {
  readonly directions: readonly Direction[];
  /** directions x vertices of the coarse mesh, mm3. */
  readonly cost: Float32Array;
}

/** Does the survey of some directions; the host may share them out among workers. */
export type SurveyCrew = (request: SurveyRequest, tick: (done: number) => void) => Promise<Float32Array>;

export interface Suggestion {
  readonly pulls: readonly Direction[];
  /** Section of each vertex of the coarse mesh. */
  readonly label: Uint8Array;
  /** Energy of the labelling, mm3 of fill or its worth. */
  readonly energy: number;
}

export async function surveyPulls(request: SuggestRequest, crew: SurveyCrew, ctx: JobContext): Promise<SurveyTable> {
  const directions = pullDirections(request.effort.directions, request.boardMm !== null);
  const survey = surveyRequest(request, directions);
  const cost = await crew(survey, (done) => {
    ctx.checkCancelled();
    ctx.progress("survey", done);
  });
  return { directions, cost };
}

function surveyRequest(request: SuggestRequest, directions: readonly Direction[]): SurveyRequest {
  return {
    mesh: request.coarse,
    directions,
    spacingMm: request.spacingMm,
    boardMm: request.boardMm,
    fillDepthMm: request.fillDepthMm,
  };
}

/** The best plan with `sections` sections out of a survey. */
export function suggestSections(
  request: SuggestRequest,
  table: SurveyTable,
  sections: number,
  ctx: JobContext,
): Suggestion {
  const vertices = request.coarse.positions.length / 3;
  const graph = vertexGraph(request.coarse);
  const { normals, areasMm2 } = vertexNormals(request.coarse);
  let best: Suggestion | null = null;
  const chosen = choosePulls(table.cost, table.directions.length, vertices, sections, request.effort.finalists);
  // Many pairs may cost as little: the plain ones along the axes are heard too, and the shorter line decides.
  const sets = sections === 2 ? [...chosen, ...axisPairs(table.directions)] : chosen;
  sets.forEach((set, k) => {
    ctx.checkCancelled();
    ctx.progress("parting", (0.5 * k) / sets.length);
    const first = set.pulls.map((d) => ({
      pull: table.directions[d],
      lock: table.cost.subarray(d * vertices, (d + 1) * vertices),
    }));
    const refined = refinePulls(request, first, ctx);
    const pulls = refined.map(({ pull }) => pull);
    const lock = refined.map((one) => one.lock);
    const plan = labelFor(graph, normals, areasMm2, pulls, lock, request.draftDeg);
    if (!best || plan.energy < best.energy) best = plan;
  });
  if (!best) throw new Error("No set of pulls was left to choose from.");
  return best;
}

/** Pairs of contrary pulls along the axes, where both were surveyed. */
function axisPairs(directions: readonly Direction[]): { readonly pulls: readonly [number, number] }[] {
  const axes: readonly Direction[] = [
    [0, 0, 1],
    [1, 0, 0],
    [0, 1, 0],
  ];
  return axes.flatMap((axis) => {
    const along = directions.findIndex((d) => dot(d, axis) > 1 - 1e-9);
    const against = directions.findIndex((d) => dot(d, axis) < -1 + 1e-9);
    return along < 0 || against < 0 ? [] : [{ pulls: [along, against] as const }];
  });
}

interface SurveyedPull {
  readonly pull: Direction;
  readonly lock: Float32Array;
}

/** Turns tried on each pull, degrees, coarse to fine. */
const TURNS_DEG = [5, 2];

/** Turns each pull a little as long as the jacket as a whole pays less for it. */
function refinePulls(request: SuggestRequest, start: readonly SurveyedPull[], ctx: JobContext): SurveyedPull[] {
  const pulls = [...start];
  let cost = pairedCost(pulls);
  const survey = surveyRequest(request, []);
  for (const turnDeg of TURNS_DEG) {
    for (let k = 0; k < pulls.length; k++) {
      const { u, v } = frameAcross(pulls[k].pull);
      for (let side = 0; side < 6 && cost > 0; side++) {
        ctx.checkCancelled();
        const angle = (Math.PI * side) / 3;
        const reach = Math.tan((turnDeg * Math.PI) / 180);
        const d = pulls[k].pull;
        const turned = normalised(
          [0, 1, 2].map(
            (a) => d[a] + reach * (Math.cos(angle) * u[a] + Math.sin(angle) * v[a]),
          ) as unknown as Direction,
        );
        if (request.boardMm !== null && turned[2] < 0) continue;
        const lock = new Float32Array(pulls[k].lock.length);
        surveyOne(survey, turned, lock);
        const trial = pulls.map((held, n) => (n === k ? { pull: turned, lock } : held));
        const trialCost = pairedCost(trial);
        if (trialCost >= cost * 0.995) continue;
        cost = trialCost;
        pulls[k] = trial[k];
        break;
      }
    }
  }
  return pulls;
}

/** What the jacket pays when every patch goes to its cheapest pull. */
function pairedCost(pulls: readonly SurveyedPull[]): number {
  let sum = 0;
  for (let v = 0; v < pulls[0].lock.length; v++) {
    let least = Infinity;
    for (const { lock } of pulls) if (lock[v] < least) least = lock[v];
    sum += least;
  }
  return sum;
}

/** Labels for pulls the user has fixed. */
export function sectionsForPulls(request: SuggestRequest, pulls: readonly Direction[]): Suggestion {
  const survey = surveyRequest(request, pulls);
  const lock = pulls.map((pull) => {
    const out = new Float32Array(request.coarse.positions.length / 3);
    surveyOne(survey, pull, out);
    return out;
  });
  const { normals, areasMm2 } = vertexNormals(request.coarse);
  return labelFor(vertexGraph(request.coarse), normals, areasMm2, pulls, lock, request.draftDeg);
}

function labelFor(
  graph: VertexGraph,
  normals: Float32Array,
  areasMm2: Float32Array,
  pulls: readonly Direction[],
  lock: readonly Float32Array[],
  draftDeg: number,
): Suggestion {
  const least = Math.sin((draftDeg * Math.PI) / 180);
  const costs = pulls.map((pull, s) => {
    const out = new Float32Array(graph.vertices);
    for (let v = 0; v < graph.vertices; v++) {
      const facing = dot(pull, [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]]);
      out[v] = lock[s][v] + areasMm2[v] * DRAFT_DEPTH_MM * Math.max(0, least - facing);
    }
    return out;
  });
  const problem = { graph, costs, perSeamMm: LINE_WEIGHT_MM3 };
  const label = absorbIslands(problem, labelVertices(problem), areasMm2);
  return { pulls, label, energy: labellingEnergy(problem, label) };
}
