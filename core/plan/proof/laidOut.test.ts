import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { type Jacket, makeJacket } from "../../jacket/jacket.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { cutSections, lineLengthMm } from "../../parting/lines/cut.ts";
import { labelsOf } from "../../parting/lines/sections.ts";
import type { Direction } from "../../space/directions.ts";
import { zoneLengthsMm } from "../../survey/zones.ts";
import { moved, sphere } from "../../testing/shapes.ts";
import { drawnOut, type LaidOut, linesOn, runOn } from "./laidOut.ts";
import { Places } from "./places.ts";
import { surveyRequestFor } from "./surveyStage.ts";

const R = 120;
const T = 8;
const STEP_MM = 4;
const coats = [{ id: "coat-1", thicknessMm: T, thickened: true, pigment: "#cccccc" }];
const floating = { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard: false, stepMm: STEP_MM };

const jacket: Jacket = makeJacket(moved(sphere(R, 64), 0, 0, 0), floating, ctx);
const nearest = NearestField.about(jacket.mesh, 2 * STEP_MM, ctx);
const request = surveyRequestFor(jacket, 1, [], ctx);
const pulls: readonly Direction[] = [
  [1, 0, 0],
  [-1, 0, 0],
];

/** Two halves, parted along a wave about the great circle across x. */
function parted(reachMm: number, waves: number, survey = request): LaidOut {
  const p = request.coarse.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) => {
    const turn = Math.atan2(p[3 * v + 2], p[3 * v + 1]);
    return p[3 * v] > reachMm * Math.sin(waves * turn) ? 0 : 1;
  });
  return drawnOut(
    { pulls, label, energy: 0, handling: 0 } as unknown as Parameters<typeof drawnOut>[0],
    jacket,
    survey,
    ctx.team,
  );
}

/** A zone to keep clear on the ball: how far beside the great circle, where round it, and how wide. */
function zoneBeside(x: number, turn: number, radiusMm: number) {
  const [y, z] = [Math.cos(turn), Math.sin(turn)];
  const keepClear = [x, R * y, R * z, 0, y, z, radiusMm];
  return {
    survey: surveyRequestFor(jacket, 1, keepClear, ctx),
    /** How much of the lines lies in it. */
    withinMm: ({ potentials }: LaidOut) => {
      const lines = linesOn(jacket.mesh, nearest, cutSections(jacket.mesh, potentials), potentials, STEP_MM);
      return zoneLengthsMm({ keepClear, fragile: [], thicker: [] }, lines, T).keepClear;
    },
  };
}

const lengthOf = ({ potentials }: LaidOut) =>
  linesOn(jacket.mesh, nearest, cutSections(jacket.mesh, potentials), potentials, STEP_MM).reduce(
    (sum, line) => sum + lineLengthMm(line),
    0,
  );
const circleMm = 2 * Math.PI * (R + T);

function pointsOf(potentials: LaidOut["potentials"]): number[][] {
  const lines = linesOn(jacket.mesh, nearest, cutSections(jacket.mesh, potentials), potentials, STEP_MM);
  return lines.flatMap(({ points }) =>
    Array.from({ length: points.length / 3 }, (_, k) => [...points.subarray(3 * k, 3 * k + 3)]),
  );
}

/** How far the line strays from the circle, mm. */
function strayMm({ potentials }: LaidOut): number {
  return Math.max(...pointsOf(potentials).map(([x]) => Math.abs(x)));
}

describe("lines drawn on the jacket", () => {
  it("go round a zone to keep clear as the search did, though the horizon runs through it", () => {
    // The wave is farthest from the horizon here, and the zone lies between the two.
    const { survey, withinMm } = zoneBeside(6, Math.PI / 16, 6);
    expect(withinMm(parted(24, 8))).toBeGreaterThan(10);
    expect(withinMm(parted(24, 8, survey))).toBeLessThan(2 * STEP_MM);
  });
});

describe("lines run on", () => {
  it("run straight across waves that a hand would not follow", () => {
    const kept = parted(24, 13);
    const fair = runOn(kept, jacket, nearest, request);
    expect(strayMm(kept)).toBeGreaterThan(2);
    expect(strayMm(fair)).toBeLessThan(0.5 * strayMm(kept));
    expect(lengthOf(fair) / circleMm).toBeLessThan(1.01);
  });

  it("follow a wave as long as a limb is wide", () => {
    const kept = parted(40, 2);
    const fair = runOn(kept, jacket, nearest, request);
    expect(strayMm(fair)).toBeGreaterThan(0.85 * strayMm(kept));
  });

  it("keep to a wave where they would else run into a zone to keep clear", () => {
    // A line that waves 5 mm to either side of the great circle, sixteen times round.
    const p = jacket.mesh.positions;
    const own = Float32Array.from(
      { length: p.length / 3 },
      (_, v) => p[3 * v] - 5 * Math.sin(16 * Math.atan2(p[3 * v + 2], p[3 * v + 1])),
    );
    const kept = { ...parted(0, 1), potentials: [own, own.map((value) => -value)] };
    // Where the wave is farthest from it to the other side.
    const { survey, withinMm } = zoneBeside(-23, Math.PI / 32, 18);
    expect(withinMm(kept)).toBe(0);
    expect(withinMm(runOn(kept, jacket, nearest, request))).toBeGreaterThan(10);
    expect(withinMm(runOn(kept, jacket, nearest, survey))).toBeLessThan(2 * STEP_MM);
  });

  it("stay as they were about places where a straight line would bite, and run straight elsewhere", () => {
    const kept = parted(24, 8);
    const crestOf = ({ potentials }: LaidOut) =>
      Math.max(...pointsOf(potentials).map(([x, y, z]) => (y > 0 && Math.abs(Math.atan2(z, y)) < 0.4 ? x : 0)));
    const crest = pointsOf(kept.potentials).find(([x, y, z]) => x === crestOf(kept) && y > 0 && Math.abs(z) < y);
    if (!crest) throw new Error("The wave has no crest.");
    const stays = new Places();
    stays.add(crest[0], crest[1], crest[2]);
    const fair = runOn(kept, jacket, nearest, request, stays);
    const free = runOn(kept, jacket, nearest, request, new Places());
    expect(crestOf(free)).toBeLessThan(0.4 * crestOf(kept));
    expect(crestOf(fair)).toBeGreaterThan(0.85 * crestOf(kept));
    const farAway = pointsOf(fair.potentials).filter(([, y]) => y < 0);
    expect(Math.max(...farAway.map(([x]) => Math.abs(x)))).toBeLessThan(0.4 * crestOf(kept));
  });

  it("leave every section what lies away from its lines, and its pull", () => {
    const kept = parted(24, 13);
    const fair = runOn(kept, jacket, nearest, request);
    const [before, after] = [labelsOf(kept.potentials), labelsOf(fair.potentials)];
    const p = jacket.mesh.positions;
    for (let v = 0; v < before.length; v++) if (Math.abs(p[3 * v]) > 34) expect(after[v]).toBe(before[v]);
    expect(fair.pulls).toBe(kept.pulls);
  });

  it("have nothing to do where there is one section", () => {
    const whole: LaidOut = {
      pulls: [[0, 0, 1]],
      label: new Uint8Array(request.coarse.positions.length / 3),
      potentials: [new Float32Array(jacket.mesh.positions.length / 3).fill(1)],
      fillWith: ["silicone"],
      troubles: [],
    };
    expect(runOn(whole, jacket, nearest, request)).toBe(whole);
  });
});
