/** The patterns of walls as one PDF at 1:1. */
import type { PatternMarks } from "../flange/marks.ts";
import type { Drawing } from "../patterns/drawing.ts";
import { type Layout, type Paper, pagesFor } from "../patterns/pages.ts";
import { pieceDrawing } from "../patterns/sheet.ts";
import type { WallPattern } from "../walls/pattern.ts";
import { pagesPdf } from "./pdf.ts";

/** A wall with what is drawn on each of its pattern's pieces. */
export interface PrintedWall {
  readonly pattern: WallPattern;
  readonly marks: readonly PatternMarks[];
}

/** @param wallCount how many walls the plan has, where not all are printed */
export async function wallsPdf(
  walls: readonly PrintedWall[],
  pieceName: string,
  paper: Paper,
  wallCount = walls.length,
): Promise<PrintedPages> {
  const title = { pieceName, walls: wallCount };
  const all = walls.flatMap(({ pattern, marks }) =>
    pattern.pieces.map(
      (piece, n): NamedDrawing => ({
        drawing: pieceDrawing(pattern, n, title, marks[n]),
        name: `wall ${pattern.number}${pattern.pieces.length > 1 ? `, piece ${n + 1}` : ""}`,
        areaMm2: piece.areaMm2,
      }),
    ),
  );
  return drawingsPdf(all, `${pieceName}: wall patterns`, paper);
}

/** A drawing with what it is called on the page map, and how much of the paper is cut out by it. */
export interface NamedDrawing {
  readonly drawing: Drawing;
  readonly name: string;
  readonly areaMm2: number;
}

export interface PrintedPages {
  readonly bytes: Uint8Array;
  readonly layout: Layout;
}

/** Any drawings at 1:1, on as many pages as they take. */
export async function drawingsPdf(all: readonly NamedDrawing[], title: string, paper: Paper): Promise<PrintedPages> {
  const drawings = all.map(({ drawing }) => drawing);
  const layout = pagesFor(
    drawings,
    all.map(({ areaMm2 }) => areaMm2),
    paper,
  );
  const names = all.map(({ name }) => name);
  return { bytes: await pagesPdf({ title, drawings, names, layout, paper }), layout };
}
