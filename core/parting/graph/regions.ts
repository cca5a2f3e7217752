/**
 * Regions: the connected pieces of a labelling. A section is one region; when a labelling falls into more regions than
 * there are to be sections, the dearest to lose are kept and the others go to the neighbour that takes them at the
 * least price.
 */
import { connectedPieces } from "../../mesh/flood.ts";
import type { LabellingProblem } from "./energy.ts";
import type { Neighbours } from "./graph.ts";

export interface Regions {
  /** Region of each vertex. */
  readonly of: Int32Array;
  /** Label of each region. */
  readonly label: readonly number[];
}

/** The connected pieces of a labelling, numbered in the order of their first vertex. */
export function regionsOf(label: ArrayLike<number>, near: Neighbours): Regions {
  const { of, label: labels } = connectedPieces(label, near);
  return { of, label: labels };
}

/** How many pieces a graph is in. */
export function piecesOf(near: Neighbours): number {
  return regionsOf(new Uint8Array(near.start.length - 1), near).label.length;
}

export interface RegionSize {
  readonly areaMm2: number;
  /** Along whichever axis it reaches farthest. */
  readonly greatestMm: number;
}

/**
 * Area and greatest extent of each region.
 * @param positions xyz of the vertices, mm
 * @param areasMm2 area each vertex stands for
 */
export function regionSizes(
  { of, label }: Regions,
  positions: Float32Array,
  areasMm2: Float32Array,
): readonly RegionSize[] {
  const areas = new Float64Array(label.length);
  const low = new Float32Array(3 * label.length).fill(Infinity);
  const high = new Float32Array(3 * label.length).fill(-Infinity);
  for (let v = 0; v < of.length; v++) {
    const r = of[v];
    areas[r] += areasMm2[v];
    for (let a = 0; a < 3; a++) {
      const at = positions[3 * v + a];
      if (at < low[3 * r + a]) low[3 * r + a] = at;
      if (at > high[3 * r + a]) high[3 * r + a] = at;
    }
  }
  return label.map((_, r) => {
    const extents = [0, 1, 2].map((a) => high[3 * r + a] - low[3 * r + a]);
    return { areaMm2: areas[r], greatestMm: Math.max(...extents) };
  });
}

/** Leaves a label its heaviest region; all its others get another label. */
export function leaveHeaviest(
  label: Uint8Array,
  near: Neighbours,
  weights: Float32Array,
  own: number,
  other: number,
): void {
  const regions = regionsOf(label, near);
  const sums = regions.label.map(() => 0);
  for (let v = 0; v < label.length; v++) if (label[v] === own) sums[regions.of[v]] += weights[v];
  const heaviest = sums.indexOf(Math.max(...sums));
  for (let v = 0; v < label.length; v++) if (label[v] === own && regions.of[v] !== heaviest) label[v] = other;
}

/** A region on its way to being merged: what it would cost under every label, and its seams with its neighbours. */
interface Body {
  label: number;
  areaMm2: number;
  cost: Float64Array;
  seams: Map<number, number>;
}

/**
 * Merges regions, cheapest first, until `wanted` are left: each step gives one region to a neighbouring region and its
 * label, at the price of the change of energy. (Greedy region merging, Beaulieu and Goldberg 1989, on the energy of
 * `labellingEnergy`.)
 * @returns the regions left, at most `wanted` where the graph is connected, renumbered from 0
 */
export function mergeRegions(problem: LabellingProblem, regions: Regions, wanted: number): Regions {
  const merging = new Merging(problem, regions);
  while (merging.bodies.size > wanted && merging.mergeCheapest(() => true));
  return merging.left();
}

/**
 * Merges regions smaller than an area into their neighbours, cheapest first; what has none stays.
 * @param areasMm2 area each vertex stands for
 */
export function mergeSmall(
  problem: LabellingProblem,
  regions: Regions,
  areasMm2: Float32Array,
  leastMm2: number,
): Regions {
  const merging = new Merging(problem, regions, areasMm2);
  while (merging.mergeCheapest(({ areaMm2 }) => areaMm2 < leastMm2));
  return merging.left();
}

/** Merges until no two regions share a label: of each label the region dearest to lose is kept. */
export function onePerLabel(problem: LabellingProblem, regions: Regions): Regions {
  const merging = new Merging(problem, regions);
  const isTwice = (body: Body) => {
    for (const other of merging.bodies.values()) if (other !== body && other.label === body.label) return true;
    return false;
  };
  while (merging.mergeCheapest(isTwice));
  return merging.left();
}

/** Regions that are merged one by one, and what it would cost to give each to the neighbour that takes it for least. */
class Merging {
  /** The regions that are left, by their first numbers. */
  readonly bodies = new Map<number, Body>();
  private readonly queue: { readonly from: number; to: number; price: number }[];
  /** Regions that are gone, and the one that each was given to. */
  private readonly into = new Map<number, number>();

  constructor(
    { graph, costs, seamCost }: LabellingProblem,
    private readonly regions: Regions,
    areasMm2: Float32Array | null = null,
  ) {
    const { bodies } = this;
    regions.label.forEach((label, k) => {
      bodies.set(k, { label, areaMm2: 0, cost: new Float64Array(costs.length), seams: new Map() });
    });
    for (let v = 0; v < graph.vertices; v++) {
      const body = this.body(regions.of[v]);
      if (areasMm2) body.areaMm2 += areasMm2[v];
      for (let l = 0; l < costs.length; l++) body.cost[l] += costs[l][v];
    }
    for (let e = 0; e < graph.seamMm.length; e++) {
      const a = regions.of[graph.edges[2 * e]];
      const b = regions.of[graph.edges[2 * e + 1]];
      if (a === b) continue;
      addSeam(this.body(a), b, seamCost[e]);
      addSeam(this.body(b), a, seamCost[e]);
    }
    this.queue = [...bodies.keys()].map((from) => ({ from, ...this.cheapest(from) }));
  }

  /**
   * Gives the region that goes for least to the neighbour that takes it.
   * @param may may a region go at all?
   * @returns whether there was one
   */
  mergeCheapest(may: (body: Body) => boolean): boolean {
    let best: (typeof this.queue)[number] | null = null;
    for (const entry of this.queue) {
      const body = this.bodies.get(entry.from);
      if (!body || entry.to < 0 || (best && entry.price >= best.price)) continue;
      if (may(body)) best = entry;
    }
    if (best) this.give(best.from, best.to);
    return best !== null;
  }

  /** The regions left, renumbered from 0. */
  left(): Regions {
    const names = [...this.bodies.keys()];
    const number = new Map(names.map((name, k) => [name, k]));
    const renamed = Int32Array.from(this.regions.label, (_, k) => number.get(this.heirOf(k)) as number);
    return { of: this.regions.of.map((k) => renamed[k]), label: names.map((name) => this.body(name).label) };
  }

  private give(from: number, to: number): void {
    const gone = this.body(from);
    const kept = this.body(to);
    this.bodies.delete(from);
    this.into.set(from, to);
    kept.areaMm2 += gone.areaMm2;
    for (let l = 0; l < kept.cost.length; l++) kept.cost[l] += gone.cost[l];
    for (const [other, seam] of gone.seams) {
      const body = this.body(other);
      body.seams.delete(from);
      if (other === to) continue;
      addSeam(kept, other, seam);
      addSeam(body, to, seam);
    }
    for (const entry of this.queue) {
      if (entry.from === to || kept.seams.has(entry.from)) Object.assign(entry, this.cheapest(entry.from));
    }
  }

  /** The region that one was given to in the end; itself where it is left. */
  private heirOf(k: number): number {
    let at = k;
    for (let next = this.into.get(at); next !== undefined; next = this.into.get(at)) at = next;
    return at;
  }

  private body(k: number): Body {
    return this.bodies.get(k) as Body;
  }

  /** The neighbour that takes a region for least, and what that costs; -1 where it has none. */
  private cheapest(k: number): { to: number; price: number } {
    const own = this.bodies.get(k);
    let to = -1;
    let price = Infinity;
    if (!own) return { to, price };
    for (const [other, seam] of own.seams) {
      const paid = own.cost[this.body(other).label] - own.cost[own.label] - seam;
      if (paid < price || (paid === price && other < to)) {
        price = paid;
        to = other;
      }
    }
    return { to, price };
  }
}

function addSeam(body: Body, other: number, seam: number): void {
  body.seams.set(other, (body.seams.get(other) ?? 0) + seam);
}
