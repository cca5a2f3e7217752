import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Jacket, makeJacket } from "../../jacket/jacket.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { areaAndVolume, type TriangleMesh } from "../../mesh/mesh.ts";
import { Body } from "../../release/body.ts";
import { type Direction, pullDirections } from "../../space/directions.ts";
import { lumps, lumpy } from "../../testing/random.ts";
import { mushroom, sphere } from "../../testing/shapes.ts";
import { bareBody, type FreeRequest, freeSections, hullOf } from "./freeing.ts";

const GIVE_MM = 1.5;
const coats = [{ id: "coat-1", thicknessMm: 4, thickened: true, pigment: "#cccccc" }];
const jacketOn = (piece: TriangleMesh, stepMm: number, onBoard = true): Jacket =>
  makeJacket(piece, { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard, stepMm }, ctx);
const hullMm3 = (jacket: Jacket, pulls: readonly Direction[]) =>
  areaAndVolume(hullOf(jacket, bareBody(jacket, ctx), pulls, GIVE_MM, ctx).mesh).volumeMm3 -
  areaAndVolume(jacket.mesh).volumeMm3;

describe("the visible hull", () => {
  const jacket = jacketOn(mushroom(60, 40, 90, 40, 96), 4);

  it("is the body itself where every place is seen by some pull", () => {
    const sideways: Direction[] = [
      [1, 0, 0],
      [-1, 0, 0],
    ];
    expect(Math.abs(hullMm3(jacket, sideways))).toBeLessThan(2000);
  });

  it("has the ring under a mushroom's cap where it is pulled up alone, at any step", () => {
    // From the jacket round the stem to just within the rim, up to the cap's underside.
    const rim = 94 - 0.25 * GIVE_MM;
    const ring = Math.PI * (rim ** 2 - 64 ** 2) * 36;
    for (const stepMm of [6, 4, 3]) {
      const found = hullMm3(jacketOn(mushroom(60, 40, 90, 40, 96), stepMm), [[0, 0, 1]]);
      expect(found / ring).toBeGreaterThan(0.93);
      expect(found / ring).toBeLessThan(1.03);
    }
  });

  it("lets every place outside it leave along one of its pulls", () => {
    const PULLS = pullDirections(30);
    fc.assert(
      fc.property(lumps, fc.nat(PULLS.length - 1), fc.nat(PULLS.length - 1), (waves, first, second) => {
        const piece = jacketOn(lumpy(sphere(90, 24), waves), 6, false);
        const pulls = [PULLS[first], PULLS[second], [0, 0, 1] as Direction];
        const { body: data, mesh } = hullOf(piece, bareBody(piece, ctx), pulls, GIVE_MM, ctx);
        const body = new Body(data);
        const p = mesh.positions;
        for (let v = 0; v < p.length; v += 3 * 37) {
          const [x, y, z] = [p[v], p[v + 1], p[v + 2]];
          // A little off the surface, whichever way that is.
          const [a, b, c] = [x, y, z].map((value) => value * (1 + 2 / Math.hypot(x, y, z)));
          if (body.at(a, b, c) < 1) continue;
          const clear = Math.max(...pulls.map((d) => body.leastAlong(a, b, c, ...d, Infinity, -9)));
          // The hull ends at the box of the grid: one pull's shadow behind the body is cut off there.
          expect(clear).toBeGreaterThan(-GIVE_MM);
        }
      }),
      { numRuns: 5, seed: 12 },
    );
  });
});

describe("sections freed by what is filled", () => {
  const low = jacketOn(mushroom(60, 40, 78, 40, 96), 4);
  const up: readonly Direction[] = [[0, 0, 1]];
  const freed = (open: boolean, mostFillMm3 = Infinity, runOn: FreeRequest["runOn"] = null) => {
    const hull = open
      ? { body: bareBody(low, ctx), mesh: low.mesh }
      : hullOf(low, bareBody(low, ctx), up, GIVE_MM, ctx);
    const start = open
      ? hullOf(
          low,
          bareBody(low, ctx),
          [
            [1, 0, 0],
            [-1, 0, 0],
          ],
          GIVE_MM,
          ctx,
        )
      : hull;
    const potentials = [new Float32Array(start.mesh.positions.length / 3).fill(1)];
    const limits = { giveMm: GIVE_MM, rounds: 4, mostFillMm3, leastMm2: 0 };
    const request = { jacket: low, pulls: up, open: [open], runOn, ...limits };
    return freeSections(start as ReturnType<typeof hullOf>, potentials, request, ctx);
  };

  it("bite no deeper than the give", () => {
    expect(freed(false).bites[0].biteMm).toBeLessThanOrEqual(GIVE_MM);
  });

  it("are told how deep they would bite, and where, when they are left open", () => {
    const [bite] = freed(true).bites;
    // The rim of the cap stands out 18 mm over the stem, and is 48 mm thick.
    expect(bite.biteMm).toBeGreaterThan(6);
    expect(bite.at?.[2]).toBeLessThan(45);
    expect(bite.points.length).toBeGreaterThan(40);
  });

  it("have their lines run on where they still come off so", () => {
    const doubled = freed(false, Infinity, (_, potentials) => potentials.map((own) => own.map((value) => 2 * value)));
    expect(Math.max(...doubled.potentials[0])).toBeCloseTo(2, 3);
    expect(doubled.bites[0].biteMm).toBeLessThanOrEqual(GIVE_MM);
  });
});
