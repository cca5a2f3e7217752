import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { newPlan } from "../../plan/document/document.ts";
import { type Direction, dot } from "../../space/directions.ts";
import { depthField } from "../../survey/depth.ts";
import { partingPrices } from "../../takeoff/prices.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { mushroom, sphere } from "../../testing/shapes.ts";
import { type Leaving, pullRange, turnedBy } from "./pullRange.ts";
import { HASTY, type SuggestRequest, surveyPulls } from "./request.ts";

const prices = partingPrices(newPlan(), TYPICAL_RATES);
const DOWN: Direction = [0, 0, -1];

function rangeOf(
  coarse: TriangleMesh,
  boardMm: number | null,
  belongs: (x: number, y: number, z: number) => boolean,
  own: Direction,
) {
  const request: SuggestRequest = {
    coarse,
    depth: depthField(coarse, ctx),
    clear: null,
    nearest: NearestField.about(coarse, 12, ctx),
    boardMm,
    spacingMm: 6,
    mayLift: true,
    draftDeg: 1,
    effort: { ...HASTY, directions: 160, careful: true },
  };
  const p = coarse.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) =>
    belongs(p[3 * v], p[3 * v + 1], p[3 * v + 2]) ? 0 : 1,
  );
  return pullRange(request, surveyPulls(request, ctx), prices, label, 0, own, ctx);
}

const degrees = (a: Direction, b: Direction) => (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI;

describe("from where a section can be pulled", () => {
  it("of a cap on a ball is a cone about its axis, by what the cap leaves to the horizon", () => {
    // A cap of 50 degrees about +x comes off along anything within 40 degrees of x.
    const cap = Math.cos((50 * Math.PI) / 180) * 100;
    const { directions } = rangeOf(sphere(100, 48), null, (x) => x > cap, [1, 0, 0]);
    for (const { pull, leaving } of directions) {
      const off = degrees(pull, [1, 0, 0]);
      if (off < 34) expect(leaving).toBe("free");
      if (off > 60) expect(leaving).not.toBe("free");
      if (off > 150) expect(leaving).toBe("locked");
    }
    expect(directions.filter(({ leaving }) => leaving === "free").length).toBeGreaterThan(8);
  });

  it("of half a mushroom is sideways, and its best pull is found from a bad one", () => {
    const body = mushroom(40, 200, 90, 30, 96);
    const { directions, best, bestLeaving } = rangeOf(body, 0, (x) => x > 0, [0, 0, 1]);
    const leavingAt = (wanted: Direction): Leaving | undefined =>
      directions.find(({ pull }) => degrees(pull, wanted) < 0.5)?.leaving;
    expect(leavingAt([1, 0, 0])).toBe("free");
    // What lies under the cap's rim can be filled; what lies behind the stem cannot.
    expect(leavingAt([0, 0, 1])).toBe("fill");
    expect(leavingAt([-1, 0, 0])).toBe("locked");
    expect(degrees(best, [1, 0, 0])).toBeLessThan(8);
    expect(bestLeaving).toBe("free");
    expect(directions.some(({ pull }) => pull[2] < -0.5)).toBe(true);
  });

  it("keeps a pull that cannot be bettered", () => {
    const { best } = rangeOf(sphere(100, 48), null, (_x, _y, z) => z < -20, DOWN);
    expect(best).toEqual(DOWN);
  });
});

describe("turning a pull", () => {
  it("tilts it by the angle asked for, to the side asked for", () => {
    for (const side of [0, 60, 120, 180]) {
      const tilted = turnedBy([0.6, 0, 0.8], 7, side);
      expect(Math.hypot(...tilted)).toBeCloseTo(1, 9);
      expect(degrees(tilted, [0.6, 0, 0.8])).toBeCloseTo(7, 6);
    }
    expect(degrees(turnedBy(DOWN, 5, 0), turnedBy(DOWN, 5, 180))).toBeCloseTo(10, 6);
  });
});
