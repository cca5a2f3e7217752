/** What the suggestion does with bodies whose best parting is known, upright and turned. */

import { describe, expect, it } from "vitest";
import { plainCoat } from "../../jacket/coat.ts";
import { NO_SEAM } from "../../jacket/seam.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { PartingLine } from "../../parting/lines/cut.ts";
import { BRIEF, THOROUGH } from "../../parting/search/request.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { rotation, turnedDirection } from "../../testing/random.ts";
import {
  box,
  capsule,
  cylinder,
  lBlock,
  leaningCylinder,
  moved,
  mushroom,
  sphere,
  torus,
  turned,
  twistedStack,
} from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { PlanEngine } from "../engine.ts";
import type { ProvenParting } from "./parting.ts";

const COAT_MM = 8;
const AWRY = rotation([0.7, 0.9]);
/** Lying becomes standing: z goes to y. */
const ON_EDGE = [1, 0, 0, 0, 0, -1, 0, 1, 0];

function planned(
  piece: TriangleMesh,
  onBoard: boolean,
  parting: Partial<PlanDocument["parting"]>,
  stepMm = 7.5,
  effort = THOROUGH,
): ProvenParting {
  const base = newPlan({ onBoard });
  const coats = [plainCoat({ id: "coat-1", thicknessMm: COAT_MM, thickened: true, pigment: "#cccccc" })];
  const document: PlanDocument = {
    ...base,
    jacket: {
      ...base.jacket,
      coats,
      smoothingMm: 0,
      rimWidthMm: 0,
      thickerMm: 0,
      seam: NO_SEAM,
      footClayMm: 0,
      stops: [],
    },
    parting: { ...base.parting, ...parting },
  };
  return new PlanEngine(piece, effort).partingFor(document, TYPICAL_RATES, stepMm, ctx);
}

const releases = (plan: ProvenParting) => plan.sections.every((section) => section.releases);

describe("two sections, suggested, part on the shortest line and come off", () => {
  const around = 2 * Math.PI;
  const cases = [
    { name: "sphere", piece: sphere(100), shortestMm: around * (100 + COAT_MM) },
    { name: "capsule", piece: capsule(60, 200), shortestMm: around * (60 + COAT_MM) },
    { name: "cylinder", piece: cylinder(60, 240), shortestMm: around * (60 + COAT_MM) },
    { name: "box", piece: box(200, 150, 300), shortestMm: 2 * (200 + 150) + around * COAT_MM },
  ];
  for (const { name, piece, shortestMm } of cases) {
    it(`${name}, upright`, () => {
      const plan = planned(piece, false, { sections: 2 });
      expect(releases(plan)).toBe(true);
      expect(plan.fillMm3).toBeLessThan(1000);
      expect(Math.abs(plan.partingLengthMm / shortestMm - 1)).toBeLessThan(0.01);
    });
    it(`${name}, turned`, () => {
      const plan = planned(turned(piece, AWRY), false, { sections: 2 });
      expect(releases(plan)).toBe(true);
      // The walls of a turned box are rough by the grid, and take a degree of draft here or there.
      expect(Math.abs(plan.partingLengthMm / shortestMm - 1)).toBeLessThan(name === "box" ? 0.06 : 0.01);
    });
  }
});

describe("bodies that ask for more", () => {
  it("mushroom on the board: pulled sideways", () => {
    const plan = planned(mushroom(40, 200, 90, 30), true, { sections: 2 });
    for (const { pull } of plan.sections) expect(Math.abs(pull[2])).toBeLessThan(0.2);
    expect(releases(plan)).toBe(true);
  });

  it("L-block: comes off, and turned it costs no longer a line", () => {
    const upright = planned(lBlock(200, 70, 120), false, { sections: 2 }, 4);
    const awry = planned(turned(lBlock(200, 70, 120), AWRY), false, { sections: 2 }, 4);
    for (const plan of [upright, awry]) {
      expect(releases(plan)).toBe(true);
      expect(plan.fillMm3).toBeLessThan(1000);
    }
    expect(awry.partingLengthMm / upright.partingLengthMm).toBeCloseTo(1, 1);
  });

  it("a torus lying comes off free, and standing on its edge too", () => {
    for (const [piece, onBoard] of [
      [torus(100, 30, 128, 64), false],
      [turned(torus(100, 30, 128, 64), ON_EDGE), true],
    ] as const) {
      const plan = planned(piece, onBoard, { sections: 2 });
      expect(releases(plan)).toBe(true);
      expect(plan.fillMm3).toBeLessThan(1000);
      // Both pulls lie near the axis, so both the outer and the inner line are there.
      const axis = onBoard ? 1 : 2;
      for (const { pull } of plan.sections) expect(Math.abs(pull[axis])).toBeGreaterThan(0.8);
      // Standing, its lowest part is in the board.
      expect(plan.partingLengthMm).toBeGreaterThan(0.9 * 2 * Math.PI * (100 - 30 - COAT_MM + 100 + 30 + COAT_MM));
    }
  });

  it("a leaning cylinder, pulled square to its lean: the line leans with it", () => {
    const lean = 0.4;
    const plan = planned(leaningCylinder(60, 300, lean), true, {
      pulls: [
        [0, 1, 0],
        [0, -1, 0],
      ],
    });
    expect(releases(plan)).toBe(true);
    // On the sides, the line runs where the wall is square to the lean: x = lean z, a radius and a coat out.
    const out = 60 + COAT_MM * Math.sqrt(1 + lean * lean);
    let most = 0;
    for (const [x, y, z] of pointsOf(plan.lines)) {
      if (z < 20 || z > 280) continue;
      expect(Math.abs(y)).toBeLessThan(6);
      most = Math.max(most, Math.abs(Math.abs(x - lean * z) - out));
    }
    expect(most).toBeLessThan(6);
  });

  it("a twisted stack: its upper half is parted at another bearing than its lower", () => {
    const plan = planned(twistedStack(120, 60, 160, 60), true, { sections: 2 }, 5);
    expect(releases(plan)).toBe(true);
    const bearingsAt = (from: number, to: number) =>
      pointsOf(plan.lines)
        .filter(([, , z]) => z > from && z < to)
        .map(([x, y]) => ((Math.atan2(y, x) * 180) / Math.PI + 360) % 180);
    const lower = middleOf(bearingsAt(30, 120));
    const upper = middleOf(bearingsAt(200, 290));
    const apart = Math.abs(lower - upper);
    expect(Math.min(apart, 180 - apart)).toBeGreaterThan(15);
  });

  it("a bollard has as many sections as are wanted: no ring closes in on itself where lines are laid fair", () => {
    const plan = planned(moved(capsule(90, 240, 24), 0, 0, 210), true, { sections: 6 }, 7, BRIEF);
    expect(plan.sections).toHaveLength(6);
    expect(releases(plan)).toBe(true);
  });

  it("gives the same plan for the same piece", () => {
    const once = planned(mushroom(40, 200, 90, 30, 48), true, { sections: 3 }, 7, BRIEF);
    const again = planned(mushroom(40, 200, 90, 30, 48), true, { sections: 3 }, 7, BRIEF);
    expect(again.sections.map((s) => [s.pull, s.areaMm2])).toEqual(once.sections.map((s) => [s.pull, s.areaMm2]));
    expect(again.partingLengthMm).toBe(once.partingLengthMm);
  });

  it("turns its pulls with the piece", () => {
    const upright = planned(cylinder(60, 240), false, { sections: 2 });
    const awry = planned(turned(cylinder(60, 240), AWRY), false, { sections: 2 });
    const axis = turnedDirection(AWRY, [0, 0, 1]);
    for (const { pull } of upright.sections) expect(Math.abs(pull[2])).toBeGreaterThan(0.999);
    for (const { pull } of awry.sections) {
      expect(Math.abs(pull[0] * axis[0] + pull[1] * axis[1] + pull[2] * axis[2])).toBeGreaterThan(0.999);
    }
  });
});

function pointsOf(lines: readonly PartingLine[]): number[][] {
  return lines.flatMap(({ points }) =>
    Array.from({ length: points.length / 3 }, (_, k) => [...points.subarray(3 * k, 3 * k + 3)]),
  );
}

/** Middle of bearings without sign, degrees: doubled, so that 179 and 1 are near. */
function middleOf(bearings: readonly number[]): number {
  const c = bearings.reduce((sum, b) => sum + Math.cos((2 * b * Math.PI) / 180), 0);
  const s = bearings.reduce((sum, b) => sum + Math.sin((2 * b * Math.PI) / 180), 0);
  return ((Math.atan2(s, c) * 90) / Math.PI + 180) % 180;
}
