import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { box, lathe, sphere } from "../testing/shapes.ts";
import { jacketThicknessMm } from "./coat.ts";
import { type Jacket, type JacketRequest, makeJacket } from "./jacket.ts";

const drum = lathe(
  [
    [0, 160],
    [80, 160],
    [80, 0],
    [0, 0],
  ],
  96,
);
const coat = (thicknessMm: number) => ({ id: "coat-1", thicknessMm, thickened: true, pigment: "#999999" });
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

describe("a zone where the jacket is laid thicker", () => {
  const R = 100;
  const ball = sphere(R, 48);
  const farthest = (jacket: Jacket, along: -1 | 1) => {
    const p = jacket.mesh.positions;
    let most = 0;
    for (let k = 2; k < p.length; k += 3) most = Math.max(most, along * p[k]);
    return most;
  };

  it.each([0, 20])("is so much thicker there and as before elsewhere, smoothing %d", (smoothingMm) => {
    const plain = request({ smoothingMm, rimWidthMm: 0, onBoard: false });
    const zone = { dabs: [0, 0, R, 0, 0, 1, 30], moreMm: 6 };
    const before = makeJacket(ball, plain, ctx);
    const jacket = makeJacket(ball, { ...plain, thicker: zone }, ctx);
    expect(farthest(jacket, 1)).toBeCloseTo(R + 8 + 6, 0);
    expect(farthest(jacket, -1)).toBeCloseTo(R + 8, 0);
    // Full over the brush, running out beside it: between a cap of its own radius and one of twice that and the run-out.
    const moreMm3 = jacket.siliconeMm3 - before.siliconeMm3;
    expect(moreMm3).toBeGreaterThan(6 * Math.PI * 30 ** 2);
    expect(moreMm3).toBeLessThan(6 * Math.PI * 65 ** 2);
    expect(jacket.coats.reduce((sum, own) => sum + own.massG, 0)).toBeCloseTo(jacket.siliconeG, 3);
  });

  it("does not come through to the wall behind", () => {
    const slab = box(200, 30, 200);
    const plain = request({ rimWidthMm: 0, onBoard: false });
    const jacket = makeJacket(slab, { ...plain, thicker: { dabs: [0, -15, 0, 0, -1, 0, 40], moreMm: 6 } }, ctx);
    const p = jacket.mesh.positions;
    let [low, high] = [0, 0];
    for (let k = 1; k < p.length; k += 3) [low, high] = [Math.min(low, p[k]), Math.max(high, p[k])];
    const [front, back] = slabFaces(slab);
    expect(front - low).toBeCloseTo(14, 0);
    expect(high - back).toBeCloseTo(8, 0);
  });
});

function slabFaces({ positions: p }: TriangleMesh): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let k = 1; k < p.length; k += 3) [low, high] = [Math.min(low, p[k]), Math.max(high, p[k])];
  return [low, high];
}
