import { beforeAll, describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { ALONE } from "../../job/team.ts";
import { withPull } from "../../parting/layout/edit.ts";
import { type Layout, takenInHand } from "../../parting/layout/layout.ts";
import { NO_ZONES } from "../../survey/zones.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { takeoff } from "../../takeoff/takeoff.ts";
import { mushroom } from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { PlanEngine, type PlanResult } from "../engine.ts";
import { type BundleFigures, bundleOf } from "../results/bundle.ts";
import { figuresAtAGlance, Glance } from "./glance.ts";

const base = newPlan();
const document: PlanDocument = {
  ...base,
  jacket: { ...base.jacket, smoothingMm: 8 },
  parting: { ...base.parting, sections: 2 },
};
const OVER_MM = 8;

describe("a glance", () => {
  let result: PlanResult;
  let figures: BundleFigures;
  let layout: Layout;
  let glance: Glance;
  beforeAll(async () => {
    const engine = new PlanEngine(mushroom(60, 200, 110, 50));
    result = engine.run(document, TYPICAL_RATES, 6, ctx);
    ({ figures } = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE));
    layout = takenInHand(result.parting.drawn, result.parting.sections);
    glance = new Glance(result.parting.surveyMesh, 0, ctx);
  }, 60_000);

  it("at the plan's own lines sees about what was settled", () => {
    const seen = glance.look(layout, NO_ZONES, OVER_MM);
    expect(seen.troubles).toEqual([]);
    expect(seen.partingLengthMm / result.parting.partingLengthMm).toBeCloseTo(1, 1);
    seen.sections.forEach(({ areaMm2, deepMm3 }, k) => {
      expect(areaMm2 / result.parting.sections[k].areaMm2).toBeCloseTo(1, 1);
      expect(deepMm3).toBe(0);
    });
  });

  it("sees the lock of a pull that is turned into the cap", () => {
    const seen = glance.look(withPull(layout, 0, [0, 0, 1]), NO_ZONES, OVER_MM);
    expect(seen.sections[0].fillMm3).toBeGreaterThan(1e5);
    const shown = figuresAtAGlance(figures, seen, withPull(layout, 0, [0, 0, 1]), document, TYPICAL_RATES);
    expect(shown.report.sections[0]).toMatchObject({ number: 1, origin: 0, pull: [0, 0, 1] });
  });

  it("tells at once how much of a line runs through a zone", () => {
    const [x, y, z] = layout.lines[0].points.slice(30, 33);
    const zones = { ...NO_ZONES, keepClear: [x, y, z, 0, 0, 0, 30] };
    const { zoneMm } = glance.look(layout, zones, 0);
    expect(zoneMm.keepClear).toBeGreaterThan(30);
    expect(zoneMm.keepClear).toBeLessThan(130);
    expect(zoneMm.fragile).toBe(0);
  });

  it("takes off the same as the settled plan", () => {
    const seen = glance.look(layout, NO_ZONES, OVER_MM);
    const shown = figuresAtAGlance(figures, seen, layout, document, TYPICAL_RATES);
    // What it does not see stays as it was settled.
    const sections = seen.sections.map((section, k) => {
      const settled = figures.report.sections.find(({ origin }) => origin === k);
      if (!settled) throw new Error("A section is missing.");
      const { bends, footMm, footAreasMm2 } = settled;
      return { ...section, number: k + 1, bends, footMm, footAreasMm2 };
    });
    const { partingLengthMm, fillMm3 } = seen;
    const byHand = takeoff(
      document,
      result.jacket,
      { sections, partingLengthMm, fillMm3, clayMm3: 0, plugMm3: 0 },
      TYPICAL_RATES,
    );
    expect(shown.takeoff.costMinor).toBe(byHand.costMinor);
  });
});
