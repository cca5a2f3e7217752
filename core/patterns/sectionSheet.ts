/** The sheet of a section: three views to scale with their dimensions, and what is to be known of it. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Drawing, type Point, type SheetCircle, type SheetLine, type SheetText, textWidthMm } from "./drawing.ts";
import { boxOf, outlineOf, SIDES, type Side, seenFrom } from "./views.ts";

export interface SectionSheet {
  /** "Section 2 of 3", and of what. */
  readonly title: string;
  readonly under: string;
  readonly skin: TriangleMesh;
  /** Its edges: the parting lines it lies at, xyz per point. */
  readonly edges: readonly ArrayLike<number>[];
  readonly ribs: readonly ArrayLike<number>[];
  readonly bolts: readonly (readonly number[])[];
  readonly keys: readonly (readonly number[])[];
  /** What each view is called, and a length in words. */
  readonly names: Readonly<Record<Side, string>>;
  length(mm: number): string;
  readonly scaleWord: (scale: number) => string;
  /** What is to be known of it: headings have no value. */
  readonly rows: readonly (readonly [string, string | null])[];
}

/** The sheet fits what printers leave of the smaller of the two common papers, mm. */
export const SHEET_MM = { width: 186, height: 255 } as const;
const VIEWS_HIGH_MM = 112;
const APART_MM = 9;
/** A view's name and size ask for so much beneath it, mm. */
const NAMED_MM = 40;
/** Views are drawn at the largest of these that fits, as 1 to so many. */
const SCALES = [1, 2, 5, 10, 20, 25, 50, 100, 200];
const TEXT_MM = 2.9;
const ROW_MM = 4.7;
const COLUMNS = 2;
/** Values begin so far into a column, mm, where their names let them. */
const VALUES_AT_MM = 36;
/** Places are drawn so large, mm on paper. */
const BOLT_MM = 0.9;
const KEY_MM = 1.4;

export function sectionSheet(sheet: SectionSheet): Drawing {
  const lines: SheetLine[] = [];
  const circles: SheetCircle[] = [];
  const texts: SheetText[] = [];
  const top = SHEET_MM.height;
  texts.push(
    { at: [0, top - 6], text: sheet.title, heightMm: 5 },
    { at: [0, top - 12], text: sheet.under, heightMm: 3 },
  );
  const outlines = SIDES.map((side) => ({ side, ...outlineOf(sheet.skin, side) }));
  const sizes = outlines.map(({ min, max }) => [max[0] - min[0], max[1] - min[1]]);
  const widthAt = (n: number) => sizes.reduce((sum, [w]) => sum + Math.max(NAMED_MM, w / n), 0);
  const highest = Math.max(...sizes.map(([, h]) => h));
  const room = SHEET_MM.width - (SIDES.length - 1) * APART_MM;
  const scale = SCALES.find((n) => widthAt(n) <= room && highest / n <= VIEWS_HIGH_MM) ?? SCALES[SCALES.length - 1];
  texts.push({ at: [0, top - 17], text: sheet.scaleWord(scale), heightMm: TEXT_MM });
  const foot = top - 24 - VIEWS_HIGH_MM;
  let left = 0;
  for (const { side, rings, min, max } of outlines) {
    const place = ([x, y]: Point): Point => [left + (x - min[0]) / scale, foot + (y - min[1]) / scale];
    const along = (xyz: ArrayLike<number>): Point[] =>
      Array.from({ length: xyz.length / 3 }, (_, k) => place(seenFrom(side, xyz, 3 * k)));
    for (const ring of rings) lines.push({ layer: "cut", points: ring.map(place), closed: true });
    for (const edge of sheet.edges) lines.push({ layer: "mark", points: along(edge), closed: false });
    for (const rib of sheet.ribs) lines.push({ layer: "score", points: along(rib), closed: false });
    for (const at of sheet.bolts) circles.push({ layer: "mark", at: place(seenFrom(side, at)), radiusMm: BOLT_MM });
    for (const at of sheet.keys) circles.push({ layer: "score", at: place(seenFrom(side, at)), radiusMm: KEY_MM });
    const [width, height] = [(max[0] - min[0]) / scale, (max[1] - min[1]) / scale];
    texts.push(
      { at: [left, foot - 5], text: sheet.names[side], heightMm: TEXT_MM },
      {
        at: [left, foot - 9],
        text: `${sheet.length(Math.round(max[0] - min[0]))} × ${sheet.length(Math.round(max[1] - min[1]))}`,
        heightMm: TEXT_MM,
      },
    );
    lines.push(...bar([left, foot - 1.5], [left + width, foot - 1.5]));
    lines.push(...bar([left + width + 1.5, foot], [left + width + 1.5, foot + height]));
    left += Math.max(NAMED_MM, width) + APART_MM;
  }
  texts.push(...table(sheet.rows, foot - 16));
  return { widthMm: SHEET_MM.width, heightMm: SHEET_MM.height, lines, circles, texts };
}

/** A dimension: a line with a tick at either end. */
function bar(from: Point, to: Point): SheetLine[] {
  const across: Point = from[1] === to[1] ? [0, 1] : [1, 0];
  const tick = ([x, y]: Point): SheetLine => ({
    layer: "mark",
    points: [
      [x - across[0], y - across[1]],
      [x + across[0], y + across[1]],
    ],
    closed: false,
  });
  return [{ layer: "mark", points: [from, to], closed: false }, tick(from), tick(to)];
}

/** Rows in two columns, cut where they would run into each other. */
function table(rows: SectionSheet["rows"], from: number): SheetText[] {
  const half = Math.max(1, Math.ceil(rows.length / COLUMNS));
  // A heading stands over what it heads.
  const perColumn = rows[half - 1]?.[1] === null ? half + 1 : half;
  const columnMm = SHEET_MM.width / COLUMNS;
  return rows.flatMap(([label, value], n): SheetText[] => {
    const column = Math.floor(n / perColumn);
    const y = from - (n % perColumn) * ROW_MM;
    const x = column * columnMm;
    if (value === null) return [{ at: [x, y], text: label, heightMm: TEXT_MM + 0.5 }];
    const at = Math.max(VALUES_AT_MM, 2 + textWidthMm({ text: label, heightMm: TEXT_MM }));
    const letters = Math.max(4, Math.floor((columnMm - 3 - at) / textWidthMm({ text: "x", heightMm: TEXT_MM })));
    const shown = value.length > letters ? `${value.slice(0, letters - 1)}…` : value;
    return [
      { at: [x, y], text: label, heightMm: TEXT_MM },
      { at: [x + at, y], text: shown, heightMm: TEXT_MM },
    ];
  });
}

/** The box that a sheet's views must not leave, for tests and printers. */
export function extentOf({ lines, circles }: Drawing): [Point, Point] {
  return boxOf([
    ...lines.flatMap(({ points }) => points),
    ...circles.flatMap(({ at: [x, y], radiusMm: r }): Point[] => [
      [x - r, y - r],
      [x + r, y + r],
    ]),
  ]);
}
