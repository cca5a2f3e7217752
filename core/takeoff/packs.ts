/**
 * What to buy so that a need is covered at the lowest price, from packs of given sizes: the unbounded covering knapsack, solved
 * exactly by dynamic programming over whole units (Bellman 1957), the greatest common divisor of all packs at a time.
 */
import type { Pack } from "../materials/entries/entry.ts";

export interface Bought {
  readonly packs: readonly { readonly pack: Pack; readonly count: number }[];
  /** All together, in the material's unit, and in minor units of money. */
  readonly amount: number;
  readonly priceMinor: number;
}

/** Packs are told apart to a thousandth of a unit. */
const FINE = 1000;
/** No larger table is filled: what is left over it is taken in the packs that are cheapest by amount. */
const MOST_CELLS = 60_000;

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

/** Answers to needs that were asked before, by the packs that are sold: whoever compares plans asks the same many times. */
const answered = new WeakMap<readonly Pack[], Map<number, Bought | null>>();
/** So many are kept for the same packs. */
const MOST_ANSWERS = 64;

/** @returns null where there is nothing to buy it in */
export function cheapestPacks(need: number, packs: readonly Pack[]): Bought | null {
  const answers = answered.get(packs) ?? new Map<number, Bought | null>();
  answered.set(packs, answers);
  const held = answers.get(need);
  if (held !== undefined) return held;
  const bought = bestPacks(need, packs);
  if (answers.size >= MOST_ANSWERS) answers.clear();
  answers.set(need, bought);
  return bought;
}

function bestPacks(need: number, packs: readonly Pack[]): Bought | null {
  const sold = packs.filter(({ amount }) => amount > 0);
  if (need <= 0) return { packs: [], amount: 0, priceMinor: 0 };
  if (sold.length === 0) return null;
  const plain = sold.filter(({ from = 1 }) => from <= 1);
  const breaks = sold.filter(({ from = 1 }) => from > 1);
  // A price that asks for so many at once is either not taken, or taken that often at least: every choice of those is tried.
  let best: Bought | null = null;
  for (let choice = 0; choice < 2 ** breaks.length; choice++) {
    const taken = breaks.filter((_, k) => choice & (1 << k));
    const bought = withTaken(need, plain, taken);
    if (bought && (!best || isBetter(bought, best))) best = bought;
  }
  return best;
}

/** At the same price, what leaves least over. */
function isBetter(a: Bought, b: Bought): boolean {
  return a.priceMinor < b.priceMinor || (a.priceMinor === b.priceMinor && a.amount < b.amount);
}

/** Some prices taken as often as they ask for, the rest at the lowest price there is then. */
function withTaken(need: number, plain: readonly Pack[], taken: readonly Pack[]): Bought | null {
  const atOnce = taken.map((pack) => ({ pack, count: pack.from ?? 1 }));
  const amount = atOnce.reduce((sum, { pack, count }) => sum + count * pack.amount, 0);
  const open = [...plain, ...taken];
  if (open.length === 0) return null;
  const rest = covered(need - amount, open);
  const counts = open.map(
    (pack) =>
      (atOnce.find((each) => each.pack === pack)?.count ?? 0) + (rest.find((each) => each.pack === pack)?.count ?? 0),
  );
  const all = open.map((pack, k) => ({ pack, count: counts[k] })).filter(({ count }) => count > 0);
  return {
    packs: all,
    amount: all.reduce((sum, { pack, count }) => sum + count * pack.amount, 0),
    priceMinor: all.reduce((sum, { pack, count }) => sum + count * pack.priceMinor, 0),
  };
}

/** A need covered at the lowest price by packs of which any number can be bought. */
function covered(need: number, sold: readonly Pack[]): { readonly pack: Pack; readonly count: number }[] {
  if (need <= 0) return [];
  const sizes = sold.map(({ amount }) => Math.round(amount * FINE));
  const step = sizes.reduce(divisor);
  const cells = sizes.map((size) => size / step);
  const wanted = Math.ceil((need * FINE) / step - 1e-6);
  const best = cells.map((_, k) => k).sort((a, b) => sold[a].priceMinor / cells[a] - sold[b].priceMinor / cells[b])[0];
  // Far from the end only the pack that is cheapest by amount is taken: any other is exchanged for it within a round of sizes.
  const bulk = Math.max(0, Math.ceil((wanted - MOST_CELLS) / cells[best]));
  const left = Math.max(0, wanted - bulk * cells[best]);
  const cost = new Float64Array(left + 1);
  const amount = new Float64Array(left + 1);
  const taken = new Int16Array(left + 1).fill(-1);
  for (let n = 1; n <= left; n++) {
    cost[n] = Number.POSITIVE_INFINITY;
    for (let k = 0; k < cells.length; k++) {
      const before = Math.max(0, n - cells[k]);
      const price = cost[before] + sold[k].priceMinor;
      const whole = amount[before] + cells[k];
      // At the same price, what leaves least over.
      if (price > cost[n] || (price === cost[n] && whole >= amount[n])) continue;
      [cost[n], amount[n], taken[n]] = [price, whole, k];
    }
  }
  const counts = sold.map(() => 0);
  counts[best] += bulk;
  for (let n = left; n > 0; n = Math.max(0, n - cells[taken[n]])) counts[taken[n]]++;
  return sold.map((pack, k) => ({ pack, count: counts[k] })).filter(({ count }) => count > 0);
}
