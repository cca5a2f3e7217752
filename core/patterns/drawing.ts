/** Drawings at 1:1: lines by what is done along them, circles and words. Millimetres, x to the right, y up, from 0. */

export type Point = readonly [number, number];

/** What is done along a line. */
export const SHEET_LAYERS = ["cut", "score", "mark", "text"] as const;
export type SheetLayer = (typeof SHEET_LAYERS)[number];
export type DrawnLayer = Exclude<SheetLayer, "text">;

export interface SheetLine {
  readonly layer: DrawnLayer;
  readonly points: readonly Point[];
  readonly closed: boolean;
}

export interface SheetCircle {
  readonly layer: DrawnLayer;
  readonly at: Point;
  readonly radiusMm: number;
}

export interface SheetText {
  readonly at: Point;
  readonly text: string;
  readonly heightMm: number;
}

export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly SheetLine[];
  readonly circles: readonly SheetCircle[];
  readonly texts: readonly SheetText[];
}

/** A letter is about so wide, in heights: enough to keep words apart. */
const LETTER_SHARE = 0.55;

export function textWidthMm({ text, heightMm }: Pick<SheetText, "text" | "heightMm">): number {
  return text.length * heightMm * LETTER_SHARE;
}

/** The drawing moved. Its size stays what it was. */
export function movedBy(drawing: Drawing, [dx, dy]: Point): Drawing {
  const at = ([x, y]: Point): Point => [x + dx, y + dy];
  return {
    ...drawing,
    lines: drawing.lines.map((line) => ({ ...line, points: line.points.map(at) })),
    circles: drawing.circles.map((circle) => ({ ...circle, at: at(circle.at) })),
    texts: drawing.texts.map((text) => ({ ...text, at: at(text.at) })),
  };
}

/** The drawing turned by a quarter, so that what lay along x stands along y. */
export function turnedUp(drawing: Drawing): Drawing {
  const { widthMm, heightMm } = drawing;
  const at = ([x, y]: Point): Point => [heightMm - y, x];
  return {
    widthMm: heightMm,
    heightMm: widthMm,
    lines: drawing.lines.map((line) => ({ ...line, points: line.points.map(at) })),
    circles: drawing.circles.map((circle) => ({ ...circle, at: at(circle.at) })),
    texts: drawing.texts.map((text) => ({ ...text, at: at(text.at) })),
  };
}

/** Several drawings as one, of a size that is given. */
export function together(drawings: readonly Drawing[], widthMm: number, heightMm: number): Drawing {
  return {
    widthMm,
    heightMm,
    lines: drawings.flatMap(({ lines }) => lines),
    circles: drawings.flatMap(({ circles }) => circles),
    texts: drawings.flatMap(({ texts }) => texts),
  };
}

export const mark = (points: readonly Point[]): SheetLine => ({ layer: "mark", points, closed: false });

/** Whoever prints measures this bar, both ways, mm. */
export const CHECK_BAR_MM = 100;
const TICK_MM = 2;

/** The check bar, both ways from one corner. */
export function checkBar([x, y]: Point): SheetLine[] {
  return [
    mark([
      [x, y],
      [x + CHECK_BAR_MM, y],
    ]),
    mark([
      [x, y],
      [x, y + CHECK_BAR_MM],
    ]),
    // Ends are marked at the far ends alone: at the corner a mark would lengthen the other bar.
    mark([
      [x + CHECK_BAR_MM, y - TICK_MM],
      [x + CHECK_BAR_MM, y + TICK_MM],
    ]),
    mark([
      [x - TICK_MM, y + CHECK_BAR_MM],
      [x + TICK_MM, y + CHECK_BAR_MM],
    ]),
  ];
}
