import { describe, expect, it } from "vitest";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { bareBody } from "../plan/proof/freeing.ts";
import { box, cylinder, lBlock, moved } from "../testing/shapes.ts";
import { notToldByKeys, otherWays } from "./whichWay.ts";

function waysOf(piece: TriangleMesh) {
  const coats = [{ thicknessMm: 4, thickened: false }];
  const plain = { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], footClayMm: 0, onBoard: false, stepMm: 6 };
  const jacket = makeJacket(piece, plain, ctx);
  return otherWays(bareBody(jacket, ctx), jacket.mesh);
}

describe("the ways a jacket fits", () => {
  it("are two for an oblong block, four for a square one, and any for a drum", () => {
    const oblong = waysOf(moved(box(300, 120, 200), 40, 0, 100));
    expect(oblong.map(({ turnDeg }) => Math.round(turnDeg / 10))).toEqual([18]);
    expect(oblong[0].offMm).toBeLessThan(4);
    const square = waysOf(moved(box(200, 200, 150), 0, 0, 75)).map(({ turnDeg }) => Math.round(turnDeg / 10));
    expect(square).toEqual([9, 18, 27]);
    expect(waysOf(cylinder(120, 200)).length).toBeGreaterThan(8);
  });

  it("are none but the right one for an L", () => {
    expect(waysOf(lBlock(300, 120, 160))).toEqual([]);
  });
});

describe("keys", () => {
  const ways = [{ turnDeg: 180, offMm: 1 }];

  it("tell the ways apart where one comes to lie on no other", () => {
    const lone = [{ at: [100, 0, 50] as const }];
    const pair = [...lone, { at: [-100, 0, 50] as const }];
    expect(notToldByKeys(ways, lone, [0, 0])).toEqual([]);
    expect(notToldByKeys(ways, pair, [0, 0])).toEqual(ways);
    expect(notToldByKeys(ways, pair, [20, 0])).toEqual([]);
    // No keys tell nothing apart.
    expect(notToldByKeys(ways, [], [0, 0])).toEqual(ways);
  });
});
