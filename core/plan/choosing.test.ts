import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Direction } from "../survey/directions.ts";
import { firstFree, type Proving, weighedPrice } from "./choosing.ts";

/** A way to lay a plan: what locks it bare, of it for sure, and what holds it once it is filled. */
interface Way {
  readonly lockMm3: number;
  readonly deep: boolean;
  readonly heldMm3: number;
}
type Plan = readonly Way[];

/** Takes notes of what is laid, and of what is proven. */
function noted() {
  const laid: Way[] = [];
  const proven: Way[] = [];
  const proving: Proving<Plan, Way, Way, Way> = {
    ways: (plan) =>
      plan.map((way) => () => {
        laid.push(way);
        return way;
      }),
    bare: (way) => way,
    hopeless: ({ deep }) => deep,
    alike: (a, b) => a.lockMm3 === b.lockMm3,
    free: (way) => {
      proven.push(way);
      return way;
    },
    holdingMm3: ({ heldMm3 }) => heldMm3,
  };
  return { proving, laid, proven };
}

const way = (lockMm3: number, heldMm3: number, deep = false): Way => ({ lockMm3, heldMm3, deep });

describe("the first plan that comes off", () => {
  it("is taken as soon as it is proven: what comes after it is not even laid", () => {
    const { proving, laid } = noted();
    const plans = [[way(5, 2), way(4, 0)], [way(3, 0)]];
    expect(firstFree(plans, proving).laid).toBe(plans[0][1]);
    expect(laid).toEqual(plans[0]);
  });

  it("is looked for before anything is proven that is held for sure", () => {
    const { proving, proven } = noted();
    const plans = [[way(9, 9, true)], [way(3, 0)]];
    expect(firstFree(plans, proving).laid).toBe(plans[1][0]);
    expect(proven).toEqual([plans[1][0]]);
  });

  it("is looked for before a way is proven that locks like another that is held, but not where the other plan's did", () => {
    const { proving, proven } = noted();
    const plans = [[way(5, 2), way(5, 0)], [way(5, 0)]];
    expect(firstFree(plans, proving).laid).toBe(plans[1][0]);
    expect(proven).toEqual([plans[0][0], plans[1][0]]);
  });
});

describe("where no plan comes off", () => {
  it("says so where there is none at all", () => {
    expect(() => firstFree([], noted().proving)).toThrow("no plan");
  });

  it("takes the one that is held least, what was put off among them, and proves each but once", () => {
    const aWay = fc.record({ lockMm3: fc.nat(3), heldMm3: fc.nat(6), deep: fc.boolean() });
    fc.assert(
      fc.property(fc.array(fc.array(aWay, { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 5 }), (plans) => {
        const { proving, proven } = noted();
        const all = plans.flat();
        const { freed } = firstFree(plans, proving);
        expect(freed.heldMm3).toBe(Math.min(...all.map(({ heldMm3 }) => heldMm3)));
        expect(new Set(proven).size).toBe(proven.length);
        if (freed.heldMm3 > 0) expect(proven).toHaveLength(all.length);
      }),
    );
  });
});

describe("one section more", () => {
  const up: Direction = [0, 0, 1];
  const priced = (energy: number, sections: number) =>
    weighedPrice(
      { energy, handling: 100, pulls: Array.from({ length: sections }, () => up) },
      { setupPerSection: 40, waitPerSection: 10 },
    );

  it("is tried first where it saves more than the survey can be wrong by, and last where it saves hardly anything", () => {
    // Three sections come to 1250, four to 1245 and to 1200.
    expect(priced(945, 4)).toBeGreaterThan(priced(1000, 3));
    expect(priced(900, 4)).toBeLessThan(priced(1000, 3));
  });
});
