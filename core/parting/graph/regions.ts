/**
 * Regions: the connected pieces of a labelling. A section is one region; when a labelling falls into more regions than
 * there are to be sections, the dearest to lose are kept and the others go to the neighbour that takes them at the
 * least price.
 */
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
  const of = new Int32Array(label.length).fill(-1);
  const labels: number[] = [];
  const stack: number[] = [];
  for (let seed = 0; seed < of.length; seed++) {
    if (of[seed] >= 0) continue;
    of[seed] = labels.length;
    stack.push(seed);
    while (stack.length > 0) {
      const v = stack.pop() as number;
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const other = near.list[k];
        if (of[other] >= 0 || label[other] !== label[v]) continue;
        of[other] = labels.length;
        stack.push(other);
      }
    }
    labels.push(label[seed]);
  }
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
  return merge(
    problem,
    regions,
    (left) => left.size > wanted,
    () => false,
  );
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
  const small = (body: Body) => body.areaMm2 < leastMm2;
  return merge(
    problem,
    regions,
    (left) => [...left.values()].some(small),
    (left, k) => !small(left.get(k) as Body),
    areasMm2,
  );
}

/** Merges until no two regions share a label: of each label the region dearest to lose is kept. */
export function onePerLabel(problem: LabellingProblem, regions: Regions): Regions {
  const alone = (bodies: ReadonlyMap<number, Body>, k: number) => {
    const own = (bodies.get(k) as Body).label;
    for (const [other, body] of bodies) if (other !== k && body.label === own) return false;
    return true;
  };
  const twice = (bodies: ReadonlyMap<number, Body>) =>
    new Set([...bodies.values()].map((body) => body.label)).size < bodies.size;
  return merge(problem, regions, twice, alone);
}

/** Merges the cheapest region not spared, as long as `more` says so. */
function merge(
  problem: LabellingProblem,
  regions: Regions,
  more: (bodies: ReadonlyMap<number, Body>) => boolean,
  spared: (bodies: ReadonlyMap<number, Body>, k: number) => boolean,
  areasMm2: Float32Array | null = null,
): Regions {
  const { graph, costs, seamCost } = problem;
  const bodies = new Map<number, Body>();
  regions.label.forEach((label, k) => {
    bodies.set(k, { label, areaMm2: 0, cost: new Float64Array(costs.length), seams: new Map() });
  });
  for (let v = 0; v < graph.vertices; v++) {
    const body = bodies.get(regions.of[v]) as Body;
    if (areasMm2) body.areaMm2 += areasMm2[v];
    for (let l = 0; l < costs.length; l++) body.cost[l] += costs[l][v];
  }
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = regions.of[graph.edges[2 * e]];
    const b = regions.of[graph.edges[2 * e + 1]];
    if (a === b) continue;
    addSeam(bodies.get(a) as Body, b, seamCost[e]);
    addSeam(bodies.get(b) as Body, a, seamCost[e]);
  }
  const into = new Map<number, number>();
  const queue = [...bodies.keys()].map((k) => ({ from: k, ...cheapestMerge(bodies, k) }));
  while (more(bodies)) {
    let best = -1;
    for (let q = 0; q < queue.length; q++) {
      const { from, to, price } = queue[q];
      if (!bodies.has(from) || to < 0 || (best >= 0 && price >= queue[best].price)) continue;
      if (!spared(bodies, from)) best = q;
    }
    if (best < 0) break;
    const { from, to } = queue[best];
    const gone = bodies.get(from) as Body;
    const kept = bodies.get(to) as Body;
    bodies.delete(from);
    into.set(from, to);
    kept.areaMm2 += gone.areaMm2;
    for (let l = 0; l < costs.length; l++) kept.cost[l] += gone.cost[l];
    for (const [other, seam] of gone.seams) {
      const body = bodies.get(other) as Body;
      body.seams.delete(from);
      if (other === to) continue;
      addSeam(kept, other, seam);
      addSeam(body, to, seam);
    }
    for (const entry of queue) {
      if (entry.from === to || kept.seams.has(entry.from)) Object.assign(entry, cheapestMerge(bodies, entry.from));
    }
  }
  const names = [...bodies.keys()];
  const number = new Map(names.map((name, k) => [name, k]));
  const finalOf = (k: number): number => {
    let at = k;
    for (let next = into.get(at); next !== undefined; next = into.get(at)) at = next;
    return number.get(at) as number;
  };
  const renamed = Int32Array.from(regions.label, (_, k) => finalOf(k));
  return { of: regions.of.map((k) => renamed[k]), label: names.map((name) => (bodies.get(name) as Body).label) };
}

function addSeam(body: Body, other: number, seam: number): void {
  body.seams.set(other, (body.seams.get(other) ?? 0) + seam);
}

function cheapestMerge(bodies: ReadonlyMap<number, Body>, k: number): { to: number; price: number } {
  const own = bodies.get(k);
  let to = -1;
  let price = Infinity;
  for (const [other, seam] of own?.seams ?? []) {
    const label = (bodies.get(other) as Body).label;
    const paid = (own as Body).cost[label] - (own as Body).cost[(own as Body).label] - seam;
    if (paid < price || (paid === price && other < to)) {
      price = paid;
      to = other;
    }
  }
  return { to, price };
}
