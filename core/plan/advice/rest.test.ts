import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { placesAlong, takenInHand } from "../../parting/layout/layout.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { lumpy } from "../../testing/random.ts";
import { sphere } from "../../testing/shapes.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";

const STEP_MM = 8;

describe("the rest suggested round a held section", () => {
  const body = lumpy(sphere(150, 32), [
    [20, 1],
    [12, 4],
    [16, 2.2],
  ]);
  const engine = new PlanEngine(body);
  const floating = newPlan({ onBoard: false });
  const document = { ...floating, parting: { ...floating.parting, sections: 3 as const } };
  const plan = engine.run(document, TYPICAL_RATES, STEP_MM, ctx).parting;
  const taken = takenInHand(plan.drawn, plan.sections);
  const held = {
    ...taken,
    sections: taken.sections.map((section, s) => (s === 1 ? { ...section, hold: "section" as const } : section)),
  };

  it("keeps its pull and its outline, and has as many sections as were asked for", () => {
    const laid = { ...document, parting: { ...document.parting, layout: held } };
    const rest = engine.restFor(laid, TYPICAL_RATES, STEP_MM, 4, ctx);
    expect(rest.sections.length).toBe(4);
    const own = rest.sections.findIndex(({ hold }) => hold === "section");
    expect(rest.sections[own].pull).toEqual(taken.sections[1].pull);
    const outline = (layout: typeof taken, section: number) =>
      layout.lines.filter(({ left, right }) => left === section || right === section);
    const lengthOf = (lines: typeof taken.lines) =>
      lines.reduce((sum, { points, closed }) => sum + (placesAlong(points, closed).at(-1) ?? 0), 0);
    const before = outline(taken, 1);
    const after = outline(rest, own);
    expect(lengthOf(after) / lengthOf(before)).toBeCloseTo(1, 1);
    const old = before.flatMap(({ points }) => points);
    for (const { points } of after) {
      for (let k = 0; k < points.length; k += 3) {
        let away = Infinity;
        for (let o = 0; o < old.length; o += 3)
          away = Math.min(away, Math.hypot(points[k] - old[o], points[k + 1] - old[o + 1], points[k + 2] - old[o + 2]));
        expect(away).toBeLessThan(STEP_MM);
      }
    }
  });

  it("comes off as any plan does", () => {
    const laid = { ...document, parting: { ...document.parting, layout: held } };
    const rest = engine.restFor(laid, TYPICAL_RATES, STEP_MM, 4, ctx);
    const proven = engine.run({ ...laid, parting: { ...laid.parting, layout: rest } }, TYPICAL_RATES, STEP_MM, ctx);
    expect(proven.parting.sections.filter(({ releases }) => !releases)).toEqual([]);
  });
});
