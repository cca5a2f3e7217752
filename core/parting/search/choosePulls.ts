/**
 * The best set of pulls from a surveyed set: least sum over the jacket of what each patch pays to its cheapest pull.
 * Pairs are tried exhaustively; larger sets start from several good pairs, take the best third and so on, and are
 * improved by swapping one pull at a time until nothing gains.
 */

/** Pairs that larger sets are grown from. */
const SEED_PAIRS = 10;

export interface PullSet {
  readonly pulls: readonly number[];
  readonly cost: number;
}

/** Chooses sets of any size from the same pulls: what it finds out for one size serves the others. */
export class PullChooser {
  private readonly sample: { readonly cost: Float32Array; readonly vertices: number };
  private readonly oneMore: OneMore;
  private readonly seedSize: number;
  private seeds: readonly PullSet[] | null = null;

  /**
   * @param cost directions x vertices
   * @param always pulls that every set has; they may be swapped for no other
   */
  constructor(
    private readonly cost: Float32Array,
    private readonly directions: number,
    private readonly vertices: number,
    private readonly always: readonly number[] = [],
  ) {
    this.sample = sampled(cost, directions, vertices);
    this.oneMore = new OneMore(this.sample.cost, directions, this.sample.vertices);
    this.seedSize = Math.max(2, always.length + 1);
  }

  /**
   * @param size how many pulls a set has
   * @param keep how many sets to hand back at most, best first
   */
  sets(size: number, keep: number): PullSet[] {
    const { cost, vertices, sample, oneMore, always } = this;
    if (size <= this.seedSize)
      return this.grownFrom(keep)
        .map((set) => this.inFull(set.pulls))
        .sort(byCost);
    const sets = new Map<string, PullSet>();
    for (const seed of this.grownFrom(SEED_PAIRS)) {
      let pulls = seed.pulls;
      while (pulls.length < size) pulls = [...pulls, oneMore.to(pulls).pull];
      const improved = swapUntilNoGain(oneMore, pulls, setCost(sample.cost, sample.vertices, pulls), always);
      sets.set(improved.join(), { pulls: improved, cost: setCost(cost, vertices, improved) });
    }
    return [...sets.values()].sort(byCost).slice(0, keep);
  }

  private inFull(pulls: readonly number[]): PullSet {
    return { pulls, cost: setCost(this.cost, this.vertices, pulls) };
  }

  /** The best sets of the least size, at most `keep`: all others grow from them. */
  private grownFrom(keep: number): readonly PullSet[] {
    const { sample, directions, always } = this;
    const most = Math.max(keep, SEED_PAIRS);
    if (!this.seeds || this.seeds.length < keep) {
      this.seeds =
        always.length === 0
          ? bestPairs(sample.cost, directions, sample.vertices, most)
          : bestWith(sample.cost, directions, sample.vertices, always, most);
    }
    return this.seeds.slice(0, keep);
  }
}

function byCost(a: PullSet, b: PullSet): number {
  return a.cost - b.cost || a.pulls.join().localeCompare(b.pulls.join());
}

/** Vertices merged in strides, so that exhaustive search stays quick: about 6000 columns. */
function sampled(cost: Float32Array, directions: number, vertices: number): { cost: Float32Array; vertices: number } {
  const group = Math.max(1, Math.floor(vertices / 6000));
  const count = Math.ceil(vertices / group);
  if (group === 1) return { cost, vertices };
  const out = new Float32Array(directions * count);
  // One vertex of each group stands for it: cost is a minimum over pulls, and groups must not blur that.
  for (let d = 0; d < directions; d++) {
    for (let k = 0; k < count; k++) out[d * count + k] = group * cost[d * vertices + Math.min(vertices - 1, k * group)];
  }
  return { cost: out, vertices: count };
}

function bestPairs(cost: Float32Array, directions: number, vertices: number, keep: number): PullSet[] {
  const best: PullSet[] = [];
  for (let a = 0; a < directions; a++) {
    for (let b = a + 1; b < directions; b++) {
      const limit = best.length < keep ? Infinity : best[best.length - 1].cost;
      let sum = 0;
      const pa = a * vertices;
      const pb = b * vertices;
      for (let v = 0; v < vertices && sum < limit; v++) {
        const ca = cost[pa + v];
        const cb = cost[pb + v];
        sum += ca < cb ? ca : cb;
      }
      if (sum >= limit) continue;
      best.push({ pulls: [a, b], cost: sum });
      best.sort(byCost);
      if (best.length > keep) best.pop();
    }
  }
  return best;
}

/** The sets of some pulls and one more that cost least. */
function bestWith(
  cost: Float32Array,
  directions: number,
  vertices: number,
  always: readonly number[],
  keep: number,
): PullSet[] {
  const sets: PullSet[] = [];
  for (let d = 0; d < directions; d++) {
    if (always.includes(d)) continue;
    const pulls = [...always, d];
    sets.push({ pulls, cost: setCost(cost, vertices, pulls) });
  }
  return sets.sort(byCost).slice(0, keep);
}

function setCost(cost: Float32Array, vertices: number, pulls: readonly number[]): number {
  let sum = 0;
  for (let v = 0; v < vertices; v++) {
    let least = Infinity;
    for (const d of pulls) least = Math.min(least, cost[d * vertices + v]);
    sum += least;
  }
  return sum;
}

/** The one more pull that serves a set best. Sets that differ by their last pull ask the same again and again. */
class OneMore {
  private readonly known = new Map<string, { readonly pull: number; readonly cost: number }>();

  constructor(
    private readonly cost: Float32Array,
    private readonly directions: number,
    private readonly vertices: number,
  ) {}

  /** @returns the pull, and what the set costs with it */
  to(pulls: readonly number[]): { readonly pull: number; readonly cost: number } {
    const key = [...pulls].sort((a, b) => a - b).join();
    const held = this.known.get(key) ?? this.found(pulls);
    this.known.set(key, held);
    return held;
  }

  private found(pulls: readonly number[]): { readonly pull: number; readonly cost: number } {
    const { cost, directions, vertices } = this;
    const least = new Float32Array(vertices).fill(Infinity);
    for (const d of pulls) for (let v = 0; v < vertices; v++) least[v] = Math.min(least[v], cost[d * vertices + v]);
    let pull = pulls[0];
    let bestCost = Infinity;
    for (let d = 0; d < directions; d++) {
      if (pulls.includes(d)) continue;
      let sum = 0;
      for (let v = 0, at = d * vertices; v < vertices && sum < bestCost; v++, at++) {
        sum += least[v] < cost[at] ? least[v] : cost[at];
      }
      if (sum < bestCost) {
        bestCost = sum;
        pull = d;
      }
    }
    return { pull, cost: bestCost };
  }
}

/** A swap that gains less than this share of the cost is none. */
const LEAST_GAIN = 1e-6;

function swapUntilNoGain(
  oneMore: OneMore,
  start: readonly number[],
  startCost: number,
  always: readonly number[],
): number[] {
  let pulls = [...start];
  let current = startCost;
  for (let gained = true; gained; ) {
    gained = false;
    for (let k = 0; k < pulls.length; k++) {
      if (always.includes(pulls[k])) continue;
      const others = pulls.filter((_, i) => i !== k);
      const { pull, cost } = oneMore.to(others);
      if (cost < current * (1 - LEAST_GAIN)) {
        pulls = [...others, pull];
        current = cost;
        gained = true;
      }
    }
  }
  return pulls.sort((a, b) => a - b);
}
