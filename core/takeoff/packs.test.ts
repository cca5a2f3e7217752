import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Pack } from "../materials/entries/entry.ts";
import { cheapestPacks } from "./packs.ts";

/** All ways to cover a need, tried one by one. */
function bruteForce(need: number, packs: readonly Pack[]): number {
  let best = Number.POSITIVE_INFINITY;
  const tryFrom = (k: number, left: number, priceMinor: number) => {
    if (left <= 1e-9) {
      best = Math.min(best, priceMinor);
      return;
    }
    if (k === packs.length || priceMinor >= best) return;
    const { from = 1 } = packs[k];
    for (let count = 0; ; count = count === 0 ? from : count + 1) {
      tryFrom(k + 1, left - count * packs[k].amount, priceMinor + count * packs[k].priceMinor);
      if (count * packs[k].amount >= left) return;
    }
  };
  tryFrom(0, need, 0);
  return best;
}

const pack = fc.record(
  {
    amount: fc.integer({ min: 1, max: 25 }),
    priceMinor: fc.integer({ min: 1, max: 5000 }),
    from: fc.integer({ min: 2, max: 5 }),
  },
  { requiredKeys: ["amount", "priceMinor"] },
);

describe("packs", () => {
  it("cover the need at the lowest price there is", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.array(pack, { minLength: 1, maxLength: 3 }), (need, packs) => {
        const bought = cheapestPacks(need, packs);
        if (!bought) throw new Error("There is something to buy it in.");
        expect(bought.amount).toBeGreaterThanOrEqual(need - 1e-9);
        expect(bought.priceMinor).toBe(bruteForce(need, packs));
        const of = (key: "amount" | "priceMinor") =>
          bought.packs.reduce((sum, { pack: p, count }) => sum + count * p[key], 0);
        expect(of("amount")).toBeCloseTo(bought.amount, 9);
        expect(of("priceMinor")).toBe(bought.priceMinor);
      }),
      { numRuns: 200 },
    );
  });

  it("are cheaper by the pallet only where so many are taken", () => {
    const packs = [
      { amount: 25, priceMinor: 2000 },
      { amount: 25, priceMinor: 1500, from: 4 },
    ];
    expect(cheapestPacks(50, packs)).toMatchObject({ amount: 50, priceMinor: 4000 });
    // Four at once cost no more than three one by one.
    expect(cheapestPacks(75, packs)).toMatchObject({ amount: 75, priceMinor: 6000 });
    expect(cheapestPacks(76, packs)).toMatchObject({ amount: 100, priceMinor: 6000 });
    expect(cheapestPacks(130, packs)).toMatchObject({ amount: 150, priceMinor: 9000 });
    // Nothing else is sold: as many as it asks for.
    expect(cheapestPacks(1, packs.slice(1))).toMatchObject({ amount: 100, priceMinor: 6000 });
  });

  it("take a larger one where it is cheaper, and at one price what leaves least over", () => {
    const packs = [
      { amount: 1, priceMinor: 3000 },
      { amount: 5, priceMinor: 12_600 },
      { amount: 20, priceMinor: 45_600 },
    ];
    expect(cheapestPacks(4.2, packs)).toMatchObject({ amount: 5, priceMinor: 12_600 });
    expect(cheapestPacks(34.2, packs)).toMatchObject({ amount: 35, priceMinor: 45_600 + 3 * 12_600 });
    const free = [
      { amount: 5, priceMinor: 0 },
      { amount: 2, priceMinor: 0 },
    ];
    expect(cheapestPacks(3, free)?.amount).toBe(4);
  });

  it("of nothing are none, and there are none where nothing is sold", () => {
    expect(cheapestPacks(0, [{ amount: 1, priceMinor: 5 }])).toEqual({ packs: [], amount: 0, priceMinor: 0 });
    expect(cheapestPacks(3, [])).toBeNull();
  });

  it("of a need far beyond the table still cover it, and no dearer than the cheapest by amount", () => {
    const packs = [
      { amount: 0.25, priceMinor: 100 },
      { amount: 1, priceMinor: 300 },
    ];
    const bought = cheapestPacks(123_456.7, packs);
    expect(bought?.amount).toBeGreaterThanOrEqual(123_456.7);
    expect(bought?.priceMinor).toBeLessThanOrEqual(123_457 * 300);
  });
});
