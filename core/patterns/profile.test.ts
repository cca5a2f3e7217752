import { describe, expect, it } from "vitest";
import { box, moved, sphere, torus } from "../testing/shapes.ts";
import { cutPlane, inSpace, LEVEL, profileDrawing, profileOf, profileRange } from "./profile.ts";

const lengthOf = (points: readonly (readonly [number, number])[], closed: boolean) =>
  points.reduce((sum, [x, y], k) => {
    const before = k > 0 ? points[k - 1] : closed ? points[points.length - 1] : points[0];
    return sum + Math.hypot(x - before[0], y - before[1]);
  }, 0);

describe("a profile", () => {
  it("of a ball is a circle in any plane, as long as it should be", () => {
    const ball = moved(sphere(200, 128), 10, 20, 230);
    for (const [plane, at] of [
      [LEVEL, 230 + 120],
      [cutPlane("front"), 20 - 120],
      [cutPlane("side"), 10 + 120],
    ] as const) {
      const lines = profileOf([ball], plane, at);
      expect(lines).toHaveLength(1);
      expect(lines[0].closed).toBe(true);
      expect(lengthOf(lines[0].points, true) / (2 * Math.PI * 160)).toBeCloseTo(1, 2);
      const space = inSpace(lines[0], plane, at);
      for (let k = 0; k < space.length; k += 3)
        expect(Math.abs(Math.hypot(space[k] - 10, space[k + 1] - 20, space[k + 2] - 230) - 200)).toBeLessThan(0.5);
    }
  });

  it("in a plane that is turned and leaned is as large as it is, and lies in that plane", () => {
    const ball = sphere(200, 128);
    for (const [bearing, lean] of [
      [30, 0],
      [-75, 40],
      [120, -60],
    ]) {
      const plane = cutPlane("any", bearing, lean);
      const { across, right, up } = plane;
      for (const [a, b] of [
        [across, right],
        [right, up],
        [up, across],
      ])
        expect(a[0] * b[0] + a[1] * b[1] + a[2] * b[2]).toBeCloseTo(0, 12);
      const [line] = profileOf([ball], plane, 120);
      expect(lengthOf(line.points, true) / (2 * Math.PI * 160)).toBeCloseTo(1, 2);
      const space = inSpace(line, plane, 120);
      for (let k = 0; k < space.length; k += 3)
        expect(across[0] * space[k] + across[1] * space[k + 1] + across[2] * space[k + 2]).toBeCloseTo(120, 3);
    }
    // A post of 100 mm, cut from corner to corner.
    const [cut] = profileOf([moved(box(100, 100, 300), 0, 0, 0)], cutPlane("any", 45), 0.001);
    expect(lengthOf(cut.points, true)).toBeCloseTo(2 * (100 * Math.SQRT2 + 300), 0);
    expect(profileRange({ min: [-50, -50, 0], max: [50, 50, 9] }, cutPlane("any", 45))[1]).toBeCloseTo(
      50 * Math.SQRT2,
      6,
    );
  });

  it("of a ring lying flat is two circles level, and two sections of its tube upright", () => {
    const ring = torus(150, 40);
    const level = profileOf([ring], LEVEL, 0).map(({ points }) => lengthOf(points, true) / (2 * Math.PI));
    expect(level.sort((a, b) => a - b).map(Math.round)).toEqual([110, 190]);
    expect(profileOf([ring], cutPlane("front"), 0)).toHaveLength(2);
  });

  it("of a skin with an edge is an open line, and keeps the number of its mesh", () => {
    const { positions, triangles } = sphere(100, 32);
    const top = triangles.filter((_, k) => {
      const first = k - (k % 3);
      return [0, 1, 2].every((c) => positions[3 * triangles[first + c] + 2] > 0);
    });
    const lines = profileOf([box(1, 1, 1), { positions, triangles: Uint32Array.from(top) }], cutPlane("front"), 5);
    expect(lines).toHaveLength(1);
    expect([lines[0].closed, lines[0].mesh]).toEqual([false, 1]);
  });

  it("runs through vertices that lie just in its plane", () => {
    const lines = profileOf([sphere(100, 64)], LEVEL, 0);
    expect(lines).toHaveLength(1);
    expect(lines[0].closed).toBe(true);
    expect(lengthOf(lines[0].points, true) / (2 * Math.PI * 100)).toBeCloseTo(1, 2);
  });

  it("is drawn at 1:1 with its name and crosses every 100 mm, and is nothing beside the piece", () => {
    const lines = profileOf([moved(box(300, 200, 100), 0, 0, 50)], LEVEL, 50);
    const drawing = profileDrawing(lines, "Level, 50 mm up", ["section 1"]);
    const [outline] = drawing.lines.filter(({ layer }) => layer === "cut");
    expect(lengthOf(outline.points, true)).toBeCloseTo(1000, 6);
    expect(drawing.lines.filter(({ layer }) => layer === "mark")).toHaveLength(2 * 3 * 3);
    expect(drawing.texts.map(({ text }) => text)).toEqual(["Level, 50 mm up", "section 1"]);
    expect(profileOf([box(10, 10, 10)], LEVEL, 500)).toEqual([]);
    expect(profileDrawing([], "nothing", []).widthMm).toBe(0);
    expect(profileRange({ min: [-1, -2, 0], max: [1, 2, 9] }, LEVEL)).toEqual([0, 9]);
  });
});
