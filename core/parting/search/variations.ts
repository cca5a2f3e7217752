/** Plans made from plans: a section split, a plug put in a hollow, pulls turned a little; and the plan made without looking. */
import type { JobContext } from "../../job/context.ts";
import { filledBy } from "../../mesh/lists.ts";
import { type Direction, dot } from "../../space/directions.ts";
import { labellingEnergy } from "../graph/energy.ts";
import { splitRegion } from "../graph/split.ts";
import type { TrialStart } from "./alternate.ts";
import { hollowsOf } from "./plugs.ts";
import { handlingCost } from "./price.ts";
import { turnedBy } from "./pullRange.ts";
import type { SearchGround } from "./searchGround.ts";
import { costsAt, label, regionCosts, type Trial } from "./trial.ts";

/** A pull is level where it rises or sinks no more than this, as a sine. */
const LEVEL = 0.02;
/** Hollows of a plan that a plug is tried in. */
const HOLLOWS = 2;
/** A pull is turned for no less than this share of a plan's cost. */
const LEAST_GAIN = 0.003;
/** Turns tried on each pull, degrees, coarse to fine. */
const TURNS_DEG = [5, 2];

/**
 * The cheapest pair of contrary pulls, parted straight across through the middle; null where none was surveyed that needs
 * no lift.
 */
export function straightTrial(ground: SearchGround): Trial | null {
  const { directions } = ground.survey;
  const { positions: p } = ground.request.coarse;
  const { areasMm2 } = ground.pricing;
  let best: Trial | null = null;
  directions.forEach((along, d) => {
    const against = directions.findIndex((other) => dot(other, along) < -1 + 1e-7);
    if (against < d) return;
    // On the board, one of two that are not level could leave only after a lift.
    if (ground.request.boardMm !== null && Math.abs(along[2]) > LEVEL) return;
    const places = Float64Array.from(areasMm2, (_, v) => dot(along, [p[3 * v], p[3 * v + 1], p[3 * v + 2]]));
    const middle = places.reduce((sum, place, v) => sum + place * areasMm2[v], 0) / sumOf(areasMm2);
    const pulls = [d, against].map((k) => ground.pricedOnVertices(k));
    const label = Uint8Array.from(places, (place) => (place >= middle ? 0 : 1));
    const { graph, seamCost } = ground.vertices;
    const energy = labellingEnergy({ graph, costs: pulls.map(({ price }) => price), seamCost }, label);
    if (!best || energy < best.energy) best = { pulls, regions: { of: Int32Array.from(label), label: [0, 1] }, energy };
  });
  return best;
}

/** The plan with its unhandiest section split in two along a short loop; both keep its pull. */
export function handier(ground: SearchGround, trial: Trial): Trial {
  const costs = ground
    .sizes(trial.regions)
    .map((size, r) => (isHeld(trial, r) ? 0 : handlingCost(size, ground.prices)));
  const worst = costs.indexOf(Math.max(...costs));
  return costs[worst] > 0 ? splitInTwo(ground, trial, worst) : trial;
}

/** Is a region of a plan held as it lies? */
export function isHeld({ pulls, regions }: Trial, region: number): boolean {
  return pulls[regions.label[region]].held !== null;
}

/** The plan with one section split in two. */
export function splitInTwo(ground: SearchGround, trial: Trial, region: number): Trial {
  const { graph, seamCost } = ground.vertices;
  const { positions } = ground.request.coarse;
  const regions = splitRegion(graph, seamCost, trial.regions, region, positions, ground.pricing.areasMm2);
  let seam = 0;
  for (let e = 0; e < seamCost.length; e++) {
    const [a, b] = [graph.edges[2 * e], graph.edges[2 * e + 1]];
    const parted = regions.of[a] !== regions.of[b];
    if (parted && trial.regions.of[a] === trial.regions.of[b]) seam += seamCost[e];
  }
  return { pulls: trial.pulls, regions, energy: trial.energy + seam };
}

/** A plan with a plug in each of its dearest hollows, one at a time. */
export function plugStarts(ground: SearchGround, trial: Trial): TrialStart[] {
  const { of, label: labels } = trial.regions;
  const pulls = labels.map((l) => trial.pulls[l]);
  const priceAt = filledBy(new Float32Array(of.length), (v) => pulls[of[v]].price[v]);
  return hollowsOf(of, priceAt, ground.vertices.near, HOLLOWS).map((members): TrialStart => {
    const start = of.slice();
    for (const v of members) start[v] = pulls.length;
    const plug = ground.pricedOnVertices(ground.cheapestFor(Uint32Array.from(members)));
    return { set: [...pulls, plug].map((_, s) => s), pulls: [...pulls, plug], labels: start };
  });
}

/** Turns each region's pull a little to where the region pays least for it, and labels once more. */
export function turned(ground: SearchGround, trial: Trial, sections: number, ctx: JobContext): Trial {
  const pulls = trial.regions.label.map((l) => trial.pulls[l]);
  const costs = regionCosts(trial, (r) => pulls[r].price);
  // Gains below this are the survey's own noise.
  const least = LEAST_GAIN * trial.energy;
  for (const turnDeg of TURNS_DEG) {
    const tried = pulls.flatMap(({ pull }, r) =>
      (costs[r] > 0 && pulls[r].held === null ? sidesOf(pull, turnDeg) : []).map((side) => ({ r, side })),
    );
    const surveyed = ground.pricing.surveyAll(
      tried.map(({ side }) => side),
      ctx,
    );
    for (const { price } of surveyed) ground.holding.rule(price, null);
    tried.forEach(({ r }, k) => {
      const cost = costsAt(trial, surveyed[k].price)[r];
      if (cost >= costs[r] * 0.99 - least) return;
      costs[r] = cost;
      pulls[r] = surveyed[k];
    });
  }
  const next = label(ground.vertices, pulls, sections, trial.regions.of);
  return next.energy < trial.energy ? next : trial;
}

/** Pulls tilted to six sides. */
function sidesOf(pull: Direction, turnDeg: number): Direction[] {
  return Array.from({ length: 6 }, (_, side) => turnedBy(pull, turnDeg, side * 60));
}

function sumOf(values: Float32Array): number {
  return values.reduce((sum, value) => sum + value, 0);
}
