import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  greatestPot,
  keepRatio,
  type MixingSettings,
  type Mixture,
  minutesAt,
  peroxidePercent,
  potMinAt,
  potsFor,
  SAFE_SHARE,
  TYPICAL_MIXING,
  weighOut,
} from "./mixing.ts";

const tin: Mixture = {
  ...{ material: "tin-brushable", name: "Tin silicone", potMin: 30, hastens: true, mostG: null, leastC: null },
  peroxide: null,
  ...{ densityGPerCm3: 1.15, gPerMin: 90 },
  parts: [
    { name: "Base", parts: 100, densityGPerCm3: 1.2 },
    { name: "Catalyst", parts: 10, densityGPerCm3: 1 },
  ],
  tops: [{ name: "Thickener", per100: 1.5, dropsPerG: 30 }],
};

describe("times at the bench", () => {
  it("halve for ten degrees warmer and double for ten colder, within 10 to 35", () => {
    expect(minutesAt(30, 20)).toBe(30);
    expect(minutesAt(30, 30)).toBe(15);
    expect(minutesAt(30, 10)).toBe(60);
    expect(minutesAt(30, 5)).toBe(60);
    expect(minutesAt(30, 40)).toBeCloseTo(30 / 2 ** 1.5, 9);
    expect(potMinAt({ potMin: 12, hastens: false }, 35)).toBe(12);
  });

  it("ask polyester for less peroxide in the warm, more in the cold, and no more of it under 15", () => {
    expect(peroxidePercent(1.5, 20)).toBe(1.5);
    expect(peroxidePercent(1.5, 15)).toBe(2);
    expect(peroxidePercent(1.5, 30)).toBe(1);
    expect(peroxidePercent(1.2, 15)).toBeCloseTo(1.2 * Math.SQRT2, 9);
    // Under 15 degrees it does not set: no more peroxide helps.
    expect(peroxidePercent(1.2, 5)).toBe(peroxidePercent(1.2, 15));
  });
});

describe("the greatest pot", () => {
  it("is what can be laid in four fifths of its pot life", () => {
    expect(greatestPot(tin, TYPICAL_MIXING)).toEqual({ g: 90 * 30 * SAFE_SHARE, by: "time" });
    expect(greatestPot(tin, { ...TYPICAL_MIXING, people: 2 })).toEqual({ g: 5000 * 0.65 * 1.15, by: "bucket" });
    expect(greatestPot(tin, { ...TYPICAL_MIXING, scaleMostG: 500 })).toEqual({ g: 500, by: "scale" });
    expect(greatestPot({ ...tin, mostG: 300 }, TYPICAL_MIXING)).toEqual({ g: 300, by: "heat" });
  });

  const settings: fc.Arbitrary<MixingSettings> = fc.record({
    temperatureC: fc.integer({ min: 5, max: 40 }),
    people: fc.integer({ min: 1, max: 12 }),
    pace: fc.double({ min: 0.2, max: 5, noNaN: true }),
    vesselMl: fc.integer({ min: 100, max: 100_000 }),
    scaleStepG: fc.constantFrom(0.01, 0.1, 1, 5, 50),
    scaleMostG: fc.integer({ min: 100, max: 200_000 }),
  });

  it("is never passed: pots come to what is needed, each within pot life, bucket and scale", () => {
    fc.assert(
      fc.property(settings, fc.double({ min: 0, max: 300_000, noNaN: true }), (mixing, needG) => {
        const { count, eachG } = potsFor(needG, tin, mixing);
        expect(count * eachG).toBeGreaterThanOrEqual(needG * (1 - 1e-9));
        // Of a round size: a little more than is needed.
        expect(count * eachG).toBeLessThanOrEqual(needG * 1.020001);
        if (count === 0) return;
        const { people, pace, vesselMl, scaleMostG, temperatureC } = mixing;
        expect(eachG / (people * pace * tin.gPerMin)).toBeLessThanOrEqual(
          potMinAt(tin, temperatureC) * SAFE_SHARE * 1.000001,
        );
        expect(eachG).toBeLessThanOrEqual(scaleMostG * 1.000001);
        expect(eachG / tin.densityGPerCm3).toBeLessThan(vesselMl);
        // And no more of them than it takes.
        expect((count - 1) * greatestPot(tin, mixing).g).toBeLessThan(needG);
      }),
    );
  });

  it("is weighed out by the ratio, each part within half a step of the scale, the bucket's sum running", () => {
    fc.assert(
      fc.property(settings, fc.double({ min: 20, max: 20_000, noNaN: true }), (mixing, potG) => {
        const [base, catalyst, thickener] = weighOut(tin, potG, mixing);
        const half = mixing.scaleStepG / 2 + 1e-9;
        expect(Math.abs(base.g - (potG * 100) / 110)).toBeLessThanOrEqual(half);
        expect(Math.abs(catalyst.g - (potG * 10) / 110)).toBeLessThanOrEqual(half);
        expect(catalyst.runningG).toBeCloseTo(base.g + catalyst.g, 9);
        expect(base.ml).toBeCloseTo(base.g / 1.2, 9);
        // The thickener goes by the base alone; too little for the scale, it is counted.
        const exact = ((potG * 100) / 110) * 0.015;
        if (thickener.drops === null) expect(Math.abs(thickener.g - exact)).toBeLessThanOrEqual(half);
        else expect(Math.abs(thickener.drops - 30 * exact)).toBeLessThanOrEqual(0.5);
        expect(thickener.drops === null).toBe(exact >= 10 * mixing.scaleStepG || 30 * exact > 60);
      }),
    );
  });

  it("of nothing is none", () => {
    expect(potsFor(0, tin, TYPICAL_MIXING)).toEqual({ count: 0, eachG: 0, by: "time" });
  });
});

describe("when somebody pours too much", () => {
  it("the other parts are added to until the ratio holds again, and nothing is taken out", () => {
    expect(keepRatio(tin, [550, 50])).toEqual({ addG: [0, 5], potG: 605 });
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 5000, noNaN: true }),
        fc.double({ min: 0, max: 5000, noNaN: true }),
        (a, b) => {
          const { addG, potG } = keepRatio(tin, [a, b]);
          const [base, catalyst] = [a + addG[0], b + addG[1]];
          expect(catalyst).toBeCloseTo(base / 10, 6);
          expect(base + catalyst).toBeCloseTo(potG, 6);
          expect(Math.min(...addG)).toBeGreaterThanOrEqual(0);
          expect(Math.min(...addG)).toBeLessThan(1e-6);
        },
      ),
    );
  });
});
