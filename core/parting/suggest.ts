/**
 * Suggests sections: surveys the pulls on a coarse mesh of the jacket, takes the cheapest sets of two or three,
 * labels the patches for each by least fill and then shortest line, and keeps the best.
 */
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Direction, dot, pullDirections } from "../survey/directions.ts";
import { type SurveyRequest, surveyOne, vertexNormals } from "../survey/survey.ts";
import { choosePulls } from "./choosePulls.ts";
import { absorbIslands, labellingEnergy, labelVertices, type VertexGraph, vertexGraph } from "./labelling.ts";

/** A millimetre of line weighs as much as this much fill, mm3: fill first, then the shorter line. */
const LINE_WEIGHT_MM3 = 60;
/** A patch short of the draft is charged as a lock this deep. */
const DRAFT_DEPTH_MM = 12;
/** Candidate pull sets that are labelled in full. */
const FINALISTS = 6;

export interface SuggestRequest {
  readonly coarse: TriangleMesh;
  readonly boardMm: number | null;
  readonly spacingMm: number;
  readonly fillDepthMm: number;
  readonly draftDeg: number;
  readonly directionCount: number;
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
  const directions = pullDirections(request.directionCount, request.boardMm !== null);
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
  const sets = choosePulls(table.cost, table.directions.length, vertices, sections, FINALISTS);
  sets.forEach((set, k) => {
    ctx.checkCancelled();
    ctx.progress("parting", (0.5 * k) / sets.length);
    const pulls = set.pulls.map((d) => table.directions[d]);
    const lock = set.pulls.map((d) => table.cost.subarray(d * vertices, (d + 1) * vertices));
    const plan = labelFor(graph, normals, areasMm2, pulls, lock, request.draftDeg);
    if (!best || plan.energy < best.energy) best = plan;
  });
  if (!best) throw new Error("No set of pulls was left to choose from.");
  return best;
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
