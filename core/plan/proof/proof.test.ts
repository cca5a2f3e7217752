/** What is told to come off must come off by a prover that shares no code with the core, over bodies nobody drew. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { type Direction, dot, pullDirections } from "../../space/directions.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { Prover } from "../../testing/prover.ts";
import { lumps, lumpy } from "../../testing/random.ts";
import { sphere } from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import type { ProvenParting } from "./parting.ts";

const STEP_MM = 7;
/** What a grid of that step may leave of a bite unseen, mm. */
const SLACK_MM = 2.1;
const PLACES = 80;
const base = newPlan({ onBoard: false });
const ball = sphere(140, 32);
const PULLS = pullDirections(40);

function planned(waves: readonly (readonly [number, number])[], how: Partial<PlanDocument["parting"]>): ProvenParting {
  const document: PlanDocument = {
    ...base,
    jacket: { ...base.jacket, smoothingMm: 10, rimWidthMm: 0 },
    parting: { ...base.parting, ...how },
  };
  return new PlanEngine(lumpy(ball, waves)).partingFor(document, TYPICAL_RATES, STEP_MM, ctx);
}

describe("a section told to come off", () => {
  it("does so by rays, whether its pulls were suggested or typed", () => {
    let released = 0;
    fc.assert(
      fc.property(lumps, fc.nat(PULLS.length - 1), fc.boolean(), (waves, first, typed) => {
        const along = PULLS[first];
        const against = PULLS.find((d) => dot(d, along) < -0.999) ?? PULLS[0];
        const plan = planned(waves, typed ? { pulls: [along, against] } : { sections: 3 });
        const prover = new Prover(plan.filled);
        for (const { skin, pull, releases } of plan.sections) {
          if (!releases) continue;
          released++;
          for (const bite of prover.bites(skin, pull, PLACES)) expect(bite).toBeLessThan(plan.giveMm + 2 * SLACK_MM);
        }
      }),
      { numRuns: 3, seed: 31 },
    );
    expect(released).toBeGreaterThan(5);
  }, 120_000);

  it("is not one that was turned into the body: the prover does find what holds", () => {
    const waves = [
      [20, 1],
      [12, 4],
    ] as const;
    const pulls: Direction[] = [
      [0, 0, 1],
      [0, 0, -1],
    ];
    const plan = planned(waves, { pulls });
    const prover = new Prover(plan.filled);
    for (const { skin, pull } of plan.sections) {
      const wrong = pull.map((x) => -x) as unknown as Direction;
      expect(Math.max(...prover.bites(skin, wrong, 8))).toBeGreaterThan(20);
    }
  });
});
