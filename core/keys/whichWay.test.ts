import { describe, expect, it } from "vitest";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { bareBody } from "../plan/proof/freeing.ts";
import { box, cylinder, lBlock, moved } from "../testing/shapes.ts";
import { notToldByKeys, otherWays, wayMark } from "./whichWay.ts";

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

describe("what lets a jacket in one way only", () => {
  const box = { min: [-150, -60, 0], max: [150, 60, 200] };
  const ways = [{ turnDeg: 180, offMm: 1 }];
  const at = (x: number, y: number) => ({ at: [x, y, 80] as const });

  it("is nothing where keys tell", () => {
    expect(wayMark(ways, [at(100, 0)], box)).toBeNull();
    expect(wayMark([], [at(100, 0), at(-100, 0)], box)).toBeNull();
  });

  it("is the key that moves farthest, made otherwise: none like it comes to lie on its place", () => {
    const keys = [at(40, 0), at(-40, 0), at(110, 20), at(-110, -20)];
    const mark = wayMark(ways, keys, box);
    expect(mark).toEqual({ kind: "odd key", key: 2, at: [110, 20, 80] });
  });

  it("is a notch in the rim at the front where there is no key, or all stand about the axis", () => {
    for (const keys of [[], [at(5, 0), at(-5, 0)]])
      expect(wayMark(ways, keys, box)).toEqual({ kind: "notch", at: [0, -60, 0] });
  });
});
