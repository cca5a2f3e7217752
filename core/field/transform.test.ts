import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { evenly } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import { coarsened } from "./coarsen.ts";
import { type Features, NO_FEATURE } from "./features.ts";
import { BRICK, type BrickGrid, gridFromActive, nodeAt, nodeCount, nodePoint, sampleAt } from "./grid.ts";
import { NearestField } from "./nearest.ts";
import { propagateFeatures } from "./transform.ts";

const dense = (bricks: readonly [number, number, number]): BrickGrid =>
  gridFromActive([0, 0, 0], 1, bricks, new Uint8Array(bricks[0] * bricks[1] * bricks[2]).fill(1));

/** Features at places of a grid, each seeded in its cell. */
function seeded(grid: BrickGrid, places: readonly (readonly number[])[]) {
  const nodeFeature = new Int32Array(nodeCount(grid)).fill(NO_FEATURE);
  const kept: number[][] = [];
  for (const [x, y, z] of places) {
    const node = nodeAt(grid, Math.round(x), Math.round(y), Math.round(z));
    if (nodeFeature[node] !== NO_FEATURE) continue;
    nodeFeature[node] = kept.length;
    kept.push([x, y, z]);
  }
  const features: Features = {
    points: Float32Array.from(kept.flat()),
    owner: Int32Array.from(kept.keys()),
    count: kept.length,
  };
  return { nodeFeature, features };
}

const SIDE = 2 * BRICK;
const placesOf = (place: fc.Arbitrary<number>) =>
  fc.array(fc.tuple(place, place, place), { minLength: 1, maxLength: 12 });

/** How much farther than the nearest the feature told at some nodes is, at most. */
function excess(given: readonly (readonly number[])[]): number {
  const grid = dense([2, 2, 2]);
  const { nodeFeature, features } = seeded(grid, given);
  propagateFeatures(grid, features, nodeFeature, ctx, { name: "test", from: 0, to: 1 });
  const at = new Float64Array(3);
  const away = (f: number) => Math.hypot(...[0, 1, 2].map((a) => features.points[3 * f + a] - at[a]));
  let most = 0;
  for (let n = 0; n < nodeFeature.length; n += 7) {
    nodePoint(grid, n, at, 0);
    const least = Math.min(...Array.from({ length: features.count }, (_, f) => away(f)));
    most = Math.max(most, away(nodeFeature[n]) - least);
  }
  return most;
}

describe("the distance transform", () => {
  it("finds at every node the nearest of all features that lie on nodes, as a search through them does", () => {
    fc.assert(
      fc.property(placesOf(fc.nat(SIDE - 1)), (given) => {
        expect(excess(given)).toBeLessThan(1e-5);
      }),
      { numRuns: 40 },
    );
  });

  it("is out by less than a cell where features lie anywhere in their cells", () => {
    fc.assert(
      fc.property(placesOf(evenly(0, SIDE - 1)), (given) => {
        expect(excess(given)).toBeLessThan(1);
      }),
      { numRuns: 40 },
    );
  });

  it("leaves everything without a feature where there is none", () => {
    const grid = dense([1, 1, 1]);
    const { nodeFeature, features } = seeded(grid, []);
    propagateFeatures(grid, features, nodeFeature, ctx, { name: "test", from: 0, to: 1 });
    expect(new Set(nodeFeature)).toEqual(new Set([NO_FEATURE]));
  });
});

describe("a coarser grid", () => {
  const grid = dense([4, 4, 4]);
  const at = new Float64Array(3);
  const values = Float32Array.from({ length: nodeCount(grid) }, (_, n) => {
    nodePoint(grid, n, at, 0);
    return at[0] + 2 * at[1] - at[2];
  });

  it("has the same field where its nodes are", () => {
    const coarse = coarsened(grid, values, 2);
    expect(coarse.grid.stepMm).toBe(2);
    for (const [x, y, z] of [
      [3, 5, 7],
      [10.5, 4.25, 12],
      [20, 21, 22],
    ])
      expect(sampleAt(coarse.grid, coarse.values, x, y, z, Number.NaN)).toBeCloseTo(x + 2 * y - z, 4);
  });

  it("is the grid itself where it is no coarser", () => {
    expect(coarsened(grid, values, 1)).toEqual({ grid, values });
  });

  it("has its nodes at the same places whatever grid the field is known on", () => {
    const places = [grid, { ...grid, stepMm: 0.8, originMm: [1.1, -0.2, 0.7] as const }].map(({ ...fine }) => {
      const { grid: coarse } = coarsened(fine, values, 2.5);
      nodePoint(coarse, 0, at, 0);
      return Array.from(at, (mm) => ((mm % 2.5) + 2.5) % 2.5);
    });
    for (let a = 0; a < 3; a++) expect(places[0][a]).toBeCloseTo(places[1][a], 9);
  });
});

describe("the nearest place", () => {
  it("is told by a node far off and exactly near by", () => {
    const ball = sphere(60, 64);
    const field = NearestField.about(ball, 4, ctx);
    fc.assert(
      fc.property(evenly(0, 2 * Math.PI), evenly(-1, 1), evenly(20, 64), (turn, z, away) => {
        const r = Math.sqrt(1 - z * z);
        const [x, y, up] = [away * r * Math.cos(turn), away * r * Math.sin(turn), away * z];
        // The ball's facets lie up to 0.1 mm inside it.
        expect(Math.abs(field.distance(x, y, up) - Math.abs(60 - away))).toBeLessThan(0.15);
        expect(Math.abs(field.distanceNear(10, x, y, up) - Math.abs(60 - away))).toBeLessThan(away > 54 ? 0.15 : 9);
      }),
    );
  });
});
