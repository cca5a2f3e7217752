/**
 * From where a section could be pulled: for every surveyed direction, whether the section as it is cut would come free,
 * come free with a fill, or lock; and the direction that costs it least.
 */
import type { JobContext } from "../../job/context.ts";
import { type Direction, frameAcross, normalised } from "../../space/directions.ts";
import { type SurveyCost, surveyDirections, surveyRow } from "../../survey/survey.ts";
import type { PartingPrices } from "./price.ts";
import { Pricing } from "./pricing.ts";
import { type SuggestRequest, type SurveyTable, surveyPull, surveyRequest } from "./request.ts";

/** How a section leaves along a direction. */
export type Leaving = "free" | "fill" | "locked";

export interface PullRange {
  readonly directions: readonly { readonly pull: Direction; readonly leaving: Leaving }[];
  /** The pull that costs the section least in fill; its own when none costs less. */
  readonly best: Direction;
  readonly bestLeaving: Leaving;
}

/** Locks of so few survey lines, a spacing deep, are the survey's roughness. */
const ROUGH_LINES = 12;
/** Turns tried on the best pull, degrees, coarse to fine. */
const TURNS_DEG = [5, 2] as const;
/** A section's pull is bettered by no less than this share. */
const LEAST_GAIN = 0.01;

/**
 * @param label section of each vertex of the survey's mesh
 * @param own the section's present pull
 */
export function pullRange(
  request: SuggestRequest,
  table: SurveyTable,
  prices: PartingPrices,
  label: Uint8Array,
  section: number,
  own: Direction,
  ctx: JobContext,
): PullRange {
  const vertices = label.length;
  const members = membersOf(label, section);
  const pricing = new Pricing(request, prices);
  const priceOf = (pull: Direction, cost: SurveyCost) => pricing.sumOf(pull, cost, members, least);
  const directions = table.directions.map((pull, d) => ({
    pull,
    leaving: leavingOf(request, surveyRow(table.cost, d, vertices), members),
  }));
  let best = own;
  let bestCost = surveyPull(request, own);
  let least = pricing.sumOf(own, bestCost, members) * (1 - LEAST_GAIN);
  table.directions.forEach((pull, d) => {
    const row = surveyRow(table.cost, d, vertices);
    const price = priceOf(pull, row);
    if (price >= least) return;
    [best, bestCost, least] = [pull, row, price];
  });
  for (const turnDeg of TURNS_DEG) {
    const sides = Array.from({ length: 6 }, (_, side) => turnedBy(best, turnDeg, side * 60));
    const surveyed = surveyDirections(surveyRequest(request, sides), ctx);
    sides.forEach((pull, row) => {
      const cost = surveyRow(surveyed, row, vertices);
      const price = priceOf(pull, cost);
      if (price >= least * (1 - LEAST_GAIN)) return;
      [best, bestCost, least] = [pull, cost, price];
    });
  }
  return { directions, best, bestLeaving: leavingOf(request, bestCost, members) };
}

/** Locks behind the body of fewer lines than this, so deep as a section is thick, do not count. */
const NOISE_LINES = 12;
const NOISE_DEPTH_MM = 40;

/** Locks behind the body no larger than this are the survey's own roughness. */
export function deepFloorMm3(spacingMm: number): number {
  return NOISE_LINES * spacingMm ** 2 * NOISE_DEPTH_MM;
}

function membersOf(label: Uint8Array, section: number): Uint32Array {
  const members: number[] = [];
  for (let v = 0; v < label.length; v++) if (label[v] === section) members.push(v);
  return Uint32Array.from(members);
}

function leavingOf({ spacingMm }: SuggestRequest, cost: SurveyCost, members: Uint32Array): Leaving {
  const { lockMm3, deepMm3 } = cost;
  const deepest = deepFloorMm3(spacingMm);
  let lock = 0;
  let deep = 0;
  for (let k = 0; k < members.length; k++) {
    lock += lockMm3[members[k]];
    deep += deepMm3[members[k]];
    if (deep > deepest) return "locked";
  }
  return lock > ROUGH_LINES * spacingMm ** 3 ? "fill" : "free";
}

/** A pull tilted by an angle towards one side. */
export function turnedBy(pull: Direction, turnDeg: number, sideDeg: number): Direction {
  const { u, v } = frameAcross(pull);
  const reach = Math.tan((turnDeg * Math.PI) / 180);
  const [c, s] = [Math.cos((sideDeg * Math.PI) / 180), Math.sin((sideDeg * Math.PI) / 180)];
  return normalised([0, 1, 2].map((a) => pull[a] + reach * (c * u[a] + s * v[a])) as unknown as Direction);
}
