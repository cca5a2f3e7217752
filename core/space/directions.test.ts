import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rotation, rotations, turnedDirection } from "../testing/random.ts";
import {
  bearingAndElevation,
  cross,
  type Direction,
  directionFrom,
  dot,
  frameAcross,
  onGlobe,
  pullDirections,
  sameDirection,
  sharePull,
} from "./directions.ts";

const anywhere = rotations.map((turn): Direction => turnedDirection(rotation(turn), [0, 0, 1]));
const degrees = (a: Direction, b: Direction) => (Math.acos(Math.min(1, dot(a, b))) * 180) / Math.PI;

describe("the even set of pulls", () => {
  for (const count of [48, 200]) {
    it(`leaves no wide gap: ${count}`, () => {
      const pulls = pullDirections(count);
      // A set of n on the sphere leaves caps of about the root of 16 / n radians.
      const reach = (1.2 * Math.sqrt(16 / count) * 180) / Math.PI;
      fc.assert(
        fc.property(anywhere, (d) => {
          return Math.min(...pulls.map((pull) => degrees(pull, d))) < reach;
        }),
      );
    });
  }

  it("has the contrary of every pull", () => {
    const contrary = (pulls: readonly Direction[]) => (d: Direction) =>
      pulls.some((other) => sameDirection(other, [-d[0], -d[1], -d[2]]));
    const pulls = pullDirections(100);
    expect(pulls.every(contrary(pulls))).toBe(true);
  });
});

describe("a direction", () => {
  it("is the same again from its bearing and elevation", () => {
    fc.assert(
      fc.property(anywhere, (d) => {
        const { bearingDeg, elevationDeg } = bearingAndElevation(d);
        expect(degrees(directionFrom(bearingDeg, elevationDeg), d)).toBeLessThan(1e-3);
      }),
    );
  });

  it("bears 0 to the front and 90 to the piece's right hand, which is our left", () => {
    expect(bearingAndElevation([0, -1, 0]).bearingDeg).toBe(0);
    expect(bearingAndElevation([-1, 0, 0]).bearingDeg).toBe(90);
    expect(bearingAndElevation([0, 1, 0]).bearingDeg).toBe(180);
    expect(bearingAndElevation([0, 0, 1])).toEqual({ bearingDeg: 0, elevationDeg: 90 });
  });

  it("has a right-handed frame across it", () => {
    fc.assert(
      fc.property(anywhere, (d) => {
        const { u, v } = frameAcross(d);
        for (const [a, b] of [
          [u, v],
          [u, d],
          [v, d],
        ] as const)
          expect(dot(a, b)).toBeCloseTo(0, 9);
        expect(dot(cross(u, v), d)).toBeCloseTo(1, 9);
      }),
    );
  });

  it("lies on a globe where it is seen: in the middle from its own side, at the rim across, nowhere behind", () => {
    expect(onGlobe([0, -1, 0], [0, -1, 0])).toEqual({ x: 0, y: 0 });
    const up = onGlobe([0, 0, 1], [0, -1, 0]);
    expect([up?.x, up?.y].map((x) => Math.round((x ?? 9) * 1e9))).toEqual([0, 1e9]);
    expect(onGlobe([0, 1, 0], [0, -1, 0])).toBeNull();
  });
});

describe("pulls that are shared", () => {
  it("are found among some, to a tenth of a degree", () => {
    expect(sharePull([])).toBe(false);
    expect(sharePull([[0, 0, 1]])).toBe(false);
    expect(
      sharePull([
        [0, 0, 1],
        [0, -1, 0],
        [0, 1, 0],
      ]),
    ).toBe(false);
    expect(sharePull([[0, 0, 1], directionFrom(30, 10), directionFrom(30.05, 10)])).toBe(true);
    expect(sharePull([directionFrom(30, 10), directionFrom(30.5, 10)])).toBe(false);
  });
});
