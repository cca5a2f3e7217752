import { beforeAll, describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { lathe } from "../../mesh/lathe.ts";
import { type FillChoice, withChoice } from "../../release/fills.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { newPlan } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import type { ProvenParting } from "./parting.ts";

const STEP_MM = 5;
/** A drum with two grooves, 30 mm deep: pulled up and down from its middle, each is filled. */
const GROOVED: [number, number][] = [
  [0, 160],
  [80, 160],
  [80, 110],
  [50, 102],
  [50, 58],
  [80, 50],
  [80, -50],
  [50, -58],
  [50, -102],
  [80, -110],
  [80, -160],
  [0, -160],
];
const base = newPlan({ onBoard: false });
const engine = new PlanEngine(lathe(GROOVED, 64));

function planWith(fills: readonly FillChoice[]): ProvenParting {
  const parting = {
    ...base.parting,
    pulls: [
      [0, 0, 1],
      [0, 0, -1],
    ] as const,
    fills,
  };
  return engine.partingFor(
    { ...base, jacket: { ...base.jacket, smoothingMm: 0 }, parting },
    TYPICAL_RATES,
    STEP_MM,
    ctx,
  );
}

describe("what was chosen by hand for single fills", () => {
  let usual: ProvenParting;

  beforeAll(() => {
    usual = planWith([]);
  });

  it("stands beside what suits them by themselves: both grooves are too deep for silicone", () => {
    const [one, other] = usual.fillParts;
    expect(usual.fillParts.map(({ kind, chosen }) => [kind, chosen])).toEqual([
      [one.kind, false],
      [other.kind, false],
    ]);
    expect(one.kind).not.toBe("silicone");
    expect(usual.sections.every(({ releases }) => releases)).toBe(true);
  });

  it("makes that one of something else, and counts it so", () => {
    const [{ at, volumeMm3 }, other] = usual.fillParts;
    const plan = planWith([{ at, kind: "plug" }]);
    expect(plan.fillParts[0]).toMatchObject({ kind: "plug", chosen: true });
    expect(plan.fillParts[1]).toMatchObject({ kind: other.kind, chosen: false });
    expect(plan.plugMm3 / volumeMm3).toBeCloseTo(1, 6);
    expect(plan.clayMm3 / (usual.clayMm3 - volumeMm3)).toBeCloseTo(1, 6);
  });

  it("leaves it open: what cannot leave without it is held there", () => {
    const [{ at, volumeMm3 }] = usual.fillParts;
    const plan = planWith([{ at, kind: "open" }]);
    expect(plan.fillMm3 / (usual.fillMm3 - volumeMm3)).toBeCloseTo(1, 1);
    const [held] = plan.sections.filter(({ releases }) => !releases);
    // The lip stands out as far as the groove is deep, and the jacket's coat rounds it.
    expect(held.biteMm).toBeGreaterThan(15);
    expect(held.biteMm).toBeLessThan(31);
    expect(Math.sign(held.biteAt?.[2] ?? 0)).toBe(Math.sign(at[2]));
  });
});

describe("a choice made again", () => {
  it("takes the place of the one for the same fill, and of no other", () => {
    const here: FillChoice = { at: [0, 0, 100], kind: "clay" };
    const there: FillChoice = { at: [0, 0, 200], kind: "open" };
    const both = withChoice([here], there.at, "open");
    expect(both).toEqual([here, there]);
    expect(withChoice(both, [3, 0, 104], "plug")).toEqual([there, { at: [3, 0, 104], kind: "plug" }]);
    expect(withChoice(both, there.at, null)).toEqual([here]);
  });
});
