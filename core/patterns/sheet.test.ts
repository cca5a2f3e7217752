import { describe, expect, it } from "vitest";
import { sheetDxf, sheetSvg } from "../export/sheets.ts";
import { AlongWall } from "../flange/along.ts";
import { fasteningsOf } from "../flange/fastenings.ts";
import { marksOn, onPiece, placeAt } from "../flange/marks.ts";
import { TYPICAL_FLANGES } from "../flange/settings.ts";
import { groundOf, round, WIDTH_MM } from "../testing/walls.ts";
import { patternsOf } from "../walls/pattern.ts";
import { wallsOn } from "../walls/walls.ts";
import { CHECK_BAR_MM, type Drawing } from "./drawing.ts";
import { sheetOf } from "./sheet.ts";

const ground = groundOf(round);
const [wall] = wallsOn([ground], [WIDTH_MM]);
const [pattern] = patternsOf([wall], null);
const along = new AlongWall(ground, wall);
const fastenings = fasteningsOf(along, TYPICAL_FLANGES, null, { flangeMm: 20 });
const marks = pattern.pieces.map((piece) => marksOn(piece, fastenings, 3));
const sheet: Drawing = sheetOf(pattern, { pieceName: "Walrus & calf", walls: 3 }, marks);

const lengthOf = (points: readonly (readonly [number, number])[]) =>
  points.slice(1).reduce((sum, [x, y], k) => sum + Math.hypot(x - points[k][0], y - points[k][1]), 0);

/** The points of the first closed path of a layer, in mm. */
const cutIn = (svg: string) => {
  const [, group] = svg.match(/<g id="cut"[^>]*>(.*?)<\/g>/s) as RegExpMatchArray;
  const [, path] = group.match(/d="M([^Z"]*)Z"/) as RegExpMatchArray;
  return path.split("L").map((point) => point.split(",").map(Number) as [number, number]);
};

describe("a pattern's sheet", () => {
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

  it("has a hole for every bolt, where it stands on the wall", () => {
    const holes = sheet.circles.filter(({ layer, radiusMm }) => layer === "cut" && radiusMm === 3);
    expect(holes).toHaveLength(fastenings.bolts.length);
    // As far from each other flat as they are on the wall, along a bend that no triangle stretches.
    const [a, b] = holes;
    const [first, second] = fastenings.bolts;
    const flat = Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]);
    expect(flat).toBeCloseTo(second.alongMm - first.alongMm, 1);
    expect(sheetSvg(sheet).match(/<circle/g)?.length).toBe(sheet.circles.length);
  });

  it("says which walls there are, which side is seen and which section stands on the line", () => {
    const words = sheet.texts.map(({ text }) => text).join("\n");
    expect(words).toContain("Walrus & calf: wall 1 of 3");
    expect(words).toContain("Section 2 side");
    expect(words).toContain("The face to section 1 stands on the line.");
  });

  it("is a DXF in millimetres with the same cut line and holes", () => {
    const lines = sheetDxf(sheet)
      .split(/\r?\n/)
      .map((line) => line.trim());
    const units = lines.indexOf("$INSUNITS");
    expect(lines[units + 2]).toBe("4");
    // Code 0 begins an entity, 8 its layer, 10 and 20 its points.
    const points: [number, number][] = [];
    let own = false;
    let circles = 0;
    for (let k = 0; k + 1 < lines.length; k += 2) {
      const [code, value] = [lines[k], lines[k + 1]];
      if (code === "0" && value === "CIRCLE") circles++;
      if (code === "0") own = value === "LWPOLYLINE" && points.length === 0;
      else if (own && code === "8" && value !== "cut") own = false;
      else if (own && code === "10") points.push([Number(value), 0]);
      else if (own && code === "20") points[points.length - 1][1] = Number(value);
    }
    expect(lengthOf([...points, points[0]])).toBeCloseTo(2 * 100 * Math.PI + 2 * WIDTH_MM, 0);
    expect(circles).toBe(sheet.circles.length);
  });
});

describe("a place on a piece", () => {
  it("is found again from where it was drawn", () => {
    const [piece] = pattern.pieces;
    for (const place of [
      { alongMm: 12, offMm: 3 },
      { alongMm: 101.5, offMm: 29 },
      { alongMm: 300, offMm: 44 },
    ]) {
      const at = onPiece(piece, place);
      if (!at) throw new Error("The place is on no piece.");
      const found = placeAt(piece, at);
      expect(found.alongMm).toBeCloseTo(place.alongMm, 3);
      expect(found.offMm).toBeCloseTo(place.offMm, 3);
    }
    expect(onPiece(piece, { alongMm: 9999, offMm: 3 })).toBeNull();
  });
});
