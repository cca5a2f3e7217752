/**
 * Drawings laid out on paper or sheet at 1:1. What fits on a page is laid beside others there, in the smallest waste that a
 * maximal-rectangles packing of their boxes finds; what is larger is cut into tiles with an overlap, which are glued
 * together by their marks.
 */
import { MaxRectsPacker } from "maxrects-packer/dist/maxrects-packer.mjs";
import { type Drawing, movedBy, type Point, turnedUp } from "./drawing.ts";

export interface Paper {
  readonly id: string;
  readonly name: string;
  readonly widthMm: number;
  /** Null for a roll: as long as it must be. */
  readonly heightMm: number | null;
  /** What a printer leaves blank round it, mm. */
  readonly marginMm: number;
}

export const PAPERS: readonly Paper[] = [
  { id: "a4", name: "A4", widthMm: 210, heightMm: 297, marginMm: 10 },
  { id: "a3", name: "A3", widthMm: 297, heightMm: 420, marginMm: 10 },
  { id: "letter", name: "Letter", widthMm: 215.9, heightMm: 279.4, marginMm: 10 },
  { id: "tabloid", name: "Tabloid", widthMm: 279.4, heightMm: 431.8, marginMm: 10 },
  { id: "roll-610", name: "Roll, 610 mm", widthMm: 610, heightMm: null, marginMm: 8 },
  { id: "roll-914", name: "Roll, 914 mm", widthMm: 914, heightMm: null, marginMm: 8 },
];

/** @throws RangeError for paper that nobody registered */
export function paperOf(id: string): Paper {
  const paper = PAPERS.find((candidate) => candidate.id === id);
  if (!paper) throw new RangeError(`There is no paper "${id}"; there are ${PAPERS.map((p) => p.id).join(", ")}.`);
  return paper;
}

/** Tiles overlap by so much, mm; beside it stands a line that the next one is laid to. */
export const OVERLAP_MM = 10;
/** Between two drawings on one page, mm. */
const APART_MM = 6;
/** A roll is never longer than this, mm. */
const LONGEST_ROLL_MM = 12_000;

/** A drawing on a page: its lower left corner lies there, mm from that of what can be printed. */
export interface OnPage {
  readonly drawing: number;
  readonly at: Point;
  /** Does it stand up on the page? */
  readonly turned: boolean;
}

/** Which tile of a drawing that is larger than a page. */
export interface Tile {
  readonly drawing: number;
  readonly turned: boolean;
  readonly column: number;
  readonly row: number;
  readonly columns: number;
  readonly rows: number;
}

export interface Page {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly placed: readonly OnPage[];
  readonly tile: Tile | null;
}

export interface Layout {
  readonly pages: readonly Page[];
  /** Share of the paper that nothing is cut from. */
  readonly wasteShare: number;
}

/** Size of what can be printed on a page, mm; a roll has no end. */
function printable({ widthMm, heightMm, marginMm }: Paper): { widthMm: number; heightMm: number } {
  return {
    widthMm: widthMm - 2 * marginMm,
    heightMm: heightMm === null ? LONGEST_ROLL_MM : heightMm - 2 * marginMm,
  };
}

/**
 * @param drawings as they are drawn
 * @param areasMm2 what is cut out of each
 */
export function pagesFor(drawings: readonly Drawing[], areasMm2: readonly number[], paper: Paper): Layout {
  const room = printable(paper);
  const whole: number[] = [];
  const pages: Page[] = [];
  drawings.forEach((drawing, n) => {
    if (fits(drawing, room)) whole.push(n);
    else pages.push(...tilesOf(drawing, n, room, paper));
  });
  pages.unshift(...packed(drawings, whole, room, paper));
  const paperMm2 = pages.reduce((sum, { widthMm, heightMm }) => sum + widthMm * heightMm, 0);
  const cutMm2 = areasMm2.reduce((sum, mm2) => sum + mm2, 0);
  return { pages, wasteShare: paperMm2 > 0 ? Math.max(0, 1 - cutMm2 / paperMm2) : 0 };
}

type Size = Pick<Drawing, "widthMm" | "heightMm">;

function fits({ widthMm, heightMm }: Size, room: Size): boolean {
  const lies = widthMm <= room.widthMm && heightMm <= room.heightMm;
  return lies || (heightMm <= room.widthMm && widthMm <= room.heightMm);
}

function packed(drawings: readonly Drawing[], whole: readonly number[], room: Size, paper: Paper): Page[] {
  const packer = new MaxRectsPacker(room.widthMm, room.heightMm, APART_MM, {
    smart: false,
    pot: false,
    square: false,
    allowRotation: true,
    border: 0,
  });
  for (const n of whole) {
    const { widthMm, heightMm } = drawings[n];
    packer.add(widthMm, heightMm, n);
  }
  return packer.bins.map((bin): Page => {
    const placed = bin.rects.map((rect): OnPage => {
      const turned = (rect as { rot?: boolean }).rot === true;
      return { drawing: rect.data as number, at: [rect.x, rect.y], turned };
    });
    const used = Math.max(
      ...placed.map(({ drawing, at, turned }) => {
        const { widthMm, heightMm } = drawings[drawing];
        return at[1] + (turned ? widthMm : heightMm);
      }),
    );
    return {
      widthMm: paper.widthMm,
      heightMm: paper.heightMm ?? used + 2 * paper.marginMm,
      placed,
      tile: null,
    };
  });
}

/** Tiles row by row from the lower left; whichever way round it takes fewer. */
function tilesOf(drawing: Drawing, n: number, room: Size, paper: Paper): Page[] {
  const counts = (size: Size) => ({
    columns: tilesAlong(size.widthMm, room.widthMm),
    rows: tilesAlong(size.heightMm, room.heightMm),
  });
  const upright = { widthMm: drawing.heightMm, heightMm: drawing.widthMm };
  const [lying, standing] = [counts(drawing), counts(upright)];
  const turned = standing.columns * standing.rows < lying.columns * lying.rows;
  const { columns, rows } = turned ? standing : lying;
  const drawn = turned ? turnedUp(drawing) : drawing;
  const pages: Page[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const at: Point = [-column * (room.widthMm - OVERLAP_MM), -row * (room.heightMm - OVERLAP_MM)];
      if (!touches(movedBy(drawn, at), room)) continue;
      pages.push({
        widthMm: paper.widthMm,
        heightMm: paper.heightMm ?? drawn.heightMm + 2 * paper.marginMm,
        placed: [{ drawing: n, at, turned }],
        tile: { drawing: n, turned, column, row, columns, rows },
      });
    }
  }
  return pages;
}

function tilesAlong(sizeMm: number, roomMm: number): number {
  return sizeMm <= roomMm ? 1 : Math.ceil((sizeMm - OVERLAP_MM) / (roomMm - OVERLAP_MM) - 1e-9);
}

/** Is anything of a drawing on a page? A tile that would be blank is not printed. */
function touches({ lines }: Drawing, { widthMm, heightMm }: Size): boolean {
  return lines.some(({ points, closed }) =>
    points.some((b, k) => {
      const a = k > 0 ? points[k - 1] : closed ? points[points.length - 1] : b;
      return (
        Math.max(a[0], b[0]) >= 0 &&
        Math.min(a[0], b[0]) <= widthMm &&
        Math.max(a[1], b[1]) >= 0 &&
        Math.min(a[1], b[1]) <= heightMm
      );
    }),
  );
}
