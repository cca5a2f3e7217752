import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { lathe } from "../testing/shapes.ts";
import { jacketThicknessMm } from "./coat.ts";
import { type JacketRequest, makeJacket } from "./jacket.ts";

const drum = lathe(
  [
    [0, 160],
    [80, 160],
    [80, 0],
    [0, 0],
  ],
  96,
);
const coat = (thicknessMm: number) => ({ thicknessMm, thickened: true, pigment: "#999999" });
const request = (more: Partial<JacketRequest> = {}): JacketRequest => ({
  coats: [coat(2), coat(3), coat(3)],
  smoothingMm: 0,
  rimWidthMm: 60,
  onBoard: true,
  stepMm: 3,
  ...more,
});

describe("a jacket on the board", () => {
  it("is as thick as its coats together", () => {
    expect(jacketThicknessMm(request().coats)).toBe(8);
    expect(makeJacket(drum, request(), ctx).thicknessMm).toBe(8);
  });

  it("holds the drum's grown volume: cylinder wall, lid, and the quarter round at its edge", () => {
    const t = 8;
    const [r, h] = [80, 160];
    const edge = (Math.PI * t * t * 2 * Math.PI * (r + (4 * t) / (3 * Math.PI))) / 4;
    const exact = Math.PI * ((r + t) ** 2 - r ** 2) * h + Math.PI * r * r * t + edge;
    const errors = [4, 2].map((stepMm) => {
      const jacket = makeJacket(drum, request({ rimWidthMm: 0, stepMm }), ctx);
      return Math.abs(jacket.siliconeMm3 / exact - 1);
    });
    expect(errors[1]).toBeLessThan(0.01);
    expect(errors[1]).toBeLessThan(errors[0]);
  });

  it("adds a rim: a ring on the board as thick as the jacket", () => {
    const without = makeJacket(drum, request({ rimWidthMm: 0 }), ctx);
    const ring = Math.PI * ((88 + 60) ** 2 - 88 ** 2);
    const withRim = makeJacket(drum, request(), ctx);
    expect((withRim.siliconeMm3 - without.siliconeMm3) / (ring * 8)).toBeCloseTo(1, 1);
  });

  it("shares its silicone among the coats by the surface each is laid on", () => {
    const { coats, siliconeG } = makeJacket(drum, request(), ctx);
    expect(coats.reduce((sum, one) => sum + one.massG, 0) / siliconeG).toBeCloseTo(1, 6);
    // Every coat is laid on a larger surface than the one before.
    expect(coats[1].areaMm2).toBeGreaterThan(coats[0].areaMm2);
    expect(coats[2].areaMm2).toBeGreaterThan(coats[1].areaMm2);
  });

  it("stands open on the board and reaches no lower", () => {
    const { mesh } = makeJacket(drum, request(), ctx);
    let lowest = Infinity;
    for (let k = 2; k < mesh.positions.length; k += 3) lowest = Math.min(lowest, mesh.positions[k]);
    expect(lowest).toBeCloseTo(0, 3);
  });
});
