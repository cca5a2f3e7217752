import { describe, expect, it } from "vitest";
import { outsideOfParts } from "../field/enclosed.ts";
import { isosurface } from "../field/isosurface.ts";
import { footClay } from "../jacket/footClay.ts";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { SPECK_MM3, withoutPockets } from "../mesh/pockets.ts";
import { together } from "../mesh/together.ts";
import { newPlan } from "../plan/document/document.ts";
import { PlanEngine } from "../plan/engine.ts";
import { bareBody } from "../plan/proof/freeing.ts";
import { box, moved, mushroom, sphere } from "../testing/shapes.ts";
import { redistance } from "./redistance.ts";
import { travelOf } from "./travel.ts";

const coats = [{ id: "coat-1", thicknessMm: 8, thickened: true, pigment: "#cccccc" }];
const request = { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard: false, stepMm: 4 };

describe("scans in several parts", () => {
  it("lose what lies inside the others, and keep what stands out of them", () => {
    const hollow = together(sphere(100, 48), sphere(80, 48));
    expect(outsideOfParts(hollow, ctx)).toMatchObject({ inner: 1, overlapping: 0 });
    const joined = together(sphere(100, 48), moved(sphere(60, 48), 90, 0, 0));
    const found = outsideOfParts(joined, ctx);
    expect(found.inner).toBe(0);
    expect(found.overlapping).toBeGreaterThan(0);
    expect(outsideOfParts(together(sphere(50, 24), moved(sphere(50, 24), 300, 0, 0)), ctx)).toMatchObject({
      inner: 0,
      overlapping: 0,
    });
  });

  it("take the silicone of their outside, overlapping or hollow, to a hundredth", () => {
    // Two boxes that share a third of each against the one they make together.
    const whole = makeJacket(box(250, 100, 100), request, ctx).siliconeMm3;
    const [left, right] = [moved(box(150, 100, 100), -50, 0, 0), moved(box(150, 100, 100), 50, 0, 0)];
    expect(Math.abs(makeJacket(together(left, right), request, ctx).siliconeMm3 / whole - 1)).toBeLessThan(0.01);
    const ball = makeJacket(sphere(100, 64), request, ctx).siliconeMm3;
    const { mesh } = outsideOfParts(together(sphere(100, 64), sphere(70, 48)), ctx);
    expect(Math.abs(makeJacket(mesh, request, ctx).siliconeMm3 / ball - 1)).toBeLessThan(0.01);
  });
});

describe("sheets and doubled skins", () => {
  it("take no more silicone than the clean body, to a hundredth, and are told", () => {
    const clean = moved(sphere(120, 48), 0, 0, 120);
    const document = newPlan();
    const planned = (mesh: TriangleMesh) => {
      const engine = new PlanEngine(mesh);
      return { report: engine.pieceFor(document, ctx).report, jacket: engine.jacketFor(document, 6, ctx) };
    };
    const { siliconeMm3, outerAreaMm2 } = planned(clean).jacket;
    const sheet = moved(box(80, 0.001, 60), 120, 0, 120);
    for (const [scan, told] of [
      [together(clean, clean), /doubled triangles/],
      [together(clean, sheet), /sheet without thickness/],
      [together(clean, { ...sheet, triangles: sheet.triangles.slice(0, 6) }), /without thickness|specks|doubled/],
    ] as const) {
      const { report, jacket } = planned(scan);
      expect(report.repairs.join()).toMatch(told);
      expect(Math.abs(jacket.siliconeMm3 / siliconeMm3 - 1)).toBeLessThan(0.01);
      expect(Math.abs(jacket.outerAreaMm2 / outerAreaMm2 - 1)).toBeLessThan(0.01);
    }
  });
});

describe("pockets", () => {
  it("are no part of a surface that is seen from outside, and neither are specks", () => {
    const inwards = sphere(30, 24);
    const pocket = { ...inwards, triangles: inwards.triangles.slice().reverse() };
    const { mesh, dropped } = withoutPockets(
      together(sphere(100, 32), pocket, moved(sphere(2, 8), 130, 0, 0)),
      SPECK_MM3,
    );
    expect(areaAndVolume(mesh).volumeMm3 / areaAndVolume(sphere(100, 32)).volumeMm3).toBeCloseTo(1, 9);
    expect(dropped?.triangles.length).toBeGreaterThan(0);
  });
});

describe("clay at the foot", () => {
  it("closes a gap that is low enough, and no other", () => {
    // A cap 20 mm off the board, out to 90 mm from a stem of 40.
    const piece = mushroom(40, 20, 90, 60, 96);
    const ring = Math.PI * (90 ** 2 - 40 ** 2) * 20;
    expect(footClay(piece, 30, 2.5).volumeMm3 / ring).toBeCloseTo(1, 1);
    expect(footClay(piece, 15, 2.5).mesh).toBeNull();
    const jacket = makeJacket(piece, { ...request, onBoard: true, footClayMm: 30 }, ctx);
    // With the gap closed its outside is a drum's.
    const drum = Math.PI * 98 ** 2 * 88;
    expect(jacket.outerVolumeMm3 / drum).toBeGreaterThan(0.97);
    expect(jacket.outerVolumeMm3 / drum).toBeLessThan(1.01);
    expect(jacket.siliconeMm3).toBeGreaterThan(0);
  });
});

describe("distances made true again", () => {
  it("are those of the surface the field had, whatever its values were", () => {
    const jacket = makeJacket(sphere(100, 64), request, ctx);
    // The same inside and outside, at a tenth of the distances.
    const flat = jacket.phi.map((value) => value / 10);
    const changed = new Uint8Array(jacket.grid.slotOf.length).fill(1);
    redistance(jacket.grid, flat, isosurface(jacket.grid, flat, 0, ctx), changed, ctx);
    let most = 0;
    for (let n = 0; n < flat.length; n++)
      if (Math.abs(jacket.phi[n]) < 3.5) most = Math.max(most, Math.abs(flat[n] - jacket.phi[n]));
    expect(most).toBeLessThan(0.4);
  });
});

describe("travel", () => {
  it("is as far as the other part of the body is in the way, and tells whether the board is", () => {
    const jacket = makeJacket(moved(sphere(100, 48), 0, 0, 100), { ...request, onBoard: true }, ctx);
    const body = bareBody(jacket, ctx);
    const up = travelOf(jacket.mesh, [0, 0, 1], body, 15);
    // The foot of the ball passes all of it: two radii and two coats, and a finger's room.
    expect(up.travelMm).toBeGreaterThan(200);
    expect(up.travelMm).toBeLessThan(250);
    expect(up.lifted).toBe(false);
    expect(travelOf(jacket.mesh, [0, 0, -1], body, 15).lifted).toBe(true);
  });
});
