import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainCoat } from "../jacket/coat.ts";
import { NO_SEAM } from "../jacket/seam.ts";
import { plainContext as ctx } from "../job/context.ts";
import { ALONE } from "../job/team.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { treated } from "../parting/layout/edit.ts";
import { type FillWith, takenInHand } from "../parting/layout/layout.ts";
import { BRIEF } from "../parting/search/request.ts";
import type { Direction } from "../space/directions.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";
import { takeoff } from "../takeoff/takeoff.ts";
import { rotation, rotations, turnedDirection } from "../testing/random.ts";
import { box, lathe, mushroom, sphere, torus, turned } from "../testing/shapes.ts";
import { newPlan, type PlanDocument } from "./document/document.ts";
import { PlanEngine } from "./engine.ts";
import { bundleOf, packBundle, unpackBundle } from "./results/bundle.ts";
import { seatPiece } from "./stages/seat.ts";

function documentWith(coatMm: number, onBoard: boolean, parting: Partial<PlanDocument["parting"]>): PlanDocument {
  const base = newPlan({ onBoard });
  return {
    ...base,
    jacket: {
      silicone: base.jacket.silicone,
      coats: [plainCoat({ id: "coat-1", thicknessMm: coatMm, thickened: true, pigment: "#cccccc" })],
      smoothingMm: 0,
      rimWidthMm: onBoard ? 60 : 0,
      thickerMm: 0,
      seam: NO_SEAM,
      footClayMm: 0,
      stops: [],
    },
    // The coat of some oracles is thinner than any rubber that gives.
    parting: { ...base.parting, giveMm: 1.5, ...parting },
  };
}

/** The jacket of a piece and its parting: no walls, ribs or keys. */
function parted(mesh: TriangleMesh, document: PlanDocument, stepMm: number, engine = new PlanEngine(mesh, BRIEF)) {
  const parting = engine.partingFor(document, TYPICAL_RATES, stepMm, ctx);
  return { parting, jacket: engine.jacketFor(document, stepMm, ctx) };
}
const UP_DOWN: Direction[] = [
  [0, 0, 1],
  [0, 0, -1],
];

describe("sections meet their oracles", () => {
  it("sphere, two opposite pulls: great circle, no lock, and 1 087 879 mm3 of silicone", () => {
    const errors: number[] = [];
    for (const step of [8, 3]) {
      const { parting, jacket } = parted(sphere(100, 128), documentWith(8, false, { pulls: UP_DOWN }), step);
      expect(parting.sections.map((s) => [Math.round(s.fillMm3 / 1e4), s.releases])).toEqual([
        [0, true],
        [0, true],
      ]);
      expect(parting.partingLengthMm / (2 * Math.PI * 108)).toBeCloseTo(1, 1);
      for (const s of parting.sections) expect(s.areaMm2 / (2 * Math.PI * 108 ** 2)).toBeCloseTo(1, 1);
      errors.push(Math.abs(jacket.siliconeMm3 / 1_087_879 - 1));
    }
    expect(errors[1]).toBeLessThan(0.005);
    expect(errors[1]).toBeLessThan(errors[0] / 6);
  });

  it("mushroom on the board, one section up: comes off once pi (90^2 - 40^2) 200 is filled", () => {
    const errors: number[] = [];
    for (const step of [8, 4]) {
      const { parting } = parted(mushroom(40, 200, 90, 30), documentWith(0.1, true, { pulls: [[0, 0, 1]] }), step);
      expect(parting.sections[0].releases).toBe(true);
      errors.push(Math.abs(parting.sections[0].fillMm3 / 4_084_070 - 1));
    }
    expect(errors[1]).toBeLessThan(0.02);
    expect(errors[0]).toBeLessThan(0.05);
  });

  it("mushroom, two sections sideways: free", () => {
    const { parting } = parted(
      mushroom(40, 200, 90, 30),
      documentWith(0.1, true, {
        pulls: [
          [1, 0, 0],
          [-1, 0, 0],
        ],
      }),
      4,
    );
    expect(parting.sections.map((s) => [Math.round(s.fillMm3 / 1e4), s.releases])).toEqual([
      [0, true],
      [0, true],
    ]);
  });

  it("torus lying flat: up and down come free, sideways the hole is filled", () => {
    const free = parted(torus(100, 30, 128, 64), documentWith(8, false, { pulls: UP_DOWN }), 4);
    expect(free.parting.sections.every((s) => s.releases && s.fillMm3 < 5000)).toBe(true);
    const locked = parted(
      torus(100, 30, 128, 64),
      documentWith(8, false, {
        pulls: [
          [1, 0, 0],
          [-1, 0, 0],
        ],
      }),
      4,
    );
    // From the top of the tube to its underside the hole is seen by neither.
    expect(locked.parting.fillMm3).toBeGreaterThan(Math.PI * 62 ** 2 * 30);
  });

  it("fills a shallow undercut and then releases", () => {
    // A groove 12 mm deep round a drum pulled apart endwise from its middle.
    const profile: [number, number][] = [
      [0, 120],
      [80, 120],
      [80, 60],
      [68, 55],
      [68, 40],
      [80, 35],
      [80, -120],
      [0, -120],
    ];
    const { parting } = parted(lathe(profile, 96), documentWith(4, false, { pulls: UP_DOWN }), 3);
    expect(parting.fillMm3).toBeGreaterThan(20_000);
    expect(parting.sections.every((s) => s.releases)).toBe(true);
  });

  it("fills with clay where that is wanted, or leaves a lock open and says that it holds", () => {
    const document = documentWith(4, false, { pulls: UP_DOWN });
    // A groove 30 mm deep and wider.
    const deep: [number, number][] = [
      [0, 120],
      [80, 120],
      [80, 70],
      [50, 62],
      [50, 18],
      [80, 10],
      [80, -120],
      [0, -120],
    ];
    const piece = lathe(deep, 96);
    const engine = new PlanEngine(piece, BRIEF);
    const plan = (parting: PlanDocument["parting"]) => parted(piece, { ...document, parting }, 5, engine);
    const { parting } = plan(document.parting);
    const filled = parting.sections.findIndex(({ fillMm3 }) => fillMm3 > 0);
    expect(parting.sections[filled].fillThickMm).toBeGreaterThan(8);
    const taken = takenInHand(parting.drawn, parting.sections);
    const withFill = (fillWith: FillWith) => ({
      ...document.parting,
      layout: treated(taken, filled, { fillWith }),
    });
    const silicone = plan({ ...document.parting, mostSiliconeMm: 60, layout: taken });
    const clay = plan(withFill("clay"));
    const { clayMm3 } = clay.parting;
    expect(clay.parting.sections.every(({ releases }) => releases)).toBe(true);
    // The clay takes the silicone's place, to the gram.
    const takenOff = (of: typeof clay) => takeoff(document, of.jacket, of.parting, TYPICAL_RATES);
    const [sidedG, clayG] = [takenOff(silicone).fillG - takenOff(clay).fillG, siliconeMassG(clayMm3)];
    expect(sidedG / clayG).toBeCloseTo(1, 6);
    const bought = takenOff(clay).materials.find(({ use }) => use === "fills");
    expect(bought?.quantity).toBeCloseTo((clayMm3 * 1.9) / 1e6, 6);
    const open = engine.run({ ...document, parting: withFill("open") }, TYPICAL_RATES, 5, ctx);
    const [held] = open.parting.sections.filter(({ releases }) => !releases);
    expect(held.fillMm3).toBeLessThan(clayMm3);
    expect(open.warnings.some(({ kind }) => kind === "held")).toBe(true);
  });
});

/** A waisted body: a groove all round that takes a thin fill. */
const GROOVED: readonly (readonly [number, number])[] = [
  [0, 120],
  [80, 120],
  [80, 60],
  [68, 45],
  [80, 30],
  [80, -120],
  [0, -120],
];

describe("turning the piece with its pulls", () => {
  it("does not change the fill of a plan that releases by it", () => {
    const piece = lathe(GROOVED, 96);
    const still = parted(piece, documentWith(4, false, { pulls: UP_DOWN }), 5);
    expect(still.parting.sections.every((s) => s.releases)).toBe(true);
    fc.assert(
      fc.property(rotations, (angles) => {
        const m = rotation(angles);
        const along = UP_DOWN.map((d) => turnedDirection(m, d));
        const other = parted(turned(piece, m), documentWith(4, false, { pulls: along }), 5);
        expect(other.parting.sections.every((s) => s.releases)).toBe(true);
        expect(other.parting.fillMm3 / still.parting.fillMm3).toBeCloseTo(1, 1);
      }),
      { numRuns: 3, seed: 98 },
    );
  });
});

describe("the engine", () => {
  it("runs only the stages an edit touches", () => {
    const engine = new PlanEngine(sphere(100, 32));
    const document = documentWith(8, false, { pulls: UP_DOWN });
    const first = engine.run(document, TYPICAL_RATES, 8, ctx);
    const second = engine.run(
      { ...document, brief: { ...document.brief, castMaterial: "wax" } },
      TYPICAL_RATES,
      8,
      ctx,
    );
    expect(second.jacket).toBe(first.jacket);
    expect(second.parting).toBe(first.parting);
    const third = engine.run(
      {
        ...document,
        parting: {
          ...document.parting,
          pulls: [
            [1, 0, 0],
            [-1, 0, 0],
          ],
        },
      },
      TYPICAL_RATES,
      8,
      ctx,
    );
    expect(third.jacket).toBe(first.jacket);
    expect(third.parting).not.toBe(first.parting);
  });

  it("stops when it is told to", () => {
    let calls = 0;
    const stop = {
      ...ctx,
      checkCancelled: () => {
        if (++calls > 3) throw new Error("stopped");
      },
    };
    const engine = new PlanEngine(sphere(100, 32));
    const document = documentWith(8, false, { pulls: UP_DOWN });
    expect(() => engine.run(document, TYPICAL_RATES, 4, stop)).toThrow("stopped");
  });

  it("accounts for every gram of silicone in its coats", () => {
    const jacket = new PlanEngine(mushroom(40, 200, 90, 30)).jacketFor(newPlan(), 5, ctx);
    const coats = jacket.coats.reduce((sum, coat) => sum + coat.massG, 0);
    expect(coats).toBeCloseTo(jacket.siliconeG, 3);
    expect(jacket.siliconeMm3).toBeCloseTo(
      jacket.outerVolumeMm3 - Math.PI * (40 ** 2 * 200 + 90 ** 2 * 30) + jacket.rimMm3,
      -4,
    );
  });

  it("answers bundles that survive packing, and refuses another version's", async () => {
    const document = documentWith(8, false, { pulls: UP_DOWN });
    const result = new PlanEngine(sphere(100, 32)).run(document, TYPICAL_RATES, 8, ctx);
    const bundle = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
    const bytes = packBundle(bundle);
    expect(unpackBundle(bytes)).toEqual(
      JSON.parse(JSON.stringify({ figures: bundle.figures })).figures
        ? expect.objectContaining({ skins: bundle.skins, piece: bundle.piece })
        : null,
    );
    bytes[4] ^= 0xff;
    expect(unpackBundle(bytes)).toBeNull();
    expect(unpackBundle(new Uint8Array(5))).toBeNull();
  });
});

describe("seating", () => {
  const brick = box(0.2, 0.15, 0.3);
  it("brings the upright axis up, in millimetres, on the board", () => {
    const seated = seatPiece(brick, { unit: "m", tapeScale: 1, up: "y", turnDeg: 0, onBoard: true });
    const z = Array.from({ length: 8 }, (_, v) => seated.positions[3 * v + 2]);
    expect(Math.min(...z)).toBeCloseTo(0, 4);
    expect(Math.max(...z)).toBeCloseTo(150, 3);
  });
  it("refuses a unit that cannot be", () => {
    expect(() => seatPiece(brick, { unit: "mm", tapeScale: 1, up: "z", turnDeg: 0, onBoard: true })).toThrow(
      /another unit/,
    );
  });
});
