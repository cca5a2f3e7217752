import { describe, expect, it } from "vitest";
import { AlongWall } from "../flange/along.ts";
import { fasteningsOf } from "../flange/fastenings.ts";
import { TYPICAL_FLANGES } from "../flange/settings.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { groundOf, WIDTH_MM, wallOf } from "../testing/walls.ts";
import { wallsOn } from "../walls/walls.ts";
import { type HeadRequest, liquidHead } from "./liquidHead.ts";
import { TYPICAL_CASTING } from "./settings.ts";
import { wettedWall } from "./wetted.ts";

/** A wall up the middle of a body, across x, its left side towards +x. */
const ground = groundOf(
  wallOf(1000, (mm) => [
    [0, 250, mm],
    [0, 250 + WIDTH_MM, mm],
  ]),
);
const along = new AlongWall(ground, wallsOn([ground], [WIDTH_MM])[0]);
const fastenings = fasteningsOf(along, TYPICAL_FLANGES, null, { flangeMm: 20 });
const walls = [{ along, fastenings }];

const CAVITY = wettedWall(moved(box(600, 500, 1000), 0, 0, 500), 2, (x) => (x > 0 ? 0 : 1), 0);
const casting = { ...TYPICAL_CASTING, position: "as-it-stands", densityGPerCm3: 1.75 } as const;
const headOf = (change: Partial<HeadRequest> = {}) =>
  liquidHead({ wetted: CAVITY, walls, casting, castMaterial: "gypsum", isCharge: false, ...change });

describe("the push of a liquid", () => {
  it("on a wall 0.5 m wide and 1 m high is 4292 N at 1750 kg/m3", () => {
    const head = headOf();
    expect(head.pairs).toHaveLength(1);
    const [{ sections, forceN, perBoltN, bolts, neededBolts }] = head.pairs;
    expect(sections).toEqual([1, 2]);
    expect(forceN).toBeCloseTo(4292, -0.5);
    expect(perBoltN).toBeCloseTo(4292 / bolts, 0);
    expect(neededBolts).toBe(Math.ceil(forceN / casting.boltLoadN));
    expect(head.depthMm).toBe(1000);
    expect(head.pressureKPa).toBeCloseTo(1.75 * 9.81, 3);
  });

  it("is the same foot up, for it is as deep", () => {
    const [{ forceN }] = headOf({ casting: { ...casting, position: "foot-up" } }).pairs;
    expect(forceN).toBeCloseTo(4292, -0.5);
  });

  it("goes with the square of the depth, and half full is half as deep in a box", () => {
    const head = headOf({ casting: { ...casting, fillShare: 0.5 } });
    expect(head.depthMm).toBeCloseTo(500, -1);
    expect(head.pairs[0].forceN / 4292).toBeCloseTo(0.25, 1);
  });

  it("counts the charge alone where it is slushed", () => {
    expect(headOf({ isCharge: true }).depthMm).toBeCloseTo(250, -1);
  });

  it("goes by what is cast where no density is given", () => {
    const plain = { ...casting, densityGPerCm3: null };
    const wax = headOf({ casting: plain, castMaterial: "wax for bronze" });
    const concrete = headOf({ casting: plain, castMaterial: "glass-fibre concrete" });
    expect(concrete.pairs[0].forceN / wax.pairs[0].forceN).toBeCloseTo(2.2 / 0.85, 6);
  });

  it("half way up a ball fills half of it, and finds the level for any share", () => {
    const ball = wettedWall(moved(sphere(300, 128), 0, 0, 300), 2, (x) => (x > 0 ? 0 : 1), null);
    for (const share of [0.1, 0.25, 0.5, 0.9]) {
      const { depthMm } = headOf({ wetted: ball, casting: { ...casting, fillShare: share } });
      const cap = (depthMm ** 2 * (3 * 300 - depthMm)) / (4 * 300 ** 3);
      expect(Math.abs(cap - share)).toBeLessThan(0.012);
    }
  });
});
