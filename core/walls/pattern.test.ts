import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { round, upright, WIDTH_MM, wallOf } from "../testing/walls.ts";
import { type PatternPiece, patternsOf } from "./pattern.ts";
import type { Wall } from "./walls.ts";

/** A wall that stands upright on straight legs, each turned from the one before it. */
function facets(legs: readonly { readonly lengthMm: number; readonly turnDeg: number }[]): Wall {
  const foot: number[] = [];
  let [x, y, heading] = [0, 0, 0];
  legs.forEach(({ lengthMm, turnDeg }, k) => {
    heading += k === 0 ? 0 : (turnDeg * Math.PI) / 180;
    for (let n = k === 0 ? 0 : 1; n <= Math.round(lengthMm / 5); n++) {
      if (k > 0 || n > 0) [x, y] = [x + 5 * Math.cos(heading), y + 5 * Math.sin(heading)];
      foot.push(x, y, 0);
    }
  });
  const head = foot.map((value, k) => (k % 3 === 2 ? value + WIDTH_MM : value));
  const widthsMm = new Float64Array(foot.length / 3).fill(WIDTH_MM);
  return { ...upright, foot: Float64Array.from(foot), head: Float64Array.from(head), widthsMm };
}

/** A piece of a pattern folded along its bends, each by its angle: foot and head in turn, xyz; its face towards +z. */
function foldedBack({ foot, head, bends }: PatternPiece): number[][] {
  const at = ({ foot: [x, y] }: { foot: readonly [number, number] }) =>
    foot.findIndex(([u, v]) => Math.hypot(u - x, v - y) < 1e-6);
  const places = foot.flatMap((point, k) => [point, head[k]]).map(([x, y]) => [x, y, 0]);
  // From the last fold back to the first: what lies beyond each is turned about it.
  for (const bend of [...bends].sort((a, b) => at(b) - at(a))) {
    const k = at(bend);
    const [o, h] = [places[2 * k], places[2 * k + 1]];
    const axis = [0, 1, 2].map((a) => (h[a] - o[a]) / Math.hypot(...[0, 1, 2].map((b) => h[b] - o[b])));
    const onwards = [0, 1].map((a) => foot[k + 1][a] - foot[k][a]);
    const sign = Math.sign(axis[0] * onwards[1] - axis[1] * onwards[0]);
    for (let n = 2 * k + 2; n < places.length; n++)
      places[n] = turnedAbout(places[n], o, axis, (sign * bend.deg * Math.PI) / 180);
  }
  return places;
}

/** Rodrigues' rotation of a place about a line. */
function turnedAbout(p: readonly number[], o: readonly number[], u: readonly number[], by: number): number[] {
  const v = p.map((value, a) => value - o[a]);
  const cross = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const along = u[0] * v[0] + u[1] * v[1] + u[2] * v[2];
  return v.map((x, a) => o[a] + x * Math.cos(by) + cross[a] * Math.sin(by) + u[a] * along * (1 - Math.cos(by)));
}

/** Six times the volume of a tetrahedron, with its sign. */
function volumeOf(...corners: readonly number[][]): number {
  const [a, b, c] = corners.slice(1).map((p) => p.map((value, k) => value - corners[0][k]));
  return a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
}

const lengthOf = (points: readonly (readonly [number, number])[]) =>
  points.slice(1).reduce((sum, [x, y], k) => sum + Math.hypot(x - points[k][0], y - points[k][1]), 0);

describe("a wall's pattern", () => {
  const [pattern] = patternsOf([upright], 0);

  it("is as long and as large as the wall, and says which side is seen", () => {
    expect(pattern.patternLengthMm).toBeCloseTo(420, 6);
    expect(pattern.areaMm2).toBeCloseTo(420 * WIDTH_MM, 3);
    expect(pattern.seenFrom).toBe(2);
    expect(pattern.pieces).toHaveLength(1);
    const [{ widthMm, heightMm, foot }] = pattern.pieces;
    expect([widthMm, heightMm].map(Math.round)).toEqual([420, WIDTH_MM]);
    expect(lengthOf(foot)).toBeCloseTo(420, 6);
  });

  it("has running marks every 50 mm, no bend where it is flat, and an arrow that points up along it", () => {
    const [{ running, bends, up, foot }] = pattern.pieces;
    expect(running.map(({ mm }) => mm)).toEqual([50, 100, 150, 200, 250, 300, 350, 400]);
    for (const { foot: at, mm } of running)
      expect(Math.hypot(at[0] - foot[0][0], at[1] - foot[0][1])).toBeCloseTo(mm, 6);
    expect(bends).toEqual([]);
    const [from, to] = up as readonly [[number, number], [number, number]];
    const last = foot[foot.length - 1];
    const along = (to[0] - from[0]) * (last[0] - foot[0][0]) + (to[1] - from[1]) * (last[1] - foot[0][1]);
    expect(along).toBeGreaterThan(0);
    expect(Math.abs(along)).toBeCloseTo(Math.hypot(to[0] - from[0], to[1] - from[1]) * 420, 3);
  });

  it("is marked where it bends, with the angle, to the side it is seen from", () => {
    const [{ pieces }] = patternsOf([round], null);
    const degs = pieces.flatMap(({ bends }) => bends.map(({ deg }) => deg));
    expect(degs.length).toBeGreaterThan(4);
    // 50 mm along a bend of 200 mm; what is left at the end is less.
    for (const deg of degs.slice(0, -1)) expect(Math.abs(deg)).toBeCloseTo(((50 / 200) * 180) / Math.PI, 0);
    expect(new Set(degs.map(Math.sign)).size).toBe(1);
    const mirrored = wallOf(100 * Math.PI, (mm) => {
      const [x, y] = [200 * Math.cos(mm / 200), -200 * Math.sin(mm / 200)];
      return [
        [x, y, 500],
        [x, y, 500 + WIDTH_MM],
      ];
    });
    const [{ pieces: other }] = patternsOf([mirrored], null);
    expect(Math.sign(other[0].bends[0].deg)).toBe(-Math.sign(degs[0]));
  });

  it("folded back along its bend marks lands on the wall within a millimetre", () => {
    const leg = fc.record({ lengthMm: fc.integer({ min: 60, max: 240 }), turnDeg: fc.integer({ min: -70, max: 70 }) });
    fc.assert(
      fc.property(fc.array(leg, { minLength: 1, maxLength: 6 }), (legs) => {
        const wall = facets(legs.filter(({ turnDeg }, k) => k === 0 || Math.abs(turnDeg) > 8));
        for (const piece of patternsOf([wall], null)[0].pieces) {
          const folded = foldedBack(piece);
          const from = Math.round(piece.fromMm / 5);
          const there = folded.map((_, n) => {
            const edge = n % 2 === 0 ? wall.foot : wall.head;
            return [...edge.subarray(3 * (from + (n >> 1)), 3 * (from + (n >> 1)) + 3)];
          });
          // The same distances between all places, and not its mirror image.
          for (let n = 0; n < there.length; n += 7)
            for (let m = 0; m < n; m += 5) {
              const [now, then] = [folded, there].map((p) => Math.hypot(...[0, 1, 2].map((a) => p[n][a] - p[m][a])));
              expect(Math.abs(now - then)).toBeLessThan(1);
            }
          const turned = [folded, there].map((p) => volumeOf(p[0], p[1], p[Math.floor(p.length / 2)], p[p.length - 1]));
          if (Math.abs(turned[1]) > 1000) expect(Math.sign(turned[0])).toBe(-Math.sign(turned[1]));
        }
      }),
      { numRuns: 60, seed: 5 },
    );
  });

  it("has the same letter on walls that meet, and the board where it stands on it", () => {
    const [top, side] = patternsOf(
      [
        upright,
        wallOf(200, (mm) => [
          [100, mm, 420],
          [100 + WIDTH_MM, mm, 420],
        ]),
      ],
      0,
    );
    expect(top.ends).toEqual(["board", "A"]);
    expect(side.ends).toEqual(["A", "B"]);
  });
});
