/** What a search for sections is given: the survey's mesh, how hard to look, and what each surveyed pull would cost. */
import type { NearestField } from "../../field/nearest.ts";
import type { JobContext } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { type Direction, pullDirections } from "../../space/directions.ts";
import { bodyAxes, withBodyAxes } from "../../survey/axes.ts";
import type { DepthField } from "../../survey/depth.ts";
import { type SurveyCost, type SurveyRequest, surveyDirections, surveyOne } from "../../survey/survey.ts";

/** How hard to look for a plan. */
export interface SearchEffort {
  /** Pulls surveyed. */
  readonly directions: number;
  /** Vertices the survey's mesh should have. */
  readonly vertices: number;
  /** Pull sets the search starts from. */
  readonly starts: number;
  /** Turns of labels and pulls after the first. */
  readonly turns: number;
  /** Plans of the search that are worked out on the vertices. */
  readonly finalists: number;
  /** Numbers of sections that are tried, from the fewest up, where the cheapest is wanted. */
  readonly counts: number;
  /** Are pulls turned a little, hollows plugged and lines drawn tight, and other plans proven where the chosen one locks? */
  readonly careful: boolean;
  /** Times locks are filled and measured again, at most. */
  readonly fillRounds: number;
  /** Is it worked out who blocks whom? */
  readonly order: boolean;
}

/** For the plan that is kept: lines to a centimetre, a few seconds. */
export const THOROUGH: SearchEffort = {
  directions: 200,
  vertices: 18_000,
  starts: 4,
  turns: 4,
  finalists: 3,
  counts: 5,
  careful: true,
  fillRounds: 80,
  order: true,
};
/** For a plan that is kept, on a slow machine: half the pulls, on a mesh a third as fine. */
export const BRIEF: SearchEffort = {
  directions: 100,
  vertices: 9000,
  starts: 2,
  turns: 3,
  finalists: 2,
  counts: 5,
  careful: true,
  fillRounds: 80,
  order: true,
};
/** For a first glance. */
export const HASTY: SearchEffort = {
  directions: 36,
  vertices: 3500,
  starts: 1,
  turns: 1,
  finalists: 1,
  counts: 2,
  careful: false,
  fillRounds: 1,
  order: false,
};

export interface SuggestRequest {
  readonly coarse: TriangleMesh;
  /** Distances about it. */
  readonly depth: DepthField;
  /** The places nearest it. */
  readonly nearest: NearestField;
  /** 1 at the vertices in a zone to keep clear; null where there is none. */
  readonly clear: Uint8Array | null;
  readonly boardMm: number | null;
  readonly spacingMm: number;
  readonly draftDeg: number;
  /** May sections leave downwards past the board, after a lift? */
  readonly mayLift: boolean;
  readonly effort: SearchEffort;
}

export interface SurveyTable {
  readonly directions: readonly Direction[];
  /** The body's own axes, among the directions where they may be pulled along. */
  readonly axes: readonly Direction[];
  /** directions x vertices of the coarse mesh. */
  readonly cost: SurveyCost;
}

export function surveyPulls(request: SuggestRequest, ctx: JobContext): SurveyTable {
  const axes = bodyAxes(request.coarse);
  const directions = withBodyAxes(pullDirections(request.effort.directions), axes);
  return { directions, axes, cost: surveyDirections(surveyRequest(request, directions), ctx) };
}

/** The locks of one pull at every vertex. */
export function surveyPull(request: SuggestRequest, pull: Direction): SurveyCost {
  const vertices = request.coarse.positions.length / 3;
  const cost = { lockMm3: new Float32Array(vertices), deepMm3: new Float32Array(vertices) };
  surveyOne(surveyRequest(request, []), pull, cost);
  return cost;
}

/** A survey of pulls on the request's mesh. */
export function surveyRequest(request: SuggestRequest, directions: readonly Direction[]): SurveyRequest {
  return {
    mesh: request.coarse,
    directions,
    spacingMm: request.spacingMm,
    boardMm: request.boardMm,
    depth: request.depth,
  };
}
