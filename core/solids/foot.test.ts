import { beforeAll, describe, expect, it } from "vitest";
import { footAreaAt } from "../foot/along.ts";
import { plainContext as ctx } from "../job/context.ts";
import { once } from "../job/once.ts";
import { builtFootprint } from "../plan/builtFoot.ts";
import { builtSections } from "../plan/builtSections.ts";
import { builtWalls } from "../plan/builtWalls.ts";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { PlanEngine } from "../plan/engine.ts";
import type { PlanResult } from "../plan/results/planResult.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";
import { dome, isClosed } from "../testing/shapes.ts";
import { stranger } from "../testing/strangers.ts";
import { footSpaces } from "./foot.ts";
import { withSolids } from "./kernel.ts";

const base = newPlan();
const RIM_MM = 60;
/** The seed of an animal on four legs. */
const ANIMAL = 0;

describe("a foot along the board", () => {
  /** The dome in two halves that part along the plane x = 0. */
  function domeOnFoot(foot: Partial<PlanDocument["shell"]["foot"]>): PlanDocument {
    return {
      ...base,
      jacket: { ...base.jacket, smoothingMm: 0, footClayMm: 0, rimWidthMm: RIM_MM },
      parting: {
        ...base.parting,
        pulls: [
          [1, 0, 0],
          [-1, 0, 0],
        ],
      },
      shell: {
        ...base.shell,
        figures: { thicknessMm: 15, flangeThicknessMm: 20 },
        foot: { ...base.shell.foot, ...foot },
      },
    };
  }
  let result: PlanResult;
  beforeAll(() => {
    result = new PlanEngine(dome(150)).run(domeOnFoot({}), TYPICAL_RATES, 6, ctx);
  });
  /** The dome's halves with another foot: neither lines nor walls depend on it. */
  async function halves(document: PlanDocument) {
    const walls = builtWalls(result.walls, document);
    return { walls, solids: await builtSections(result, document, walls, ctx) };
  }

  /** On a foot of plaster: asked for by more than one test, and made once. */
  const onFoot = once(() => halves(domeOnFoot({ isFlanged: true, beyondMm: 40 })));

  it("is as large as a strip round the jacket, over its rim, and belongs to either half", async () => {
    const bare = await halves(domeOnFoot({ isFlanged: false }));
    const footed = await onFoot();
    const [jacketMm, thickMm, shellMm] = [8, 20, 15];
    const inner = 150 + jacketMm;
    const disc = (radius: number) => Math.PI * radius ** 2;
    // On the board beyond the rim, and over the rim; what is under the shell itself is there already.
    const onBoard = (disc(inner + RIM_MM + 40) - disc(inner + RIM_MM)) * thickMm;
    const overRim =
      (disc(inner + RIM_MM + thickMm) - disc(inner + RIM_MM)) * jacketMm +
      (disc(inner + RIM_MM) - disc(inner + shellMm)) * thickMm;
    footed.solids.forEach(({ volumeMm3, mesh, pieces }, k) => {
      const more = volumeMm3 - bare.solids[k].volumeMm3;
      // The flanges of the wall stand there already.
      expect(more / ((onBoard + overRim) / 2)).toBeGreaterThan(0.93);
      expect(more / ((onBoard + overRim) / 2)).toBeLessThan(1.02);
      expect(pieces).toBe(1);
      expect(isClosed(mesh)).toBe(true);
    });
    await withSolids((bodies) => {
      const [a, b] = footed.solids.map(({ mesh }, k) => bodies.fromMesh(mesh, `section ${k + 1}`));
      // Over the wall between them that is hundredths of a millimetre.
      expect(bodies.and(a, b).volume() / a.volume()).toBeLessThan(1e-4);
    });
    // The rim's silicone lies under it: nothing of a section is in it.
    const p = footed.solids[0].mesh.positions;
    for (let v = 0; v < p.length; v += 3) {
      const off = Math.hypot(p[v], p[v + 1]);
      if (off > inner + 3 && off < inner + RIM_MM - 5) expect(p[v + 2]).toBeGreaterThan(jacketMm - 0.1);
    }
    // What the takeoff reckons with agrees.
    const alongMm = result.parting.sections.map(({ footMm }) => footMm);
    expect(alongMm.reduce((sum, mm) => sum + mm, 0) / (2 * Math.PI * inner)).toBeCloseTo(1, 1);
    const { footAreasMm2 } = result.parting.sections[0];
    const area = footAreaAt(footAreasMm2, RIM_MM + 40);
    expect(Math.abs(area / ((disc(inner + RIM_MM + 40) - disc(inner)) / 2) - 1)).toBeLessThan(0.03);
  });

  it("is as thick as the flanges of its section: one that is laid up otherwise is as if all of it were", async () => {
    const plan = domeOnFoot({ isFlanged: true, beyondMm: 40 });
    const mat = { system: "polyester-mat", figures: { layers: 6, flangeLayers: 9 }, order: [] };
    const walls = builtWalls(result.walls, plan);
    const of = (shell: Partial<PlanDocument["shell"]>) =>
      builtSections(result, { ...plan, shell: { ...plan.shell, ...shell } }, walls, ctx, {
        ids: ["section-1", "section-2"],
      });
    const glass = await of(mat);
    const mixed = await of({ sections: [{ ...mat, section: "section-2" }] });
    expect(glass[0].volumeMm3).toBeLessThan(0.55 * mixed[0].volumeMm3);
    // The first half is of plaster, as it was before.
    [(await onFoot()).solids[0], glass[1]].forEach((alike, k) => {
      expect(Math.abs(mixed[k].volumeMm3 / alike.volumeMm3 - 1)).toBeLessThan(0.01);
      expect(Math.abs(mixed[k].massDryG / alike.massDryG - 1)).toBeLessThan(0.01);
      expect(isClosed(mixed[k].mesh)).toBe(true);
      expect(mixed[k].pieces).toBe(1);
    });
  });

  it("is nothing where a section does not stand on the board", async () => {
    const spaces = await withSolids((bodies) => {
      const outline: [number, number][][] = [
        [
          [0, 0],
          [200, 0],
          [200, 200],
          [0, 200],
        ],
      ];
      const foot = { outline, rimMm: 60, jacketMm: 8, beyondMm: 40, thickMm: 20, boardMm: 0, bolts: [] };
      return footSpaces(bodies, foot, [], 2, () => 0).map((space) => space.volume());
    });
    expect(spaces[0]).toBeGreaterThan(300 * 300 * 20);
    expect(spaces[1]).toBe(0);
  });

  it("hangs together with its section about every leg of an animal", async () => {
    const plan = newPlan();
    const animal = new PlanEngine(stranger(ANIMAL, 260, 5).mesh).run(plan, TYPICAL_RATES, 7, ctx);
    const solids = await builtSections(animal, plan, builtWalls(animal.walls, plan), ctx);
    expect(solids.length).toBeGreaterThan(1);
    expect(solids.map(({ pieces }) => pieces)).toEqual(solids.map(() => 1));
  });

  it("has a hole for every bolt that holds it to the board, none under a flange", async () => {
    const document = domeOnFoot({ isBolted: true, pitchMm: 200 });
    const { walls, solids } = await halves(document);
    const footprint = builtFootprint({ piece: null, jacket: result.parting.filled }, document, walls);
    const bolts = footprint?.bolts ?? [];
    expect(bolts.length).toBe(Math.ceil((2 * Math.PI * (158 + RIM_MM + 20)) / 200));
    for (const { at } of bolts) {
      expect(Math.hypot(...at)).toBeGreaterThan(158 + RIM_MM + 12);
      expect(Math.abs(at[0])).toBeGreaterThan(20);
    }
    await withSolids((bodies) => {
      const through = walls[0].fastenings.bolts.length;
      const genus = solids.map(({ mesh }) => bodies.fromMesh(mesh, "a section").genus());
      expect(genus.reduce((sum, n) => sum + n, 0)).toBe(2 * through + bolts.length);
    });
  });
});
