/** What is told to release must release: the same motion measured anew, on lines half as far apart. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { Cells } from "../release/cells.ts";
import { measureLocks } from "../release/locks.ts";
import { type Direction, dot, pullDirections } from "../survey/directions.ts";
import { lumps, lumpy } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import { newPlan, type PlanDocument } from "./document.ts";
import { PlanEngine } from "./engine.ts";
import { TYPICAL_RATES } from "./estimate.ts";
import type { Sections } from "./sections.ts";

const STEP_MM = 7;
const SHELL_MM = 20;
const base = newPlan({ onBoard: false });
const ball = sphere(140, 32);
const PULLS = pullDirections(40, false);

function planned(waves: readonly (readonly [number, number])[], pulls: readonly Direction[] | null): Sections {
  const document: PlanDocument = {
    ...base,
    jacket: { ...base.jacket, smoothingMm: 10, rimWidthMm: 0 },
    parting: { ...base.parting, sections: 3, pulls },
  };
  return new PlanEngine(lumpy(ball, waves)).run(document, TYPICAL_RATES, STEP_MM, ctx).sections;
}

/** What holds each section when it is moved out, by lines at half the step, mm3. */
function heldMm3({ sections, filled, cells, cellOf }: Sections): number[] {
  const requests = sections.map(({ pull }, k) => ({
    jacket: filled,
    section: cellOf[k],
    pull,
    spacingMm: STEP_MM / 2,
    alongMm: STEP_MM / 2,
    boardMm: null,
    fillDepthMm: 40,
    residueMm: 2 * STEP_MM,
    shellMm: SHELL_MM,
  }));
  // The cells are read back from their data, as another thread would.
  return measureLocks(requests, new Cells(cells.data), ctx).map((lock) => lock.holdingMm3);
}

/** A cubic centimetre: what rubber gives over a whole section. */
const GIVES_MM3 = 1000;

describe("a section told to release", () => {
  it("is held by nothing at half the step, over lumpy bodies, pulls of any kind and suggested ones", () => {
    let released = 0;
    let held = 0;
    fc.assert(
      fc.property(lumps, fc.nat(PULLS.length - 1), fc.integer({ min: 0, max: 2 }), (waves, first, how) => {
        const along = PULLS[first];
        const against = PULLS.find((d) => dot(d, along) < -0.999) ?? PULLS[0];
        const askew = PULLS[(first + 17) % PULLS.length];
        const plan = planned(waves, how === 0 ? null : how === 1 ? [along, against] : [along, askew]);
        const found = heldMm3(plan);
        plan.sections.forEach((section, k) => {
          if (section.releases) {
            released++;
            expect(found[k]).toBeLessThan(GIVES_MM3);
          } else held++;
        });
      }),
      { numRuns: 10, seed: 31 },
    );
    // The draw has both kinds, or it shows nothing.
    expect(released).toBeGreaterThan(5);
    expect(held).toBeGreaterThan(2);
  });

  it("is not one that was turned into the body: the measure does find what holds", () => {
    const waves = [
      [20, 1],
      [12, 4],
      [16, 2.2],
    ] as const;
    const plan = planned(waves, [
      [0, 0, 1],
      [0, 0, -1],
    ]);
    const wrong = { ...plan, sections: plan.sections.map((s) => ({ ...s, pull: s.pull.map((x) => -x) as never })) };
    for (const mm3 of heldMm3(wrong)) expect(mm3).toBeGreaterThan(1e5);
  });
});
