import { describe, expect, it } from "vitest";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { cutOffOf } from "./cutOff.ts";

// A litre of clay is laid in half an hour, and the limb is cut off in two and a half.
const rates = { ...TYPICAL_RATES, fillMinPerL: 30, cutOffMin: 150 };
const comesOff = { biteMm: 0.4, biteAt: [0, 0, 0], releases: true } as const;
const fill = (litres: number, x: number) => ({ kind: "clay", volumeMm3: litres * 1e6, at: [x, 0, 0] }) as const;

describe("cutting a limb off", () => {
  it("is not said where every fill costs less", () => {
    expect(cutOffOf([comesOff], [], rates)).toBeNull();
    // Many small fills are no limb, whatever they cost together.
    expect(cutOffOf([comesOff, comesOff], [fill(4, 1), fill(4.9, 2), fill(3, 3)], rates)).toBeNull();
  });

  it("is said at the one fill that costs more", () => {
    expect(cutOffOf([comesOff], [fill(1, 1), fill(6, 2)], rates)).toEqual({ at: [2, 0, 0], fillMm3: 6e6 });
  });

  it("is said at the deepest bite where the plan is held", () => {
    const held = (biteMm: number, x: number) => ({ biteMm, biteAt: [x, 0, 0], releases: false }) as const;
    expect(cutOffOf([held(9, 1), comesOff, held(12, 2)], [fill(9, 3)], rates)).toEqual({ at: [2, 0, 0], fillMm3: 0 });
  });
});
