import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sheetsPdf } from "../export/pdf.ts";
import { box, moved, sphere, torus } from "../testing/shapes.ts";
import type { Point } from "./drawing.ts";
import { paperOf } from "./pages.ts";
import { extentOf, type SectionSheet, SHEET_MM, sectionSheet } from "./sectionSheet.ts";
import { outlineOf, SIDES } from "./views.ts";

/** Area of rings, those that run the other way round taken off (shoelace formula). */
function areaOf(rings: readonly (readonly Point[])[]): number {
  return Math.abs(
    rings.reduce(
      (sum, ring) =>
        sum +
        ring.reduce((own, [x, y], k) => {
          const [u, v] = ring[(k + 1) % ring.length];
          return own + (x * v - u * y) / 2;
        }, 0),
      0,
    ),
  );
}

const sheetOf = (change: Partial<SectionSheet>): SectionSheet => ({
  title: "Section 1 of 2",
  under: "A ball",
  skin: sphere(100, 48),
  edges: [],
  ribs: [],
  bolts: [],
  keys: [],
  names: { front: "From the front", right: "From the right", above: "From above" },
  length: (mm) => `${mm}\u2009mm`,
  scaleWord: (scale) => `1 : ${scale}`,
  rows: [
    ["Order", null],
    ["Built", "first of 2"],
  ],
  ...change,
});

describe("the outline of a body", () => {
  it("is a circle of a ball, from every side", () => {
    for (const side of SIDES) {
      const { rings, min, max } = outlineOf(moved(sphere(100, 96), 30, -20, 500), side);
      expect(rings).toHaveLength(1);
      expect(areaOf(rings) / (Math.PI * 100 ** 2)).toBeGreaterThan(0.98);
      expect(areaOf(rings) / (Math.PI * 100 ** 2)).toBeLessThan(1.02);
      expect(max[0] - min[0]).toBeCloseTo(200, 0);
    }
  });

  it("has the hole of a ring seen from above, and none from the front", () => {
    const ring = torus(100, 30);
    const above = outlineOf(ring, "above");
    expect(above.rings).toHaveLength(2);
    expect(areaOf(above.rings) / (Math.PI * (130 ** 2 - 70 ** 2))).toBeCloseTo(1, 1);
    expect(outlineOf(ring, "front").rings).toHaveLength(1);
  });

  it("has the sides of a box as they are seen from the front, from the right and from above", () => {
    const seen = SIDES.map((side) => outlineOf(box(200, 150, 300), side));
    expect(seen.map(({ min, max }) => max.map((value, a) => Math.round(value - min[a])))).toEqual([
      [200, 300],
      [150, 300],
      [200, 150],
    ]);
  });
});

describe("the sheet of a section", () => {
  it("stays on its page whatever the section's size, at a scale that rulers have", () => {
    const mm = fc.integer({ min: 30, max: 3000 });
    fc.assert(
      fc.property(mm, mm, mm, (w, d, h) => {
        const drawing = sectionSheet(sheetOf({ skin: box(w, d, h) }));
        const [low, high] = extentOf(drawing);
        expect(low[0]).toBeGreaterThanOrEqual(-1.5);
        expect(low[1]).toBeGreaterThanOrEqual(0);
        expect(high[0]).toBeLessThanOrEqual(SHEET_MM.width + 3);
        expect(high[1]).toBeLessThanOrEqual(SHEET_MM.height);
        const told = drawing.texts.map(({ text }) => text);
        expect(told).toContain(`${w}\u2009mm × ${h}\u2009mm`);
        expect(told).toContain(`${d}\u2009mm × ${h}\u2009mm`);
        const scale = Number(told.find((text) => text.startsWith("1 : "))?.slice(4));
        // The front's dimension is as long as the box is wide, by the scale.
        const widths = drawing.lines
          .filter(({ points, layer }) => layer === "mark" && points.length === 2 && points[0][1] === points[1][1])
          .map(({ points }) => points[1][0] - points[0][0]);
        expect(widths.some((paper) => Math.abs(paper * scale - w) < 1)).toBe(true);
      }),
      { numRuns: 15, seed: 3 },
    );
  });

  it("draws every bolt and key in each view", () => {
    const { circles } = sectionSheet(
      sheetOf({
        bolts: [
          [0, 100, 0],
          [100, 0, 0],
        ],
        keys: [[0, 0, 100]],
      }),
    );
    expect(circles).toHaveLength(3 * SIDES.length);
  });

  it("is a page of its own for each, of a PDF without letters that its font does not have", async () => {
    const drawings = [sectionSheet(sheetOf({})), sectionSheet(sheetOf({ title: "Section 2 of 2" }))];
    const bytes = await sheetsPdf("A ball: sections", drawings, paperOf("a4"));
    const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
    expect(pdf.numPages).toBe(2);
    const words = async (n: number) =>
      (await (await pdf.getPage(n)).getTextContent()).items.map((item) => ("str" in item ? item.str : "")).join(" ");
    expect(await words(1)).toContain("Section 1 of 2");
    expect(await words(2)).toContain("Section 2 of 2");
    expect(await words(1)).toContain("200 mm × 200 mm");
  });
});
