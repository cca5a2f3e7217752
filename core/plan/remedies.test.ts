import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { treated } from "../parting/hand/edit.ts";
import type { LaidLine } from "../parting/hand/layout.ts";
import type { Direction } from "../survey/directions.ts";
import { lathe, pittedBall, sphere } from "../testing/shapes.ts";
import { newPlan, type PlanDocument } from "./document.ts";
import { PlanEngine } from "./engine.ts";
import { TYPICAL_RATES } from "./estimate.ts";

const STEP_MM = 6;
const coats = [{ thicknessMm: 8, thickened: true, pigment: "#cccccc" }];

/** A floating body of revolution parted level at a height, above on the left. */
function parted(radius: number, z: number, pulls: readonly [Direction, Direction], fillDepthMm: number): PlanDocument {
  const base = newPlan({ onBoard: false });
  const points = Array.from({ length: 90 }, (_, k) => {
    const a = (k * Math.PI) / 45;
    return [radius * Math.cos(a), radius * Math.sin(a), z];
  }).flat();
  const line: LaidLine = { points, handles: [0, 22, 45, 67], closed: true, left: 1, right: 0 };
  const layout = { sections: pulls.map((pull) => ({ pull })), lines: [line] };
  return {
    ...base,
    jacket: { ...base.jacket, coats, smoothingMm: 0, rimWidthMm: 0 },
    parting: { ...base.parting, layout, fillDepthMm },
  };
}

function lockedIn(body: TriangleMesh, document: PlanDocument) {
  const engine = new PlanEngine(body);
  const { sections } = engine.sectionsFor(document, TYPICAL_RATES, STEP_MM, ctx);
  const locked = sections.filter(({ releases }) => !releases);
  return { engine, locked };
}

/** A drum with a deep groove round its waist: up and down lock in it. */
const spool = lathe(
  [
    [0, 140],
    [120, 140],
    [120, 60],
    [60, 40],
    [60, -40],
    [120, -60],
    [120, -140],
    [0, -140],
  ],
  64,
);

/** A ball with a deep pit that faces sideways, above the middle. */
const pitted = pittedBall(120, 48, [[Math.cos(0.6), 0, Math.sin(0.6)]]);

const tilted = (deg: number): Direction => [Math.sin((deg * Math.PI) / 180), 0, Math.cos((deg * Math.PI) / 180)];

describe("remedies", () => {
  it("turn the pull back that was put askew, and fill what a small turn leaves", () => {
    const document = parted(128, 0, [[0, 0, -1], tilted(60)], 10);
    const { engine, locked } = lockedIn(sphere(120, 40), document);
    expect(locked).toHaveLength(1);
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
    const turn = found.find(({ kind }) => kind === "turn");
    expect(turn?.turnDeg).toBeGreaterThan(20);
    expect(turn?.all).toBe(true);
    // What is offered is what comes of it.
    for (const remedy of found) {
      const after = engine.sectionsFor({ ...document, parting: remedy.parting }, TYPICAL_RATES, STEP_MM, ctx);
      expect(after.sections.every(({ releases }) => releases)).toBe(remedy.all);
    }
  });

  it("part a plug in a pit that faces another way, in one piece", () => {
    const document = parted(
      128,
      0,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      5,
    );
    const plugOf = (body: TriangleMesh) => {
      const { engine, locked } = lockedIn(body, document);
      expect(locked).toHaveLength(1);
      const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
      const plug = found.find(({ kind }) => kind === "plug");
      // Its ring comes to the lines, which stay as they were laid.
      expect(plug?.parting.layout?.lines.slice(0, 1) ?? []).toEqual(plug ? document.parting.layout?.lines : []);
      return plug && engine.sectionsFor({ ...document, parting: plug.parting }, TYPICAL_RATES, STEP_MM, ctx);
    };
    const plugged = plugOf(pitted);
    expect(plugged?.sections).toHaveLength(3);
    expect(plugged?.sections.every(({ releases }) => releases)).toBe(true);
    expect(plugged?.troubles).toEqual([]);
    // Two pits on two sides want two plugs: one alone frees nothing, and no plug lies in two places.
    const sides = [0.6, Math.PI - 0.6].map((a) => [Math.cos(a), 0, Math.sin(a)]);
    expect(plugOf(pittedBall(120, 48, sides))).toBeUndefined();
  });

  it("split a section that a groove holds all round", () => {
    const document = parted(
      68,
      0,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      20,
    );
    const { engine, locked } = lockedIn(spool, document);
    expect(locked.length).toBeGreaterThan(0);
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
    const lockedAfter = found.map(({ parting }) => {
      const after = engine.sectionsFor({ ...document, parting }, TYPICAL_RATES, STEP_MM, ctx);
      return after.sections.filter(({ releases }) => !releases).length;
    });
    expect(Math.max(...lockedAfter)).toBeLessThan(locked.length);
    // Its upper half comes off sideways in two.
    const split = found.findIndex(({ kind }) => kind === "split");
    expect(found[split].parting.layout?.sections).toHaveLength(3);
    expect(lockedAfter[split]).toBe(locked.length - 1);
    // No single turn frees a groove all round.
    expect(found.some(({ kind }) => kind === "turn")).toBe(false);
    expect(found.some(({ kind }) => kind === "fill")).toBe(true);
  });

  it("move a line that was laid off the middle, as far as it was laid off", () => {
    const up = 90;
    const document = parted(
      Math.sqrt(128 ** 2 - up ** 2),
      up,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      10,
    );
    const { engine, locked } = lockedIn(sphere(120, 40), document);
    expect(locked).toHaveLength(1);
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
    const move = found.find(({ kind }) => kind === "move");
    // The chord from the height it was laid at down to the middle.
    const chordMm = 2 * 128 * Math.sin(Math.asin(up / 128) / 2);
    expect(Math.abs((move?.moveMm ?? 0) - chordMm)).toBeLessThan(2 * STEP_MM);
    expect(move?.all).toBe(true);
    expect(move?.moreFillG).toBeLessThan(1);
  });

  it("do without a fill by a plug, where that leaves less fill and locks nothing", () => {
    const document = parted(
      128,
      0,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      90,
    );
    const { engine, locked } = lockedIn(pitted, document);
    expect(locked).toHaveLength(0);
    const before = engine.sectionsFor(document, TYPICAL_RATES, STEP_MM, ctx);
    const told: string[] = [];
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, 2, ctx, ({ kind }) => told.push(kind));
    expect(told).toEqual(found.map(({ kind }) => kind));
    expect(found).toHaveLength(1);
    for (const remedy of found) {
      const after = engine.sectionsFor({ ...document, parting: remedy.parting }, TYPICAL_RATES, STEP_MM, ctx);
      expect(remedy.kind).toBe("plug");
      expect(after.fillMm3).toBeLessThan(before.fillMm3);
      expect(after.sections.every(({ releases }) => releases)).toBe(true);
    }
  });

  it("fill what was left open, no deeper than fills go", () => {
    const filled = parted(
      128,
      0,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      90,
    );
    const { layout } = filled.parting;
    if (!layout) throw new Error("It was laid by hand.");
    const open = { ...filled, parting: { ...filled.parting, layout: treated(layout, 1, { fillWith: "open" }) } };
    const { engine, locked } = lockedIn(pitted, open);
    expect(locked).toHaveLength(1);
    const found = engine.remediesFor(open, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
    const fill = found.find(({ kind }) => kind === "fill");
    expect(fill?.fillDepthMm).toBe(90);
    expect(fill?.all).toBe(true);
  });

  it("are none for a section that releases", () => {
    const document = parted(
      128,
      0,
      [
        [0, 0, -1],
        [0, 0, 1],
      ],
      20,
    );
    const { engine, locked } = lockedIn(sphere(120, 40), document);
    expect(locked).toHaveLength(0);
    expect(engine.remediesFor(document, TYPICAL_RATES, STEP_MM, 1, ctx)).toEqual([]);
  });
});
