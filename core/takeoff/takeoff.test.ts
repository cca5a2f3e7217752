import { beforeAll, describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { ALONE } from "../job/team.ts";
import { materialName } from "../materials/catalogue.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { ScanProblem } from "../mesh/problem.ts";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { PlanEngine, type PlanResult } from "../plan/engine.ts";
import { bundleOf, type PlanBundle } from "../plan/results/bundle.ts";
import { planCautions } from "../plan/results/cautions.ts";
import { figuresOf } from "../plan/results/figures.ts";
import { seatPiece } from "../plan/stages/seat.ts";
import { shellThicknesses } from "../shell/index.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { partingPrices } from "./prices.ts";
import { TYPICAL_RATES } from "./rates.ts";
import { type Takeoff, takeoff } from "./takeoff.ts";

const document: PlanDocument = {
  ...newPlan(),
  parting: {
    ...newPlan().parting,
    pulls: [
      [1, 0, 0],
      [-1, 0, 0],
    ],
  },
};

let result: PlanResult;
let bundle: PlanBundle;
let own: Takeoff;
beforeAll(async () => {
  const ball = moved(sphere(120, 48), 0, 0, 100);
  result = new PlanEngine(ball).run(document, TYPICAL_RATES, 5, ctx);
  own = takeoff(document, result.jacket, result.parting, TYPICAL_RATES);
  bundle = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
});

describe("the takeoff", () => {
  it("weighs poles with their section, and buys foam where ribs are laid over it", () => {
    const { shell } = document;
    const { report } = bundle.figures;
    const of = (kind: "poles" | "ribs" | "none", system: string) => {
      const plan: PlanDocument = {
        ...document,
        shell: { ...shell, system, ribs: { ...shell.ribs, kind, spanMm: 200 } },
      };
      const spans = {
        widestMm: [400, 400],
        ribs: [{ section: 1, points: [], normals: [], lengthMm: 700, spanMm: 400 }],
        further: [{ section: 1, lengthMm: 600, spanMm: 190, turnRad: 0 }],
      };
      return figuresOf({ ...bundle.figures, report: { ...report, spans } }, plan, TYPICAL_RATES).takeoff;
    };
    const [poled, bare] = [of("poles", "polyester-mat"), of("none", "polyester-mat")];
    // What stands of it between the flanges, some 640 mm, at 0.875 g/mm; a stronger shell's rib alone.
    expect(poled.sectionsLaid[0].coresG / 0.875).toBeGreaterThan(600);
    expect(poled.sectionsLaid[0].coresG / 0.875).toBeLessThan(700);
    expect(poled.sectionMassesG[0] - bare.sectionMassesG[0]).toBeGreaterThan(poled.sectionsLaid[0].coresG);
    expect(poled.sectionMassesG[1]).toBe(bare.sectionMassesG[1]);
    const foam = ({ materials }: typeof poled) => materials.find(({ material }) => material === "foam-board")?.quantity;
    expect(foam(of("ribs", "polyester-mat"))).toBeGreaterThan(0);
    expect(foam(of("ribs", "gypsum-jute"))).toBeUndefined();
    expect(foam(poled)).toBeUndefined();
  });

  it("buys the poles of all ribs, and cautions about those that plaster spoils", () => {
    const { shell } = document;
    const poled = (kind: "poles" | "ribs", pole: "stainless" | "steel" | "timber", system = shell.system) => {
      const plan: PlanDocument = {
        ...document,
        shell: { ...shell, system, ribs: { ...shell.ribs, kind, pole, spanMm: 200 } },
      };
      const spans = {
        widestMm: [400, 400],
        ribs: [700, 500].map((lengthMm) => ({ section: 1, points: [], normals: [], lengthMm })),
        further: [],
      };
      const figures = figuresOf(
        { ...bundle.figures, report: { ...bundle.figures.report, spans } },
        plan,
        TYPICAL_RATES,
      );
      const poles = figures.takeoff.materials.find(({ material }) => material === "poles");
      return { metres: poles?.quantity ?? 0, told: planCautions(figures, plan).filter((text) => /poles/.test(text)) };
    };
    // Each ends half its width, 30 mm, before the flanges it runs to.
    const { flangeMm } = shellThicknesses(shell);
    const metres = (700 + 500 - 4 * (flangeMm + 30)) / 1000;
    expect(poled("poles", "stainless")).toEqual({ metres: expect.closeTo(metres, 9), told: [] });
    expect(poled("ribs", "steel")).toEqual({ metres: 0, told: [] });
    expect(poled("poles", "steel").told.join()).toMatch(/rust/);
    expect(poled("poles", "timber").told.join()).toMatch(/rot/);
    expect(poled("poles", "timber", "polyester-mat").told).toEqual([]);
  });

  it("has a task for every coat and every section, in the order they are done", () => {
    const names = own.tasks.map((task) => task.name);
    expect(names).toEqual(["Coat 1", "Coat 2", "Coat 3", "Coat 4", "Section 1", "Section 2"]);
    expect(own.tasks.every((task) => task.handsMin > 0 && task.waitMin > 0)).toBe(true);
  });

  it("counts the hands of its tasks by the rates it names", () => {
    const { tasks, handsMin, handsWorking } = own;
    expect(tasks.reduce((sum, task) => sum + task.handsMin, 0)).toBeCloseTo(handsMin, 6);
    const of = (name: string) => handsWorking.inputs.find((input) => input.name === name)?.value ?? Number.NaN;
    const byFormula =
      of("jacket") * of("coats") * TYPICAL_RATES.coatMinPerM2 +
      of("shell, every layer") * TYPICAL_RATES.layerMinPerM2 +
      of("parting") * TYPICAL_RATES.wallMinPerM +
      of("sections") * TYPICAL_RATES.sectionSetupMin +
      of("fills laid") * TYPICAL_RATES.fillMinPerL +
      of("lifts") * TYPICAL_RATES.liftMin;
    expect(handsMin).toBeCloseTo(byFormula, 6);
  });

  it("buys clay for the holes closed with clay, and counts the plugs of the others", () => {
    const loop = Array.from({ length: 36 }, (_, k) => [60 * Math.cos(k), 0, 400 + 60 * Math.sin(k)][k % 3]);
    const jacket = { siliconeG: 4000, outerAreaMm2: 2e5, stopsMm3: 200_000, footClayMm3: 0, coats: [{ massG: 4000 }] };
    const made = (kinds: readonly ("clay" | "plug")[]) => {
      const stops = kinds.map((kind) => ({ kind, loop }));
      const { materials } = takeoff(
        { ...document, jacket: { ...document.jacket, stops } },
        jacket,
        result.parting,
        TYPICAL_RATES,
      );
      return materials.filter(({ use }) => use === "holes").map(({ material, quantity }) => [material, quantity]);
    };
    expect(made(["clay"])).toEqual([["water-clay", 0.38]]);
    expect(made(["clay", "plug"])).toEqual([
      ["water-clay", 0.19],
      ["cast-plugs", 1],
    ]);
    expect(made(["plug"])).toEqual([["cast-plugs", 1]]);
  });

  it("costs what its materials, hours and the finishing of every cast cost", () => {
    const { handsMin, finishMin, costMinor } = own;
    const metres = result.parting.partingLengthMm / 1000;
    expect(finishMin).toBeCloseTo(metres * TYPICAL_RATES.finishMinPerM * document.brief.edition);
    const byHand =
      own.materials.reduce((sum, line) => sum + line.quantity * own.units[line.material], 0) +
      ((handsMin + finishMin) / 60) * TYPICAL_RATES.hourMinor;
    expect(Math.abs(costMinor - byHand)).toBeLessThanOrEqual(1);
  });

  it("takes the jacket's seam into hands, finishing, release, shims and the order of the work", () => {
    const seamed = (school: "cut" | "shims"): PlanDocument => ({
      ...document,
      jacket: { ...document.jacket, seam: { kind: "slit", school, points: [0, 0, 0, 0, 0, 800] } },
    });
    const plain = takeoff(document, result.jacket, result.parting, TYPICAL_RATES);
    const cut = takeoff(seamed("cut"), result.jacket, result.parting, TYPICAL_RATES);
    const shims = takeoff(seamed("shims"), result.jacket, result.parting, TYPICAL_RATES);
    expect(cut.handsMin - plain.handsMin).toBeCloseTo(0.8 * 12);
    expect(shims.handsMin - plain.handsMin).toBeCloseTo(0.8 * 30);
    expect(shims.finishMin - plain.finishMin).toBeCloseTo(0.8 * TYPICAL_RATES.finishMinPerM * document.brief.edition);
    expect(cut.tasks.at(-1)?.name).toContain("cut afterwards");
    expect(shims.tasks[0].name).toContain("shims");
    const items = (of: typeof plain) => of.materials.map((line) => materialName(line));
    expect(items(shims)).toEqual(
      expect.arrayContaining(["Shims for the jacket's seam", "Release for the jacket's seam"]),
    );
    expect(items(cut)).toEqual(items(plain));
  });

  it("weighs dearer silicone against line: the prices of the search follow the rates", () => {
    const plain = partingPrices(document, TYPICAL_RATES);
    const dear = partingPrices(document, { ...TYPICAL_RATES, siliconePerKgMinor: 4800 });
    expect(dear.fillPerMm3 / plain.fillPerMm3).toBeCloseTo(2);
    expect(dear.wallPerMm).toBe(plain.wallPerMm);
    // A kilogram of silicone at 24.00 is 909 cm3 of fill.
    expect(plain.fillPerMm3 * 909_091).toBeCloseTo(2400, 0);
    // A metre of wall takes 35 minutes at 42.00 an hour.
    expect(plain.wallPerMm * 1000).toBeCloseTo((35 / 60) * 4200);
    // Three minutes a metre on every one of twelve casts.
    const edition = { ...document, brief: { ...document.brief, edition: 12 } };
    expect(partingPrices(edition, TYPICAL_RATES).finishPerMm * 1000).toBeCloseTo(12 * (3 / 60) * 4200);
  });
});

describe("cautions of a plan", () => {
  it("tell which sections are over the lift limit", () => {
    const light = planCautions(figuresOf(bundle.figures, document, TYPICAL_RATES), document);
    const strict = { ...document, brief: { ...document.brief, liftLimitKg: 0.5 } };
    const heavy = planCautions(figuresOf(bundle.figures, strict, TYPICAL_RATES), strict);
    expect(heavy.length).toBe(light.length + 2);
    expect(heavy.filter((text) => text.includes("over your lift limit of 0.5 kg"))).toHaveLength(2);
  });
});

describe("seating", () => {
  const slab: TriangleMesh = box(400, 200, 100);
  const sizeOf = (mesh: TriangleMesh) =>
    [0, 1, 2].map((a) => {
      const along = Array.from({ length: mesh.positions.length / 3 }, (_, v) => mesh.positions[3 * v + a]);
      return Math.round(Math.max(...along) - Math.min(...along));
    });
  const seat = (change: Partial<PlanDocument["seat"]>) => seatPiece(slab, { ...newPlan().seat, ...change });

  it.each([
    ["z", [400, 200, 100]],
    ["-z", [400, 200, 100]],
    ["y", [400, 100, 200]],
    ["-y", [400, 100, 200]],
    ["x", [200, 100, 400]],
    ["-x", [200, 100, 400]],
  ] as const)("brings %s upright", (up, size) => {
    expect(sizeOf(seat({ up }))).toEqual(size);
  });

  it("stands it on the board, turns it and scales it by unit and tape", () => {
    const standing = seat({});
    expect(Math.min(...standing.positions.filter((_, k) => k % 3 === 2))).toBeCloseTo(0, 6);
    expect(sizeOf(seat({ turnDeg: 90 }))).toEqual([200, 400, 100]);
    expect(sizeOf(seat({ unit: "cm" }))).toEqual([4000, 2000, 1000]);
    expect(sizeOf(seat({ tapeScale: 1.5 }))).toEqual([600, 300, 150]);
    const floating = seat({ onBoard: false });
    expect(Math.min(...floating.positions.filter((_, k) => k % 3 === 2))).toBeCloseTo(-50, 6);
  });

  it("refuses a unit that cannot be right, in words", () => {
    expect(() => seat({ unit: "m" })).toThrow(ScanProblem);
    expect(() => seat({ unit: "m" })).toThrow(/choose another unit/);
  });
});
