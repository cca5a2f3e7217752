import { describe, expect, it } from "vitest";
import { BRIEF, THOROUGH } from "../../parting/search/request.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { newPlan } from "../document/document.ts";
import { resultKeyText } from "./keys.ts";
import { coarseStepMm, effortOf, FINENESSES, settledStepMm } from "./steps.ts";

const plan = newPlan();
const M2 = 1e6;

describe("the step a plan is settled at", () => {
  it("keeps the nodes of the band within what each fineness allows", () => {
    const reachMm = 8 + plan.jacket.smoothingMm;
    const most = { quick: 0.5e6, usual: 1.2e6, fine: 4e6 };
    for (const fineness of FINENESSES) {
      for (const area of [0.2 * M2, 1 * M2, 4 * M2]) {
        const step = settledStepMm(plan, area, fineness);
        const nodes = (area * (2 * reachMm + 40)) / step ** 3;
        if (step < 12) expect(nodes).toBeLessThanOrEqual(most[fineness]);
        // Not coarser than it must be: half a millimetre less would be too many, but for a quick plan of what is small.
        if (step > 1.5 && step < 12 && (fineness !== "quick" || area >= M2))
          expect((area * (2 * reachMm + 40)) / (step - 0.5) ** 3).toBeGreaterThan(most[fineness]);
      }
    }
  });

  it("is finer the finer it is wanted, to the half millimetre, and never beyond what a coat is thick", () => {
    const steps = FINENESSES.map((fineness) => settledStepMm(plan, 3 * M2, fineness));
    expect(steps).toEqual([...steps].sort((a, b) => b - a));
    expect(new Set(steps).size).toBe(steps.length);
    for (const step of steps) expect((2 * step) % 1).toBe(0);
    expect(settledStepMm(plan, 100, "fine")).toBe(1.5);
    expect(settledStepMm(plan, 1e9, "usual")).toBe(12);
  });

  it("is no finer for a quick plan of a small piece than that asks for", () => {
    expect(settledStepMm(plan, 0.25 * M2, "quick")).toBe(6);
    expect(settledStepMm(plan, 0.04 * M2, "quick")).toBeLessThan(3);
    expect(settledStepMm(plan, 0.25 * M2, "usual")).toBeLessThan(4);
  });

  it("is several times that for a first answer", () => {
    expect(coarseStepMm(5)).toBe(16);
  });
});

describe("how hard is looked", () => {
  it("goes with the fineness", () => {
    expect([effortOf("quick"), effortOf("usual"), effortOf("fine")]).toEqual([BRIEF, THOROUGH, THOROUGH]);
  });
});

describe("the key of a result", () => {
  const rates = TYPICAL_RATES;
  const key = (document = plan, fineness: "quick" | "usual" = "usual", own = rates) =>
    resultKeyText("a".repeat(64), document, { rates: own, fineness }, 7);

  it("is another for whatever the geometry depends on", () => {
    const others = [
      key({ ...plan, seat: { ...plan.seat, turnDeg: 5 } }),
      key({ ...plan, jacket: { ...plan.jacket, smoothingMm: 21 } }),
      key({ ...plan, parting: { ...plan.parting, sections: 3 } }),
      key({ ...plan, brief: { ...plan.brief, edition: 2 } }),
      key(plan, "quick"),
      key(plan, "usual", { ...rates, hourMinor: 3100 }),
    ];
    expect(new Set([key(), ...others]).size).toBe(others.length + 1);
  });

  it("is the same for what changes nothing: pigments, the seam, the pull that is looked along", () => {
    const coats = plan.jacket.coats.map((coat) => ({ ...coat, pigment: "#000000" }));
    expect(key({ ...plan, jacket: { ...plan.jacket, coats } })).toBe(key());
    expect(key({ ...plan, survey: { ...plan.survey, pull: [0, 0, 1] } })).toBe(key());
    const seam = { ...plan.jacket.seam, points: [0, 0, 0, 0, 0, 9] };
    expect(key({ ...plan, jacket: { ...plan.jacket, seam } })).toBe(key());
  });
});
