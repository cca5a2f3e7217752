import { describe, expect, it } from "vitest";
import { sheetDxf, sheetSvg } from "../export/sheets.ts";
import { patternsOf, type WallPattern } from "./pattern.ts";
import { CHECK_BAR_MM, sheetOf } from "./sheet.ts";
import type { Wall } from "./walls.ts";

const WIDTH_MM = 45;

/** A wall whose rulings are given by their share of its length. */
function wallOf(lengthMm: number, at: (mm: number) => readonly [number[], number[]], closed = false): Wall {
  const count = Math.round(lengthMm / 5);
  const places = Array.from({ length: count + 1 }, (_, k) => at((lengthMm * k) / count));
  const foot = Float64Array.from(places.flatMap(([f]) => f));
  const head = Float64Array.from(places.flatMap(([, h]) => h));
  return {
    ...{ foot, head, closed, sections: [1, 2], narrowed: [], folds: [] },
    widthsMm: new Float64Array(count + 1).fill(WIDTH_MM),
  };
}

/** Straight up a tube, its wall standing out along x. */
const upright = wallOf(420, (mm) => [
  [100, 0, mm],
  [100 + WIDTH_MM, 0, mm],
]);
/** Round a quarter of a bend of 200 mm about the upright, the wall standing up. */
const round = wallOf(100 * Math.PI, (mm) => {
  const [x, y] = [200 * Math.cos(mm / 200), 200 * Math.sin(mm / 200)];
  return [
    [x, y, 500],
    [x, y, 500 + WIDTH_MM],
  ];
});

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

describe("a pattern's sheet", () => {
  const [pattern] = patternsOf([round], null);
  const sheet = sheetOf(pattern as WallPattern, "Walrus & calf");
  /** The points of the first closed path of a layer, in mm. */
  const cutIn = (svg: string) => {
    const [, group] = svg.match(/<g id="cut"[^>]*>(.*?)<\/g>/s) as RegExpMatchArray;
    const [, path] = group.match(/d="M([^Z"]*)Z"/) as RegExpMatchArray;
    return path.split("L").map((point) => point.split(",").map(Number) as [number, number]);
  };

  it("is an SVG at 1:1 whose cut line is as long as the wall's edges, and not mirrored", () => {
    const svg = sheetSvg(sheet);
    const [, width, unit] = svg.match(/width="([\d.]+)(\w+)"/) as RegExpMatchArray;
    expect(unit).toBe("mm");
    expect(svg).toContain(`viewBox="0 0 ${width} `);
    const outline = cutIn(svg);
    const around = lengthOf([...outline, outline[0]]);
    expect(around).toBeCloseTo(2 * 100 * Math.PI + 2 * WIDTH_MM, 0);
    // On the page y runs down: the head lies above the foot as the wall's beginning is on the left.
    const [foot, head] = [outline[0], outline[outline.length - 1]];
    const second = outline[1];
    expect((second[0] - foot[0]) * (head[1] - foot[1]) - (second[1] - foot[1]) * (head[0] - foot[0])).toBeLessThan(0);
    expect(svg).toContain("Walrus &amp; calf");
  });

  it("has a check bar of 100 mm both ways, and every layer that a cutter asks for", () => {
    const bars = sheet.lines.filter(
      ({ layer, points }) => layer === "mark" && Math.abs(lengthOf(points) - CHECK_BAR_MM) < 1e-9,
    );
    expect(bars).toHaveLength(2);
    const svg = sheetSvg(sheet);
    for (const layer of ["cut", "score", "mark", "text"]) expect(svg).toContain(`<g id="${layer}"`);
  });

  it("is a DXF in millimetres with the same cut line", () => {
    const lines = sheetDxf(sheet)
      .split(/\r?\n/)
      .map((line) => line.trim());
    const units = lines.indexOf("$INSUNITS");
    expect(lines[units + 2]).toBe("4");
    // Code 0 begins an entity, 8 its layer, 10 and 20 its points.
    const points: [number, number][] = [];
    let own = false;
    for (let k = 0; k + 1 < lines.length; k += 2) {
      const [code, value] = [lines[k], lines[k + 1]];
      if (code === "0") own = value === "LWPOLYLINE" && points.length === 0;
      else if (own && code === "8" && value !== "cut") own = false;
      else if (own && code === "10") points.push([Number(value), 0]);
      else if (own && code === "20") points[points.length - 1][1] = Number(value);
    }
    expect(lengthOf([...points, points[0]])).toBeCloseTo(2 * 100 * Math.PI + 2 * WIDTH_MM, 0);
  });
});
