import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Drawing, movedBy, type Point, turnedUp } from "./drawing.ts";
import { OVERLAP_MM, PAPERS, pagesFor, paperOf } from "./pages.ts";

/** A drawing of a box with both diagonals. */
function boxed(widthMm: number, heightMm: number): Drawing {
  const corners: Point[] = [
    [0, 0],
    [widthMm, 0],
    [widthMm, heightMm],
    [0, heightMm],
  ];
  return {
    ...{ widthMm, heightMm, circles: [], texts: [] },
    lines: [
      { layer: "cut", points: corners, closed: true },
      { layer: "mark", points: [corners[0], corners[2]], closed: false },
    ],
  };
}

const size = fc.tuple(fc.double({ min: 20, max: 900, noNaN: true }), fc.double({ min: 20, max: 400, noNaN: true }));

describe("pages", () => {
  it("hold every drawing once and whole, apart from the others; or all of it in tiles that overlap", () => {
    const made = fc.record({
      sizes: fc.array(size, { minLength: 1, maxLength: 9 }),
      paper: fc.constantFrom(...PAPERS),
    });
    fc.assert(
      fc.property(made, ({ sizes, paper }) => {
        const drawings = sizes.map(([w, h]) => boxed(w, h));
        const { pages, wasteShare } = pagesFor(
          drawings,
          sizes.map(([w, h]) => w * h),
          paper,
        );
        const whole = pages.filter(({ tile }) => !tile);
        for (const { placed, widthMm, heightMm } of whole) {
          const boxes = placed.map(({ drawing, at, turned }) => {
            const drawn = turned ? turnedUp(drawings[drawing]) : drawings[drawing];
            return { x: at[0], y: at[1], w: drawn.widthMm, h: drawn.heightMm };
          });
          for (const [n, { x, y, w, h }] of boxes.entries()) {
            expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
            expect(x + w).toBeLessThanOrEqual(widthMm - 2 * paper.marginMm + 1e-6);
            expect(y + h).toBeLessThanOrEqual(heightMm - 2 * paper.marginMm + 1e-6);
            for (const other of boxes.slice(n + 1)) {
              const beside = x + w <= other.x || other.x + other.w <= x || y + h <= other.y || other.y + other.h <= y;
              expect(beside).toBe(true);
            }
          }
        }
        const onPages = pages.flatMap(({ placed, tile }) => (tile ? [] : placed.map(({ drawing }) => drawing)));
        const inTiles = new Set(pages.flatMap(({ tile }) => (tile ? [tile.drawing] : [])));
        expect([...onPages, ...inTiles].sort((a, b) => a - b)).toEqual(drawings.map((_, n) => n));
        expect(wasteShare).toBeGreaterThanOrEqual(0);
        expect(wasteShare).toBeLessThan(1);
      }),
      { numRuns: 60 },
    );
  });

  it("show every place of a drawing larger than a page on some tile, and what lies near a seam on two", () => {
    const paper = paperOf("a4");
    const drawing = boxed(700, 330);
    const { pages } = pagesFor([drawing], [700 * 330], paper);
    const [roomW, roomH] = [210 - 20, 297 - 20];
    const shownOn = ([x, y]: Point) =>
      pages.filter(({ placed: [{ at, turned }] }) => {
        const drawn = turned ? turnedUp(drawing) : drawing;
        expect(drawn.widthMm * drawn.heightMm).toBe(700 * 330);
        const spot: Point = turned ? [drawing.heightMm - y, x] : [x, y];
        const [px, py] = [spot[0] + at[0], spot[1] + at[1]];
        return px >= 0 && px <= roomW && py >= 0 && py <= roomH;
      });
    // Along the outline and the diagonal: what lies between is blank, and its tiles may be left out.
    for (let share = 0; share <= 1; share += 0.01) {
      for (const spot of [
        [700 * share, 0],
        [700 * share, 330],
        [0, 330 * share],
        [700 * share, 330 * share],
      ] as Point[])
        expect(shownOn(spot).length).toBeGreaterThan(0);
    }
    const tiles = pages.map(({ tile }) => tile?.columns).filter((columns) => columns !== undefined);
    expect(Math.max(...tiles)).toBe(Math.ceil((330 - OVERLAP_MM) / (roomW - OVERLAP_MM)));
  });

  it("are one on a roll, as long as it must be", () => {
    const { pages } = pagesFor([boxed(1500, 80), boxed(300, 300)], [120_000, 90_000], paperOf("roll-914"));
    expect(pages).toHaveLength(1);
    expect(pages[0].heightMm).toBeLessThan(2000);
  });

  it("refuse paper that nobody knows", () => {
    expect(() => paperOf("a9")).toThrow(/There is no paper "a9"; there are a4/);
  });
});

describe("a drawing", () => {
  it("turned up four times lies as it lay", () => {
    const drawing = movedBy(boxed(70, 30), [3, 4]);
    const turned = turnedUp(turnedUp(turnedUp(turnedUp(drawing))));
    for (const [n, line] of turned.lines.entries())
      for (const [k, point] of line.points.entries())
        for (const a of [0, 1]) expect(point[a]).toBeCloseTo(drawing.lines[n].points[k][a], 9);
  });
});
