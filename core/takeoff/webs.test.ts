import { describe, expect, it } from "vitest";
import { newPlan } from "../plan/document/document.ts";
import { TYPICAL_RATES } from "./rates.ts";
import { takeoff } from "./takeoff.ts";
import { websOf } from "./webs.ts";

/** A slab of clay between two walls 80 mm apart, 200 high and 30 deep: its ends on the jacket, its sides free. */
const slab = {
  kind: "web",
  volumeMm3: 80 * 200 * 30,
  onJacketMm2: 2 * 200 * 30,
  freeMm2: 2 * 80 * 200 + 80 * 30,
} as const;

describe("webs before the first coat", () => {
  it("move silicone from their ends to their sides; web and jacket fill the same space as before", () => {
    const { moreSiliconeMm3, clayMm3 } = websOf([slab], 8);
    expect(moreSiliconeMm3).toBe(8 * (34_400 - 12_000));
    expect(clayMm3 + moreSiliconeMm3).toBe(slab.volumeMm3);
  });

  it("take less silicone where they stand between broad walls", () => {
    const broad = { ...slab, onJacketMm2: 50_000, freeMm2: 12_000 };
    expect(websOf([broad], 8).moreSiliconeMm3).toBe(8 * (12_000 - 50_000));
  });

  it("are all silicone where they are thinner than two jackets, and never less clay than none", () => {
    const thin = { ...slab, volumeMm3: 100_000 };
    expect(websOf([thin], 8)).toEqual({ moreSiliconeMm3: 100_000, clayMm3: 0 });
  });

  it("count for nothing where a fill is something else", () => {
    expect(websOf([{ ...slab, kind: "clay" }], 8)).toEqual({ moreSiliconeMm3: 0, clayMm3: 0 });
  });

  it("are in the plan's silicone, clay, work and order", () => {
    const jacket = { siliconeG: 9000, outerAreaMm2: 1e6, stopsMm3: 0, footClayMm3: 0, coats: [] };
    const sections = (fillParts: readonly (typeof slab)[]) => ({
      ...{ sections: [{ number: 1, areaMm2: 1e6, lineMm: 0 }], partingLengthMm: 0, plugMm3: 0, fillParts },
      ...{ fillMm3: slab.volumeMm3 * fillParts.length, clayMm3: slab.volumeMm3 * fillParts.length },
    });
    const plain = takeoff(newPlan(), jacket, sections([]), TYPICAL_RATES);
    const webbed = takeoff(newPlan(), jacket, sections([slab]), TYPICAL_RATES);
    expect(webbed.siliconeG - plain.siliconeG).toBeCloseTo((8 * 22_400 * 1.1) / 1000, 6);
    const clay = webbed.materials.find(({ use }) => use === "webs");
    expect(clay?.quantity).toBeCloseTo(((slab.volumeMm3 - 8 * 22_400) * 1.9) / 1e6, 6);
    expect(webbed.tasks[0].name).toBe("Webs of clay");
    expect(webbed.handsMin - plain.handsMin).toBeCloseTo((slab.volumeMm3 / 1e6) * TYPICAL_RATES.fillMinPerL, 6);
    expect(webbed.fillsMinor).toEqual([((slab.volumeMm3 / 1e6) * 30 * 4200) / 60]);
  });
});
