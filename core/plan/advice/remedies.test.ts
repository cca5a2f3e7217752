import { describe, expect, it } from "vitest";
import { plainCoat } from "../../jacket/coat.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { treated } from "../../parting/layout/edit.ts";
import type { LaidLine } from "../../parting/layout/layout.ts";
import { BRIEF } from "../../parting/search/request.ts";
import type { Direction } from "../../space/directions.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { pittedBall, sphere } from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";

const STEP_MM = 7;
const coats = [plainCoat({ id: "coat-1", thicknessMm: 8, thickened: true, pigment: "#cccccc" })];

/** A floating body of revolution parted level at a height, above on the left. */
function parted(radius: number, z: number, pulls: readonly [Direction, Direction]): PlanDocument {
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
    parting: { ...base.parting, layout },
  };
}

function planOf(body: TriangleMesh, document: PlanDocument) {
  const engine = new PlanEngine(body, BRIEF);
  const plan = engine.partingFor(document, TYPICAL_RATES, STEP_MM, ctx);
  return { engine, plan, locked: plan.sections.filter(({ releases }) => !releases) };
}

/** A ball with a deep pit that faces sideways, above the middle. */
const pitted = pittedBall(120, 48, [[Math.cos(0.6), 0, Math.sin(0.6)]]);

const tilted = (deg: number): Direction => [Math.sin((deg * Math.PI) / 180), 0, Math.cos((deg * Math.PI) / 180)];

describe("remedies", () => {
  it("turn the pull back that was put askew, where it comes off only by a fill", () => {
    const document = parted(128, 0, [[0, 0, -1], tilted(60)]);
    const { engine, plan } = planOf(sphere(120, 40), document);
    const [dear] = plan.sections.filter(({ fillMm3 }) => fillMm3 > 2e5);
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, dear.number, ctx);
    const turn = found.find(({ kind }) => kind === "turn");
    expect(turn?.turnDeg).toBeGreaterThan(20);
    expect(turn?.all).toBe(true);
    expect(turn?.moreFillG).toBeLessThan(-300);
    // What is offered is what comes of it.
    for (const remedy of found) {
      const after = engine.partingFor({ ...document, parting: remedy.parting }, TYPICAL_RATES, STEP_MM, ctx);
      expect(after.sections.every(({ releases }) => releases)).toBe(remedy.all);
    }
  });

  it("do without a fill by a plug, where that leaves less fill and locks nothing", () => {
    const document = parted(128, 0, [
      [0, 0, -1],
      [0, 0, 1],
    ]);
    const { engine, locked } = planOf(pitted, document);
    expect(locked).toHaveLength(0);
    const before = engine.partingFor(document, TYPICAL_RATES, STEP_MM, ctx);
    const told: string[] = [];
    const found = engine.remediesFor(document, TYPICAL_RATES, STEP_MM, 2, ctx, ({ kind }) => told.push(kind));
    expect([...told].sort()).toEqual(found.map(({ kind }) => kind).sort());
    expect(told).toContain("plug");
    for (const remedy of found) {
      const after = engine.partingFor({ ...document, parting: remedy.parting }, TYPICAL_RATES, STEP_MM, ctx);
      expect(after.fillMm3).toBeLessThan(before.fillMm3);
      expect(after.sections.every(({ releases }) => releases)).toBe(true);
    }
  });

  it("fill what was left open", () => {
    const filled = parted(128, 0, [
      [0, 0, -1],
      [0, 0, 1],
    ]);
    const { layout } = filled.parting;
    if (!layout) throw new Error("It was laid by hand.");
    const open = { ...filled, parting: { ...filled.parting, layout: treated(layout, 1, { fillWith: "open" }) } };
    const { engine, locked } = planOf(pitted, open);
    expect(locked).toHaveLength(1);
    const found = engine.remediesFor(open, TYPICAL_RATES, STEP_MM, locked[0].number, ctx);
    const fill = found.find(({ kind }) => kind === "fill");
    expect(fill?.all).toBe(true);
  });

  it("are none for a section that releases", () => {
    const document = parted(128, 0, [
      [0, 0, -1],
      [0, 0, 1],
    ]);
    const { engine, locked } = planOf(sphere(120, 40), document);
    expect(locked).toHaveLength(0);
    expect(engine.remediesFor(document, TYPICAL_RATES, STEP_MM, 1, ctx)).toEqual([]);
  });
});
