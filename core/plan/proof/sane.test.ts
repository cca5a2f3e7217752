import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { sphere } from "../../testing/shapes.ts";
import { ImpossibleFigure } from "../../units/index.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import { checked } from "./sane.ts";

describe("figures that leave the core", () => {
  const plan = new PlanEngine(sphere(100, 24)).run(newPlan({ onBoard: false }), TYPICAL_RATES, 12, ctx);

  it("are let through where they can be", () => {
    expect(checked(plan)).toBe(plan);
  });

  it("are an error by name where they are less than nothing, or no number", () => {
    const short = { ...plan, jacket: { ...plan.jacket, siliconeMm3: -1 } };
    expect(() => checked(short)).toThrow(ImpossibleFigure);
    expect(() => checked(short)).toThrow(/silicone of the jacket came out as -1/);
    const [first, ...others] = plan.parting.sections;
    const none = {
      ...plan,
      parting: { ...plan.parting, sections: [{ ...first, areaMm2: Number.NaN }, ...others] },
    };
    expect(() => checked(none)).toThrow(/area of section 1 came out as NaN/);
  });
});
