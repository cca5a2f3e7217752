import { beforeAll, describe, expect, it } from "vitest";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import { guessBySurvey, type LockGuess, type PlanOffer } from "../parting/offer.ts";
import type { SuggestRequest } from "../parting/request.ts";
import type { Direction } from "../survey/directions.ts";
import { moved, mushroom } from "../testing/shapes.ts";
import { newPlan } from "./document.ts";
import { PlanEngine } from "./engine.ts";
import { TYPICAL_RATES } from "./estimate.ts";
import { type ComparedPlan, cheapest, guessOnSurveyMesh, reasonFor } from "./offers.ts";
import { surveyRequestFor } from "./surveyStage.ts";

const document = { ...newPlan(), jacket: { ...newPlan().jacket, smoothingMm: 0 } };
let plans: ComparedPlan[];
const told: number[] = [];

beforeAll(async () => {
  const engine = new PlanEngine(moved(mushroom(60, 260, 130, 40, 96), 0, 0, 0));
  plans = await engine.compare(document, TYPICAL_RATES, 6, ctx, (plan) => {
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
    expect(two.deepMm3).toBe(0);
    for (const { pull } of two.sections) expect(Math.abs(pull[2])).toBeLessThan(0.2);
    expect(cheapest(plans)).toBe(two);
    expect(plans[1].reason).toMatch(/^A third section saves no silicone and costs \d\.\d h\.$/);
  });

  it("are numbered from the lowest section up, as they are built", () => {
    for (const plan of plans) expect(Math.max(...plan.label)).toBe(plan.sections.length - 1);
  });
});

describe("what would lock, of an estimate", () => {
  /** Under its cap a toadstool pulled up is locked, on either side of what may be filled; no part of it fills alone. */
  const coats = [{ thicknessMm: 8, thickened: true, pigment: "#cccccc" }];
  const jacket = makeJacket(
    mushroom(60, 260, 130, 40, 96),
    { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard: true, stepMm: 5 },
    ctx,
  );
  const ringMm3 = Math.PI * ((130 + 8) ** 2 - (60 + 8) ** 2) * (260 - 8);
  const up: readonly Direction[] = [[0, 0, 1]];
  const lockedBy = (fillDepthMm: number, guess: (request: SuggestRequest) => LockGuess) => {
    const request = surveyRequestFor(jacket, fillDepthMm, 1, [], ctx);
    return guess(request)(up, [new Float32Array(request.coarse.positions.length / 3).fill(1)])[0];
  };
  const measured = (request: SuggestRequest) => guessOnSurveyMesh(request, 15, ctx);

  it("is a thin lock too where it is part of a thick one, which the survey alone takes for filled", () => {
    const { fillMm3, deepMm3 } = lockedBy(40, measured);
    expect(deepMm3 / ringMm3).toBeCloseTo(1, 1);
    expect(fillMm3 / ringMm3).toBeLessThan(0.02);
    expect(lockedBy(40, guessBySurvey).fillMm3 / ringMm3).toBeGreaterThan(0.3);
  });

  it("is nothing where all of it is thin enough to fill", () => {
    const { fillMm3, deepMm3 } = lockedBy(80, measured);
    expect(deepMm3).toBe(0);
    expect(fillMm3 / ringMm3).toBeCloseTo(1, 1);
  });
});

describe("reasons", () => {
  const offer = (sections: number, fillMm3: number, deepMm3: number, hours: number) =>
    ({ sections: Array.from({ length: sections }), fillMm3, deepMm3, hours }) as unknown as PlanOffer & {
      hours: number;
    };

  it("say what a section saves and what it costs", () => {
    const plain = (text: string) => text.replace(/\u2009/g, " ");
    expect(plain(reasonFor(offer(3, 1e6, 0, 12), offer(2, 4e6, 0, 7)))).toBe(
      "A third section saves 3.30 kg of silicone and costs 5.0 h.",
    );
    expect(plain(reasonFor(offer(4, 2e6, 0, 9), offer(3, 1e6, 9e5, 10)))).toBe(
      "A fourth section frees what was locked, takes 1.10 kg of silicone and saves 1.0 h.",
    );
    expect(reasonFor(offer(2, 0, 5e5, 7), undefined)).toMatch(/lock too deep/);
  });

  it("choose among those that come off, where any does", () => {
    const locked = { deepMm3: 10, cost: 1 };
    const free = { deepMm3: 0, cost: 5 };
    expect(cheapest([locked, free])).toBe(free);
    expect(cheapest([locked])).toBe(locked);
    expect(cheapest([])).toBeNull();
  });
});
