import { describe, expect, it } from "vitest";
import { round, upright, WIDTH_MM, wallOf } from "../testing/walls.ts";
import { patternsOf } from "./pattern.ts";

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
    // 50 mm along a bend of 200 mm, less the two halves of a ruling that the marks' ends see.
    for (const deg of degs) expect(Math.abs(deg)).toBeCloseTo(((45 / 200) * 180) / Math.PI, 0);
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
