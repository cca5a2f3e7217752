/** A pattern as it is drawn on one sheet: lines by what is done with them, and words. Millimetres, x right, y up. */
import type { PatternPiece, WallPattern } from "./pattern.ts";

type Point = readonly [number, number];

/** What is done along a line. */
export const SHEET_LAYERS = ["cut", "score", "mark", "text"] as const;
export type SheetLayer = (typeof SHEET_LAYERS)[number];

export interface SheetLine {
  readonly layer: Exclude<SheetLayer, "text">;
  readonly points: readonly Point[];
  readonly closed: boolean;
}

export interface SheetText {
  readonly at: Point;
  readonly text: string;
  readonly heightMm: number;
}

export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly SheetLine[];
  readonly texts: readonly SheetText[];
}

const MARGIN_MM = 10;
const GAP_MM = 14;
const TITLE_MM = 5;
const LABEL_MM = 3;
/** A running mark reaches so far in from the foot, mm. */
const TICK_MM = 5;
/** Whoever prints measures this bar, both ways, mm. */
export const CHECK_BAR_MM = 100;

/** @param pieceName of the sculpture */
export function sheetOf(pattern: WallPattern, pieceName: string): Sheet {
  const lines: SheetLine[] = [];
  const texts: SheetText[] = [];
  let y = MARGIN_MM;
  let widthMm = CHECK_BAR_MM;
  for (const [n, piece] of pattern.pieces.entries()) {
    texts.push({ at: [MARGIN_MM, y], text: titleOf(pattern, pieceName, n), heightMm: TITLE_MM });
    y += TITLE_MM + 4;
    const drawn = drawnPiece(piece, [MARGIN_MM, y]);
    lines.push(...drawn.lines);
    texts.push(...drawn.texts, ...endLabels(pattern, piece, n, [MARGIN_MM, y]));
    y += piece.heightMm + GAP_MM;
    widthMm = Math.max(widthMm, piece.widthMm);
  }
  const bar: Point = [MARGIN_MM, y];
  lines.push(
    mark([bar, [bar[0] + CHECK_BAR_MM, bar[1]]]),
    mark([bar, [bar[0], bar[1] + CHECK_BAR_MM]]),
    ...[0, CHECK_BAR_MM].flatMap((mm) => [
      mark([
        [bar[0] + mm, bar[1] - 2],
        [bar[0] + mm, bar[1] + 2],
      ]),
      mark([
        [bar[0] - 2, bar[1] + mm],
        [bar[0] + 2, bar[1] + mm],
      ]),
    ]),
  );
  texts.push({
    at: [bar[0] + 5, bar[1] + 5],
    text: `Measure: ${CHECK_BAR_MM} mm both ways. If not, print again at 100 %, without fitting to the page.`,
    heightMm: LABEL_MM,
  });
  return { widthMm: widthMm + 2 * MARGIN_MM, heightMm: y + CHECK_BAR_MM + MARGIN_MM, lines, texts };
}

function titleOf({ number, sections, seenFrom, pieces, patternLengthMm }: WallPattern, pieceName: string, n: number) {
  const part = pieces.length > 1 ? `, piece ${n + 1} of ${pieces.length}` : "";
  return `${pieceName}: wall ${number}${part}, between sections ${sections[0]} and ${sections[1]}; ${Math.round(patternLengthMm)} mm. This is the side of section ${seenFrom}.`;
}

const mark = (points: readonly Point[]): SheetLine => ({ layer: "mark", points, closed: false });

function drawnPiece(piece: PatternPiece, [dx, dy]: Point): { lines: SheetLine[]; texts: SheetText[] } {
  const at = ([x, y]: Point): Point => [x + dx, y + dy];
  const between = (a: Point, b: Point, mm: number): Point => {
    const share = Math.min(1, mm / (Math.hypot(b[0] - a[0], b[1] - a[1]) || 1));
    return [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
  };
  const lines: SheetLine[] = [
    { layer: "cut", points: [...piece.foot, ...[...piece.head].reverse()].map(at), closed: true },
  ];
  const texts: SheetText[] = [];
  for (const { foot, head, mm } of piece.running) {
    const inner = between(foot, head, TICK_MM);
    lines.push(mark([at(foot), at(inner)]));
    texts.push({ at: at(between(foot, head, TICK_MM + 1.5)), text: String(mm), heightMm: LABEL_MM });
  }
  for (const { foot, head, deg } of piece.bends) {
    lines.push({ layer: "score", points: [at(foot), at(head)], closed: false });
    const up = deg > 0 ? "towards you" : "away from you";
    texts.push({ at: at(between(head, foot, 6)), text: `${Math.round(Math.abs(deg))}° ${up}`, heightMm: LABEL_MM });
  }
  if (piece.up) {
    const [from, to] = piece.up.map(at);
    const way = [to[0] - from[0], to[1] - from[1]];
    const barb = (side: number): Point => [
      to[0] - 0.3 * way[0] + side * 0.18 * way[1],
      to[1] - 0.3 * way[1] - side * 0.18 * way[0],
    ];
    lines.push(mark([from, to]), mark([barb(1), to, barb(-1)]));
    texts.push({ at: [to[0] + 1.5, to[1]], text: "up", heightMm: LABEL_MM });
  }
  return { lines, texts };
}

/** What the ends meet, beside them: the same letter stands on the walls that meet there. */
function endLabels({ ends, pieces }: WallPattern, piece: PatternPiece, n: number, [dx, dy]: Point): SheetText[] {
  const label = (k: number, text: string): SheetText => {
    const [f, h] = [piece.foot[k], piece.head[k]];
    return { at: [(f[0] + h[0]) / 2 + dx, (f[1] + h[1]) / 2 + dy], text, heightMm: LABEL_MM };
  };
  const cutAt = (mm: number) => `goes on at ${Math.round(mm)}`;
  const first = n > 0 ? cutAt(piece.fromMm) : (ends?.[0] ?? "meets its own end");
  const last = n < pieces.length - 1 ? cutAt(piece.toMm) : (ends?.[1] ?? "meets its beginning");
  return [label(0, first), label(piece.foot.length - 1, last)];
}
