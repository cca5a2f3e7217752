import { describe, expect, it } from "vitest";
import { jacketThicknessMm } from "../../jacket/coat.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { layoutOf } from "../../parting/layout/layout.ts";
import type { Direction } from "../../space/directions.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { sphere } from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";

const R = 120;
const STEP_MM = 5;
/** A line may be moved by so much where a section would else be held. */
const BESIDE_MM = 4 * STEP_MM;
const usual = newPlan();
const plain: PlanDocument = { ...usual, seat: { ...usual.seat, onBoard: false } };
const outerMm = R + jacketThicknessMm(plain.jacket.coats);
const UP: Direction = [0, 0, 1];
const DOWN: Direction = [0, 0, -1];

/** A ball parted along a ring at some height over its middle, the upper part pulled up, the lower one down. */
function partedAt(heightMm: number, document = plain, pulls = [UP, DOWN]): PlanDocument {
  const radiusMm = Math.sqrt(outerMm ** 2 - heightMm ** 2);
  const points = Array.from({ length: 120 }, (_, k) => (2 * Math.PI * k) / 120).flatMap((turn) => [
    radiusMm * Math.cos(turn),
    radiusMm * Math.sin(turn),
    heightMm,
  ]);
  const layout = layoutOf([{ points, closed: true, left: 0, right: 1 }], pulls);
  return { ...document, parting: { ...document.parting, layout } };
}

/** How deep the lower part bites on its way down, that reaches so far over the middle. */
const biteMm = (heightMm: number) => outerMm - Math.sqrt(outerMm ** 2 - Math.max(0, heightMm) ** 2);

/** An engine that has proven the ball parted round its middle. */
function engineOfHalves() {
  const engine = new PlanEngine(sphere(R, 64));
  engine.run(partedAt(0), TYPICAL_RATES, STEP_MM, ctx);
  return engine;
}

const engine = engineOfHalves();
const standing = (document: PlanDocument) => engine.standing(document, TYPICAL_RATES, STEP_MM, ctx);

describe("lines that were moved, with the fills as they stand", () => {
  it.each([4, 12, 40, 60])("are held as deep as a ring %d mm over the middle of a ball says", (heightMm) => {
    const proof = standing(partedAt(heightMm));
    const [upper, lower] = proof?.sections ?? [];
    expect([upper?.releases, lower?.releases]).toEqual([true, heightMm < 20]);
    // Beside a line, places go to whichever section comes off there.
    expect(lower?.biteMm).toBeGreaterThanOrEqual(biteMm(heightMm - BESIDE_MM));
    expect(lower?.biteMm).toBeLessThan(biteMm(heightMm) + 0.4);
    if (lower?.biteAt && heightMm > 20) expect(Math.abs(lower.biteAt[2] - heightMm)).toBeLessThan(BESIDE_MM);
    expect(proof?.circle).toEqual([]);
  });

  it("come off as they do once their fills are worked out, where they need none", () => {
    const document = partedAt(10);
    const proof = standing(document);
    const { sections } = engineOfHalves().run(document, TYPICAL_RATES, STEP_MM, ctx).parting;
    expect(proof?.sections.every(({ releases }) => releases)).toBe(true);
    expect(sections.every(({ releases, fillMm3 }) => releases && fillMm3 < 1000)).toBe(true);
  });

  it("are told by the pulls they have now", () => {
    const proof = standing(partedAt(0, plain, [UP, [1, 0, 0]]));
    expect(proof?.sections.map(({ releases }) => releases)).toEqual([true, false]);
  });

  it("are not told where the jacket is another, sections are others, a fill is to stay open, or nothing was moved", () => {
    const { coats } = plain.jacket;
    const thicker = { ...plain, jacket: { ...plain.jacket, coats: [{ ...coats[0], thicknessMm: 9 }] } };
    expect(standing(partedAt(4, thicker))).toBeNull();
    expect(standing(partedAt(4, plain, [UP, DOWN, [1, 0, 0]]))).toBeNull();
    const open = partedAt(4, { ...plain, parting: { ...plain.parting, fills: [{ at: [0, 0, 0], kind: "open" }] } });
    expect(standing(open)).toBeNull();
    expect(standing(partedAt(0))).toBeNull();
    expect(standing(plain)).toBeNull();
  });
});
