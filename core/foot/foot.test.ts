import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { refined } from "../mesh/refine.ts";
import { box, lathe, moved } from "../testing/shapes.ts";
import { alongBoard, footAreaAt } from "./along.ts";
import { EdgeBuckets } from "./edgeBuckets.ts";
import { type FootprintRequest, footprintDrawing, footprintOf } from "./footprint.ts";
import { areaOf, lengthOf, type Place, type Ring, ringsOutside } from "./offset.ts";
import { TYPICAL_FOOT } from "./settings.ts";

/** Distance from the nearest edge of some rings, all of them tried; below 0 inside. */
function signedDistanceMm(rings: readonly Ring[], [x, y]: Place): number {
  let [least2, inside] = [Number.POSITIVE_INFINITY, false];
  for (const ring of rings)
    for (let k = 0; k < ring.length; k++) {
      const [[ax, ay], [bx, by]] = [ring[k], ring[(k + 1) % ring.length]];
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
      const [ux, uy] = [bx - ax, by - ay];
      const share = Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy || 1)));
      least2 = Math.min(least2, (ax + share * ux - x) ** 2 + (ay + share * uy - y) ** 2);
    }
  return inside ? -Math.sqrt(least2) : Math.sqrt(least2);
}

/** A star-shaped ring, against the clock. */
const star = fc.array(fc.integer({ min: 60, max: 260 }), { minLength: 5, maxLength: 24 }).map((radii) =>
  radii.map((radius, k): Place => {
    const turn = (2 * Math.PI * k) / radii.length;
    return [radius * Math.cos(turn), radius * Math.sin(turn)];
  }),
);

describe("rings outside others", () => {
  it("lie at their distance all round, and enclose what they are drawn about", () => {
    fc.assert(
      fc.property(star, fc.integer({ min: 10, max: 120 }), (ring, byMm) => {
        const [outer] = ringsOutside([ring], byMm).sort((a, b) => lengthOf(b) - lengthOf(a));
        expect(areaOf(outer)).toBeGreaterThan(areaOf(ring));
        for (const place of outer) expect(Math.abs(signedDistanceMm([ring], place) - byMm)).toBeLessThan(2);
      }),
      { numRuns: 30 },
    );
  });

  it("are measured from the nearest edge, wherever a place lies, and whatever holes there are", () => {
    const anywhere = fc.tuple(fc.integer({ min: -500, max: 900 }), fc.integer({ min: -500, max: 500 }));
    fc.assert(
      fc.property(star, star, fc.array(anywhere, { minLength: 20, maxLength: 40 }), (ring, other, places) => {
        const small = ring.map(([x, y]): Place => [x / 3, y / 3]).reverse();
        const rings = [ring, small, other.map(([x, y]): Place => [x + 420, y])];
        const edges = new EdgeBuckets(rings);
        const beside = rings.flat().map(([x, y]): Place => [x + 0.3, y - 0.2]);
        for (const [n, place] of [...places, ...beside].entries()) {
          // Wherever it begins to look.
          const { mm, ring: r, point } = edges.nearest(place, (7 * n) % rings.flat().length);
          expect(mm).toBeCloseTo(signedDistanceMm(rings, place), 6);
          // The edge that it names is as near.
          const pair = [rings[r][point], rings[r][(point + 1) % rings[r].length]];
          expect(Math.abs(signedDistanceMm([pair], place))).toBeCloseTo(Math.abs(mm), 6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("grow about a convex ring by its length times the distance, and a circle (Steiner)", () => {
    const square: Place[] = [
      [0, 0],
      [300, 0],
      [300, 200],
      [0, 200],
    ];
    const [outer] = ringsOutside([square], 50);
    expect(areaOf(outer) / (300 * 200 + 1000 * 50 + Math.PI * 2500)).toBeCloseTo(1, 2);
  });

  it("are told by their areas at every width, those of feet that meet once", () => {
    // Walls of posts, open at the board.
    const walls = (centres: readonly number[], radius: number): TriangleMesh => {
      const positions: number[] = [];
      const triangles: number[] = [];
      for (const x of centres) {
        const first = positions.length / 3;
        for (let n = 0; n < 64; n++) {
          const [c, s] = [Math.cos((Math.PI * n) / 32), Math.sin((Math.PI * n) / 32)];
          positions.push(x + radius * c, radius * s, 0, x + radius * c, radius * s, 50);
          const [low, next] = [first + 2 * n, first + 2 * ((n + 1) % 64)];
          triangles.push(low, next, next + 1, low, next + 1, low + 1);
        }
      }
      return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
    };
    const one = alongBoard([walls([0], 80)], 0, 5);
    expect(one.lengthsMm[0] / (2 * Math.PI * 80)).toBeCloseTo(1, 2);
    for (const mm of [20, 55, 100]) {
      const ring = Math.PI * ((80 + mm) ** 2 - 80 ** 2);
      expect(Math.abs(footAreaAt(one.areasMm2[0], mm) / ring - 1)).toBeLessThan(0.02);
    }
    // Two posts whose rings of 50 mm overlap in a lens.
    const { areasMm2 } = alongBoard([walls([0], 80), walls([200], 80)], 0, 5);
    const lens = 2 * 130 ** 2 * Math.acos(100 / 130) - 200 * Math.sqrt(130 ** 2 - 100 ** 2);
    const both = 2 * Math.PI * (130 ** 2 - 80 ** 2) - lens;
    expect(Math.abs((footAreaAt(areasMm2[0], 50) + footAreaAt(areasMm2[1], 50)) / both - 1)).toBeLessThan(0.02);
    expect(footAreaAt(areasMm2[0], 50) / footAreaAt(areasMm2[1], 50)).toBeCloseTo(1, 1);
  });

  it("are one where two feet stand close", () => {
    const post = (x: number): Place[] => [
      [x, 0],
      [x + 50, 0],
      [x + 50, 50],
      [x, 50],
    ];
    expect(ringsOutside([post(0), post(90)], 30)).toHaveLength(1);
    expect(ringsOutside([post(0), post(300)], 30)).toHaveLength(2);
  });
});

describe("the footprint on the board", () => {
  const walls = [
    {
      ...{ sections: [1, 2] as const, closed: false, wantedMm: 45, narrowed: [], folds: [] },
      foot: Float64Array.from([208, 0, 0, 208, 0, 200]),
      head: Float64Array.from([253, 0, 0, 253, 0, 200]),
      widthsMm: Float64Array.from([45, 45]),
    },
  ];
  const post = (radius: number) =>
    lathe(
      [
        [0, 400],
        [radius, 400],
        [radius, 0],
        [0, 0],
      ],
      128,
    );
  const request: FootprintRequest = {
    ...{ piece: post(200), jacket: post(208), boardMm: 0, rimMm: 60, walls, boltMm: 6, flangeMm: 25 },
    foot: { ...TYPICAL_FOOT, isBolted: true, pourHoleMm: 120 },
  };

  it("has the rim, the foot and a board with room for hands", () => {
    const { piece, jacket, rim, foot, boardMm } = footprintOf(request);
    const across = (rings: readonly (readonly Place[])[]) => {
      const xs = rings.flat().map(([x]) => x);
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(across(piece)).toBeCloseTo(400, 0);
    expect(across(jacket)).toBeCloseTo(416, 0);
    expect(Math.abs(across(rim) - 536)).toBeLessThan(4);
    expect(Math.abs(across(foot) - 616)).toBeLessThan(4);
    expect(Math.abs(boardMm[0] - 916)).toBeLessThan(4);
  });

  it("has its bolts beyond the rim, no farther apart than the pitch but beside a flange, and none under it", () => {
    const { bolts } = footprintOf(request);
    expect(bolts.length).toBeGreaterThanOrEqual(8);
    for (const { at } of bolts) {
      expect(Math.hypot(...at)).toBeGreaterThan(268 + 12);
      expect(Math.hypot(...at)).toBeLessThan(308 - 12);
      // The flange stands out along x.
      if (at[0] > 0) expect(Math.abs(at[1])).toBeGreaterThanOrEqual(25);
    }
  });

  it("has a pour hole within the piece, and none where the piece is too narrow for one", () => {
    const { pourHole } = footprintOf(request);
    expect(pourHole?.acrossMm).toBe(120);
    expect(Math.hypot(...(pourHole?.at ?? [99, 99]))).toBeLessThan(25);
    const narrow = { ...request, piece: moved(refined(box(50, 50, 300), 25), 0, 0, 150) };
    expect(footprintOf(narrow).pourHole).toBeNull();
  });

  it("is drawn at 1:1 with every hole on it, and nothing outside the sheet", () => {
    const footprint = footprintOf(request);
    const words = { title: "t", piece: "p", jacket: "j", rim: "r", foot: "f", pourHole: "h" };
    const drawing = footprintDrawing(footprint, walls, 0, 6, words);
    expect(drawing.circles).toHaveLength(footprint.bolts.length + 1);
    const cut = drawing.lines.find(({ layer }) => layer === "cut");
    expect(areaOf(cut?.points ?? []) / areaOf(footprint.foot[0])).toBeCloseTo(1, 9);
    for (const [x, y] of drawing.lines.flatMap(({ points }) => points)) {
      expect(Math.min(x, y, drawing.widthMm - x, drawing.heightMm - y)).toBeGreaterThanOrEqual(0);
    }
  });
});
