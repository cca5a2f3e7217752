/** What is told to release must release: the same motion measured anew, on lines half as far apart. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import type { Layout } from "../parting/hand/layout.ts";
import { Cells } from "../release/cells.ts";
import { measureLocks } from "../release/locks.ts";
import { type Direction, dot, frameAcross, pullDirections } from "../survey/directions.ts";
import { evenly, lumps, lumpy } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import type { Sections } from "./assemble.ts";
import { newPlan, type PlanDocument } from "./document.ts";
import { PlanEngine } from "./engine.ts";
import { TYPICAL_RATES } from "./estimate.ts";

const STEP_MM = 7;
const SHELL_MM = 20;
const base = newPlan({ onBoard: false });
const ball = sphere(140, 32);
const PULLS = pullDirections(40, false);

function planned(waves: readonly (readonly [number, number])[], how: Partial<PlanDocument["parting"]>): Sections {
  const document: PlanDocument = {
    ...base,
    jacket: { ...base.jacket, smoothingMm: 10, rimWidthMm: 0 },
    parting: { ...base.parting, sections: 3, ...how },
  };
  return new PlanEngine(lumpy(ball, waves)).run(document, TYPICAL_RATES, STEP_MM, ctx).sections;
}

/** Two sections parted by hand along a level round the pull, off the middle by a share of the radius. */
function levelRound(pull: Direction, off: number): Layout {
  const { u, v } = frameAcross(pull);
  const [r, h] = [140 * Math.sqrt(1 - off * off), 140 * off];
  const points = Array.from({ length: 80 }, (_, k) => {
    const [c, s] = [r * Math.cos((k * Math.PI) / 40), r * Math.sin((k * Math.PI) / 40)];
    return [0, 1, 2].map((a) => c * u[a] + s * v[a] + h * pull[a]);
  }).flat();
  const against = pull.map((x) => -x) as unknown as Direction;
  // Round the pull the way a screw goes in along it: the side it points to lies on the left.
  const line = { points, handles: [0, 20, 40, 60], closed: true, left: 0, right: 1 };
  return { sections: [{ pull }, { pull: against }], lines: [line] };
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
  it("is held by nothing at half the step, over lumpy bodies, pulls of any kind, lines by hand and suggested ones", () => {
    let released = 0;
    let held = 0;
    fc.assert(
      fc.property(
        lumps,
        fc.nat(PULLS.length - 1),
        fc.integer({ min: 0, max: 3 }),
        evenly(-0.6, 0.6),
        (waves, first, how, off) => {
          const along = PULLS[first];
          const against = PULLS.find((d) => dot(d, along) < -0.999) ?? PULLS[0];
          const askew = PULLS[(first + 17) % PULLS.length];
          const ways = [{}, { pulls: [along, against] }, { pulls: [along, askew] }, { layout: levelRound(along, off) }];
          const plan = planned(waves, ways[how]);
          const found = heldMm3(plan);
          plan.sections.forEach((section, k) => {
            if (section.releases) {
              released++;
              expect(found[k]).toBeLessThan(GIVES_MM3);
            } else held++;
          });
        },
      ),
      { numRuns: 7, seed: 31 },
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
    const pulls: Direction[] = [
      [0, 0, 1],
      [0, 0, -1],
    ];
    const plan = planned(waves, { pulls });
    const wrong = { ...plan, sections: plan.sections.map((s) => ({ ...s, pull: s.pull.map((x) => -x) as never })) };
    for (const mm3 of heldMm3(wrong)) expect(mm3).toBeGreaterThan(1e5);
  });
});
