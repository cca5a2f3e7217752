/** A plan in the making: connected regions of the survey's mesh, each with a pull, and what it costs. */
import { filledBy } from "../../mesh/lists.ts";
import type { Direction } from "../../space/directions.ts";
import { labellingEnergy } from "../graph/energy.ts";
import { labelVertices } from "../graph/labelling.ts";
import { mergeRegions, type Regions, regionsOf } from "../graph/regions.ts";
import type { PricedPull, Seams } from "./pricing.ts";

export interface Suggestion {
  /** The pull of each section; two sections may share one. */
  readonly pulls: readonly Direction[];
  /** Section of each vertex of the coarse mesh. */
  readonly label: Uint8Array;
  /** What fill and lines cost by the survey, in the prices' unit; sections' own price is not in it. */
  readonly energy: number;
  /** What its sections cost in handling: over the lift limit, over the handling size. */
  readonly handling: number;
  /** Of each section the held one it is; null where it was looked for. */
  readonly held: readonly (number | null)[];
  /** The price of each section's pull at every vertex. */
  readonly prices: readonly Float32Array[];
}

/** A plan in the making: regions whose labels number the pulls. */
export interface Trial {
  readonly pulls: readonly PricedPull[];
  readonly regions: Regions;
  readonly energy: number;
}

/** Labels for the pulls, in at most `sections` connected pieces. */
export function label(seams: Seams, pulls: readonly PricedPull[], sections: number, start?: ArrayLike<number>): Trial {
  const problem = { graph: seams.graph, costs: pulls.map(({ price }) => price), seamCost: seams.seamCost };
  const labels = labelVertices(problem, start);
  const regions = mergeRegions(problem, regionsOf(labels, seams.near), sections);
  return { pulls, regions, energy: labellingEnergy(problem, labelsOfRegions(regions)) };
}

/** The label of each vertex's region. */
export function labelsOfRegions(regions: Regions): Uint8Array {
  const { of, label } = regions;
  return filledBy(new Uint8Array(of.length), (v) => label[of[v]]);
}

/** For every region the pull that costs it least: one pull a region. */
export function bestPulls(trial: Trial, priced: readonly PricedPull[]): PricedPull[] {
  const { label } = trial.regions;
  const best = label.map((l) => trial.pulls[l]);
  const least = regionCosts(trial, (r) => best[r].price);
  for (const candidate of priced) {
    costsAt(trial, candidate.price).forEach((value, r) => {
      if (value >= least[r] * (1 - 1e-9)) return;
      least[r] = value;
      best[r] = candidate;
    });
  }
  return best;
}

/** What each region would pay at the same price. */
export function costsAt({ regions: { of, label } }: Trial, price: Float32Array): Float64Array {
  const sums = new Float64Array(label.length);
  for (let v = 0; v < of.length; v++) sums[of[v]] += price[v];
  return sums;
}

/** What each region pays at its own price. */
export function regionCosts(trial: Trial, priceOf: (region: number) => Float32Array): number[] {
  const { of, label } = trial.regions;
  const prices = label.map((_, r) => priceOf(r));
  const sums = label.map(() => 0);
  for (let v = 0; v < of.length; v++) sums[of[v]] += prices[of[v]][v];
  return sums;
}

export function suggestionOf(trial: Trial): Suggestion {
  return {
    pulls: trial.regions.label.map((l) => trial.pulls[l].pull),
    label: Uint8Array.from(trial.regions.of),
    energy: trial.energy,
    handling: 0,
    held: trial.regions.label.map((l) => trial.pulls[l].held),
    prices: trial.regions.label.map((l) => trial.pulls[l].price),
  };
}
