/** A wall's pattern as it is drawn: each of its pieces with its title, its marks and what its ends meet. */
import type { PatternMarks } from "../flange/marks.ts";
import type { PatternPiece, WallPattern } from "../walls/pattern.ts";
import {
  CHECK_BAR_MM,
  checkBar,
  type Drawing,
  mark,
  movedBy,
  type Point,
  type SheetCircle,
  type SheetLine,
  type SheetText,
  textWidthMm,
  together,
} from "./drawing.ts";

const MARGIN_MM = 10;
const GAP_MM = 14;
const TITLE_MM = 4;
const TITLE_LINE_MM = 6;
const LABEL_MM = 3;
/** A running mark reaches so far in from the foot, mm. */
const TICK_MM = 5;
/** A hole's middle is marked by a cross so large, mm. */
const CROSS_MM = 4;

/** What a pattern belongs to, as it is written on it. */
export interface PatternTitle {
  /** Of the sculpture. */
  readonly pieceName: string;
  /** How many walls there are. */
  readonly walls: number;
}

/** All pieces of a wall under each other, with a check bar: a sheet of any size, for a plotter or a cutter. */
export function sheetOf(pattern: WallPattern, title: PatternTitle, marks: readonly PatternMarks[]): Drawing {
  const drawings = pattern.pieces.map((_, n) => pieceDrawing(pattern, n, title, marks[n]));
  let y = MARGIN_MM;
  const stacked = drawings.map((drawing) => {
    const at: Point = [MARGIN_MM, y];
    y += drawing.heightMm + GAP_MM;
    return movedBy(drawing, at);
  });
  const bar: Point = [MARGIN_MM, y];
  const check: Drawing = {
    widthMm: CHECK_BAR_MM,
    heightMm: CHECK_BAR_MM,
    lines: checkBar(bar),
    circles: [],
    texts: [{ at: [bar[0] + 5, bar[1] + 5], text: CHECK_WORDS, heightMm: LABEL_MM }],
  };
  const widthMm = Math.max(CHECK_BAR_MM, ...drawings.map((drawing) => drawing.widthMm)) + 2 * MARGIN_MM;
  return together([...stacked, check], widthMm, y + CHECK_BAR_MM + MARGIN_MM);
}

export const CHECK_WORDS = `Measure: ${CHECK_BAR_MM} mm both ways. If not, print again at 100 %, without fitting to the page.`;

/** One piece of a wall's pattern, its title below it. */
export function pieceDrawing(
  pattern: WallPattern,
  n: number,
  title: PatternTitle,
  marks: PatternMarks | undefined,
): Drawing {
  const piece = pattern.pieces[n];
  const words = titleOf(pattern, title, n).map(
    (text, line): SheetText => ({ at: [0, TITLE_LINE_MM * (1 - line)], text, heightMm: TITLE_MM }),
  );
  const up = 2 * TITLE_LINE_MM + LABEL_MM;
  const drawn = drawnPiece(piece, marks);
  const at: Point = [0, up];
  const body = movedBy(
    { ...drawn, texts: [...drawn.texts, ...endLabels(pattern, piece, n)], widthMm: 0, heightMm: 0 },
    at,
  );
  return {
    widthMm: Math.max(piece.widthMm, ...words.map(textWidthMm)),
    heightMm: up + piece.heightMm + LABEL_MM,
    lines: body.lines,
    circles: body.circles,
    texts: [...words, ...body.texts],
  };
}

function titleOf(
  { number, sections, seenFrom, pieces, patternLengthMm }: WallPattern,
  { pieceName, walls }: PatternTitle,
  n: number,
): [string, string] {
  const part = pieces.length > 1 ? `, piece ${n + 1} of ${pieces.length}` : "";
  const first = Math.min(...sections);
  return [
    `${pieceName}: wall ${number} of ${walls}${part}`,
    `Section ${seenFrom} side; other side: section ${sections.find((s) => s !== seenFrom)}. ${Math.round(patternLengthMm)} mm. The face to section ${first} stands on the line.`,
  ];
}

/** A piece with its corner at 0: its outline, running marks, bends, holes, keys, slots and the arrow up. */
export function drawnPiece(
  piece: PatternPiece,
  marks: PatternMarks | undefined,
): Pick<Drawing, "lines" | "circles" | "texts"> {
  const lines: SheetLine[] = [{ layer: "cut", points: [...piece.foot, ...[...piece.head].reverse()], closed: true }];
  const texts: SheetText[] = [];
  for (const { foot, head, mm } of piece.running) {
    lines.push(mark([foot, towards(foot, head, TICK_MM)]));
    texts.push({ at: towards(foot, head, TICK_MM + 1.5), text: String(mm), heightMm: LABEL_MM });
  }
  for (const { foot, head, deg } of piece.bends) {
    lines.push({ layer: "score", points: [foot, head], closed: false });
    const up = deg > 0 ? "towards you" : "away from you";
    texts.push({ at: towards(head, foot, 6), text: `${Math.round(Math.abs(deg))}° ${up}`, heightMm: LABEL_MM });
  }
  if (piece.up) {
    const [from, to] = piece.up;
    const way = [to[0] - from[0], to[1] - from[1]];
    const barb = (side: number): Point => [
      to[0] - 0.3 * way[0] + side * 0.18 * way[1],
      to[1] - 0.3 * way[1] - side * 0.18 * way[0],
    ];
    lines.push(mark([from, to]), mark([barb(1), to, barb(-1)]));
    texts.push({ at: [to[0] + 1.5, to[1]], text: "up", heightMm: LABEL_MM });
  }
  const fastened = marks ? drawnMarks(marks) : { lines: [], circles: [], texts: [] };
  return {
    lines: [...lines, ...fastened.lines],
    circles: fastened.circles,
    texts: [...texts, ...fastened.texts],
  };
}

function drawnMarks({ holes, dimples, grooves, slots }: PatternMarks) {
  const circles: SheetCircle[] = [
    ...holes.map(({ at, radiusMm }): SheetCircle => ({ layer: "cut", at, radiusMm })),
    ...dimples.map(({ at, radiusMm }): SheetCircle => ({ layer: "mark", at, radiusMm })),
  ];
  const lines: SheetLine[] = [
    ...holes.flatMap(({ at: [x, y] }) => [
      mark([
        [x - CROSS_MM, y],
        [x + CROSS_MM, y],
      ]),
      mark([
        [x, y - CROSS_MM],
        [x, y + CROSS_MM],
      ]),
    ]),
    ...grooves.map(mark),
    ...slots.map(mark),
  ];
  const texts: SheetText[] = [
    ...holes.map(({ at: [x, y], number }) => ({
      at: [x + CROSS_MM, y + 1] as Point,
      text: `b${number}`,
      heightMm: LABEL_MM,
    })),
    ...slots.map((points) => ({ at: points[1], text: "pry", heightMm: LABEL_MM })),
  ];
  return { lines, circles, texts };
}

/** From one place so far towards another, and no farther than to it. */
function towards(a: Point, b: Point, mm: number): Point {
  const share = Math.min(1, mm / (Math.hypot(b[0] - a[0], b[1] - a[1]) || 1));
  return [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
}

/** What the ends meet, beside them: the same letter stands on the walls that meet there. */
function endLabels({ ends, pieces }: WallPattern, piece: PatternPiece, n: number): SheetText[] {
  const label = (k: number, text: string): SheetText => {
    const [f, h] = [piece.foot[k], piece.head[k]];
    return { at: [(f[0] + h[0]) / 2, (f[1] + h[1]) / 2], text, heightMm: LABEL_MM };
  };
  const cutAt = (mm: number) => `goes on at ${Math.round(mm)}`;
  const first = n > 0 ? cutAt(piece.fromMm) : (ends?.[0] ?? "meets its own end");
  const last = n < pieces.length - 1 ? cutAt(piece.toMm) : (ends?.[1] ?? "meets its beginning");
  return [label(0, first), label(piece.foot.length - 1, last)];
}
