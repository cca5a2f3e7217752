/**
 * From a jacket to sections: suggest or take pulls, add what none of them reaches, lay the lines on that, fill what still
 * bites, cut.
 */

import type { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import { filledBy } from "../../mesh/lists.ts";
import { areaAndVolume } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { contraryPair } from "../../parting/search/contraryPair.ts";
import { relabelled } from "../../parting/search/relabel.ts";
import type { SuggestRequest } from "../../parting/search/request.ts";
import type { Suggestion } from "../../parting/search/trial.ts";
import type { BodyData } from "../../release/body.ts";
import { Cells } from "../../release/cells.ts";
import { type Direction, normalised } from "../../space/directions.ts";
import { SECTION_COUNTS } from "../document/document.ts";
import { assemble } from "./assemble.ts";
import {
  exactSuggestion,
  liftOf,
  type ProofRequest,
  type SearchRequest,
  type SectionsRequest,
  suggestions,
  weighedPrice,
} from "./choosing.ts";
import { type Filled, type FreedSections, type FreeRequest, freeSections, hullOf, withLeftOpen } from "./freeing.ts";
import { drawnOut, type LaidOut, runOn } from "./laidOut.ts";
import type { ProvenParting } from "./parting.ts";
import { type SurveyStage, surveyRequestFor } from "./surveyStage.ts";

export function planSections(
  jacket: Jacket,
  survey: SurveyStage,
  request: SectionsRequest,
  ctx: JobContext,
): ProvenParting {
  const { giveMm } = request;
  const nearest = survey.nearest(jacket, ctx);
  const body = survey.body(jacket, ctx);
  if (request.layout) {
    const laid = survey.laid(request.layout, jacket, ctx);
    const cells = Cells.of(nearest, laid.potentials, ctx.team);
    const open = laid.fillWith.map((wanted) => wanted === "open");
    const kept = open.includes(true) ? { cells: cells.data, sections: open } : null;
    const hull = kept
      ? hullOf(jacket, body, laid.pulls, giveMm, ctx, kept)
      : survey.hull(jacket, laid.pulls, giveMm, ctx);
    const potentials = cells.carried(hull.mesh, jacket.request.stepMm);
    const free: FreeRequest = {
      ...{ jacket, giveMm, pulls: laid.pulls, rounds: survey.request.effort.fillRounds, mostFillMm3: Infinity },
      ...{ open, leastMm2: 0, runOn: null },
    };
    const freed = withLeftOpen(freeSections(hull, potentials, free, ctx), free, request.fills, ctx);
    return assemble({ freed, laid, request, jacket, nearest, survey: survey.request }, ctx);
  }
  const ground = { jacket, nearest, body, survey, request };
  const { laid, freed, whole } = cheapestFree(ground, ctx);
  const plan = whole ?? assemble({ freed, laid, request, jacket, nearest, survey: survey.request }, ctx);
  if (request.pulls) return plan;
  return { ...plan, sections: plan.sections.map((section, k) => ({ ...section, origin: k })) };
}

/** What plans are sought and proven on. */
interface Ground {
  readonly jacket: Jacket;
  readonly nearest: NearestField;
  readonly body: BodyData;
  readonly survey: SurveyStage;
  readonly request: SearchRequest;
}

/** A suggestion laid again on what none of its pulls reaches, at what it will cost as far as can be told. */
interface Prepared {
  readonly hull: Filled;
  /** The jacket with its hull in its stead. */
  readonly filled: Jacket;
  readonly about: SuggestRequest;
  readonly suggestion: Suggestion;
  readonly hullMm3: number;
  readonly price: number;
}

interface Proven {
  readonly laid: LaidOut;
  readonly freed: FreedSections;
  /** The plan as it is built, where no section bites deeper than the give. */
  readonly whole: ProvenParting | null;
}

/** Pulls that sink by no more than this, as a sine, are made level where there is a board: a lift would be dearer. */
const NEARLY_LEVEL = 0.12;

function levelled(plan: Suggestion): Suggestion {
  const level = (pull: Direction) =>
    pull[2] < 0 && pull[2] > -NEARLY_LEVEL ? normalised([pull[0], pull[1], 0]) : pull;
  return { ...plan, pulls: plan.pulls.map(level) };
}

/** @param most sections it may have at most; those of the suggestion where it is left out */
function prepared(
  { jacket, body, survey, request }: Ground,
  found: Suggestion,
  ctx: JobContext,
  most = found.pulls.length,
): Prepared {
  const plan = survey.request.boardMm === null || request.pulls ? found : levelled(found);
  const { giveMm, prices, pulls, sections, mayLift } = request;
  const leastMm2 = leastSection(jacket, request);
  const { draftDeg, effort, clear } = survey.request;
  const hull = hullOf(jacket, body, plan.pulls, giveMm, ctx);
  const filled: Jacket = { ...jacket, grid: hull.body.grid, phi: hull.body.phi, mesh: hull.mesh };
  const hullMm3 = areaAndVolume(hull.mesh).volumeMm3 - areaAndVolume(jacket.mesh).volumeMm3;
  const bare = surveyRequestFor(filled, draftDeg, [], ctx, effort);
  const onHull = (values: Uint8Array) => carriedOn(bare, survey.request, values);
  const keepsUp = plan.pulls.every((pull) => pull[2] >= 0);
  const about = { ...bare, mayLift: mayLift && !keepsUp, clear: clear && onHull(clear) };
  // Pulls that were chosen keep a section each.
  const suggestion = pulls
    ? plan
    : relabelled(about, plan.pulls, most, sections !== "auto", onHull(plan.label), leastMm2, prices, ctx);
  const price = weighedPrice(suggestion, prices) + liftOf(suggestion, prices, survey) + hullMm3 * prices.fillPerMm3;
  return { hull, filled, about, suggestion, hullMm3, price };
}

/** A small piece has smaller sections than a hand. */
const LEAST_SHARE = 0.1;

/** No section that is suggested is smaller, mm2. */
function leastSection(jacket: Jacket, { leastSectionMm2 }: ProofRequest): number {
  return Math.min(leastSectionMm2, LEAST_SHARE * areaAndVolume(jacket.mesh).areaMm2);
}

/** What is known of the survey's vertices, on another mesh near its own. */
function carriedOn(
  { coarse }: SuggestRequest,
  { nearest, coarse: before }: SuggestRequest,
  values: Uint8Array,
): Uint8Array {
  const p = coarse.positions;
  const at = new Float64Array(3);
  return filledBy(new Uint8Array(p.length / 3), (v) => {
    const triangle = nearest.nearest(at, p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    return values[before.triangles[3 * triangle]];
  });
}

/** One section is enough where it takes no more fill than this over its whole area, mm, */
const ONE_FILL_MM = 1;
/** and where no more than this share of it slides along the jacket all the way. */
const ONE_SLIDES_SHARE = 0.2;

/** Does a shell in one section slip off as a lid does? */
function oneIsEnough(
  { suggestion: { pulls }, filled, hullMm3 }: Prepared,
  { request: { draftDeg } }: SurveyStage,
): boolean {
  const { normals, areasMm2 } = vertexNormals(filled.mesh);
  const [x, y, z] = pulls[0];
  const least = Math.sin((draftDeg * Math.PI) / 180);
  let [all, slides] = [0, 0];
  areasMm2.forEach((areaMm2, v) => {
    all += areaMm2;
    if (x * normals[3 * v] + y * normals[3 * v + 1] + z * normals[3 * v + 2] < least) slides += areaMm2;
  });
  return hullMm3 < ONE_FILL_MM * all && slides < ONE_SLIDES_SHARE * all;
}

/** How much dearer than was thought a plan may become while it is filled before the next one is tried. */
const PATIENCE = 0.25;
/** However dear the next one is thought to be, a plan may not become so many times dearer than was thought. */
const MOST_PATIENCE = 2;
/** Laid again on its hull, a plan is seldom cheaper than this share of what the survey thinks. */
const LEAST_OF_SURVEY = 0.9;
/** The same once the first plan of a piece is laid: of what the survey thinks, corrected by what it erred by there. */
const LEAST_OF_FIRST = 0.97;

/** A plan to be tried; laid again on its hull when its turn comes. */
interface Candidate {
  readonly suggestion: Suggestion;
  /** What it costs by the survey. */
  readonly thought: number;
  readonly prepared: Prepared | null;
}

/**
 * The cheapest plan that is proven to come off, for what is thought of one before is a guess; else the one that is held
 * least. Plans are laid on their hulls and proven in the order of what they may cost (best first: Hart, Nilsson and
 * Raphael 1968).
 */
function cheapestFree(ground: Ground, ctx: JobContext): Weighed {
  const { survey, request } = ground;
  const { prices } = request;
  const tried = new Set<string>();
  let best: Weighed | null = null;
  let most = 0;
  let affordable = Infinity;
  let ownShare: number | null = null;
  const leastOf = ({ thought, prepared }: Candidate) => prepared?.price ?? (ownShare ?? LEAST_OF_SURVEY) * thought;
  const queue = suggestions(survey, request, ctx).map((suggestion): Candidate => {
    const thought = weighedPrice(suggestion, prices) + liftOf(suggestion, prices, survey);
    return { suggestion, thought, prepared: null };
  });
  const tryOne = (plan: Prepared, limit: number) => {
    if (seenBefore(tried, plan)) return;
    most = Math.max(most, plan.suggestion.pulls.length);
    best = lessHeld(best, proven(ground, plan, limit, ctx));
  };
  const comesOff = () => best !== null && best.biteMm <= request.giveMm;
  while (queue.length > 0) {
    queue.sort((a, b) => leastOf(a) - leastOf(b));
    const [next] = queue.splice(0, 1);
    if (!next.prepared) {
      const plan = prepared(ground, next.suggestion, ctx);
      ownShare ??= Math.min(1, (LEAST_OF_FIRST * plan.price) / next.thought);
      const enough = request.pulls || plan.suggestion.pulls.length > 1 || oneIsEnough(plan, survey);
      if (enough) queue.push({ ...next, prepared: plan });
      continue;
    }
    const { price } = next.prepared;
    const following = queue.length > 0 ? leastOf(queue[0]) : Infinity;
    const after = Math.min((1 + PATIENCE) * following, MOST_PATIENCE * price, affordable);
    if (after <= price) break;
    tryOne(next.prepared, after - price);
    if (comesOff()) break;
    // Where only sections hold each other, shells are cast thinner there: a way without is worth little more.
    if (inCircle(best)) affordable = Math.min(affordable, (1 + PATIENCE) * price);
  }
  if (!best) tryOne(prepared(ground, exactSuggestion(survey, request, 2, ctx), ctx), Infinity);
  const careful = survey.request.effort.careful && !request.pulls;
  // Where none of them comes off, more sections are tried one by one.
  for (const count of careful && request.sections === "auto" ? SECTION_COUNTS : []) {
    if (comesOff() || inCircle(best)) break;
    if (count <= most) continue;
    const plan = prepared(ground, exactSuggestion(survey, request, count, ctx), ctx);
    tryOne(plan, (MOST_PATIENCE - 1) * plan.price);
  }
  // At the last two contrary pulls, with all between the outermost walls filled.
  if (careful && !comesOff() && !inCircle(best)) {
    const mayLift = request.mayLift || survey.request.boardMm === null;
    const pair = contraryPair(survey.request, survey.table(ctx).directions, mayLift, prices);
    const auto = request.sections === "auto";
    const pulls = repeated(pair.pulls, request.sections === "auto" ? 2 : request.sections);
    const most = auto ? Math.max(...SECTION_COUNTS) : pulls.length;
    tryOne(prepared(ground, { ...pair, pulls }, ctx, most), Infinity);
  }
  if (!best) throw new Error("There was no plan to choose from.");
  return best;
}

/** Do all sections of a plan come off but for each other? */
function inCircle(plan: Weighed | null): boolean {
  return (plan?.whole?.circle.length ?? 0) > 0;
}

function repeated<T>(values: readonly T[], count: number): T[] {
  return Array.from({ length: count }, (_, k) => values[k % values.length]);
}

/** Were these pulls tried before? More sections along the same pulls come off no better. Notes them. */
function seenBefore(tried: Set<string>, { suggestion: { pulls } }: Prepared): boolean {
  const key = [...new Set(pulls.map((pull) => pull.map((x) => x.toFixed(2)).join()))].sort().join(";");
  const seen = tried.has(key);
  tried.add(key);
  return seen;
}

interface Weighed extends Proven {
  /** The deepest that any section bites, mm; a little over the give where sections or the board hold it. */
  readonly biteMm: number;
}

/** What holds a plan that bites no deeper than the give weighs so much over it, mm. */
const HELD_OTHERWISE_MM = 1e-3;
/** A lift of what cannot be lifted weighs as much as this, mm. */
const LIFTED_MM = 1;

function lessHeld(best: Weighed | null, other: Weighed): Weighed {
  return best && best.biteMm <= other.biteMm ? best : other;
}

/** @param limit what more it may cost than was thought, before it is given up */
function proven(ground: Ground, plan: Prepared, limit: number, ctx: JobContext): Weighed {
  const { jacket, nearest, survey, request } = ground;
  ctx.checkCancelled();
  const { hull, filled, about, suggestion, hullMm3 } = plan;
  const laid = runOn(drawnOut(suggestion, filled, about, ctx.team), filled, hull.nearest(), about);
  const free: FreeRequest = {
    ...{ jacket, giveMm: request.giveMm, pulls: laid.pulls, open: laid.pulls.map(() => false) },
    leastMm2: request.pulls ? 0 : leastSection(jacket, request),
    rounds: survey.request.effort.fillRounds,
    mostFillMm3: hullMm3 + Math.max(0, limit) / request.prices.fillPerMm3,
    runOn: ({ mesh, nearest }, potentials, stays) =>
      runOn({ ...laid, potentials }, { ...jacket, mesh }, nearest(), about, stays).potentials,
  };
  const freed = withLeftOpen(freeSections(hull, laid.potentials, free, ctx), free, request.fills, ctx);
  const biteMm = Math.max(...freed.bites.map((bite) => bite.biteMm));
  if (biteMm > request.giveMm) return { laid, freed, whole: null, biteMm };
  const whole = assemble({ freed, laid, request, jacket, nearest, survey: survey.request }, ctx);
  const lifts = whole.sections.some(({ lifted }) => lifted);
  if (lifts && !request.mayLift) return { laid, freed, whole: null, biteMm: request.giveMm + LIFTED_MM };
  return { laid, freed, whole, biteMm: whole.circle.length > 0 ? request.giveMm + HELD_OTHERWISE_MM : biteMm };
}
