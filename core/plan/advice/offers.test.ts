import { beforeAll, describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { BRIEF } from "../../parting/search/request.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { moved, mushroom } from "../../testing/shapes.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import { type ComparedPlan, cheapest, type PlanOffer, reasonFor } from "./offers.ts";

const document = { ...newPlan(), jacket: { ...newPlan().jacket, smoothingMm: 0 } };
let plans: ComparedPlan[];
const told: number[] = [];

beforeAll(async () => {
  const engine = new PlanEngine(moved(mushroom(60, 260, 130, 40, 96), 0, 0, 0), BRIEF);
  plans = await engine.compare(document, TYPICAL_RATES, 7.5, ctx, (plan) => {
    told.push(plan.sections.length);
  });
});

describe("plans compared", () => {
  it("are one for every number of sections, told as they are found", () => {
    expect(plans.map((plan) => plan.sections.length)).toEqual([2, 3, 4, 5, 6]);
    expect(told).toEqual([2, 3, 4, 5, 6]);
  });

  it("cost the sum of their parts, and have an area and a pull for every section", () => {
    for (const plan of plans) {
      expect(Object.values(plan.parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(plan.cost, 6);
      for (const section of plan.sections) {
        expect(Math.hypot(...section.pull)).toBeCloseTo(1, 6);
        expect(section.areaMm2).toBeGreaterThan(0);
      }
    }
  });

  it("part a toadstool sideways, free, for two sections; more only add line and time", () => {
    const [two] = plans;
    expect(two.held).toBe(0);
    for (const { pull } of two.sections) expect(Math.abs(pull[2])).toBeLessThan(0.2);
    expect(cheapest(plans)).toBe(two);
    expect(plans[1].reason).toMatch(/^A third section saves no fill and costs \d\.\d h\.$/);
  });

  it("are numbered from the lowest section up, as they are built", () => {
    for (const plan of plans) expect(Math.max(...plan.label)).toBe(plan.sections.length - 1);
  });
});

describe("reasons", () => {
  const offer = (sections: number, fillMm3: number, held: number, hours: number) =>
    ({ sections: Array.from({ length: sections }), fillMm3, held, hours }) as unknown as PlanOffer & {
      hours: number;
    };

  it("say what a section saves and what it costs", () => {
    const plain = (text: string) => text.replace(/\u2009/g, " ");
    expect(plain(reasonFor(offer(3, 1e6, 0, 12), offer(2, 4e6, 0, 7)))).toBe(
      "A third section saves 3.30 kg of fill and costs 5.0 h.",
    );
    expect(plain(reasonFor(offer(4, 2e6, 0, 9), offer(3, 1e6, 1, 10)))).toBe(
      "A fourth section frees what was held, takes 1.10 kg of fill and saves 1.0 h.",
    );
    expect(reasonFor(offer(2, 0, 1, 7), undefined)).toMatch(/some of it is held/);
  });

  it("choose among those that come off, where any does", () => {
    const locked = { held: 1, cost: 1 };
    const free = { held: 0, cost: 5 };
    expect(cheapest([locked, free])).toBe(free);
    expect(cheapest([locked])).toBe(locked);
    expect(cheapest([])).toBeNull();
  });
});
