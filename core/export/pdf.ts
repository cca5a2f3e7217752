/**
 * Drawings at 1:1 as PDF. The first page says what is on which page and has the check bar; tiles have the lines that they
 * are glued along.
 */
import {
  clip,
  closePath,
  degrees,
  endPath,
  lineTo,
  moveTo,
  PDFDocument,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  StandardFonts,
} from "pdf-lib";
import {
  CHECK_BAR_MM,
  checkBar,
  type Drawing,
  movedBy,
  SHEET_LAYERS,
  type SheetLayer,
  turnedUp,
} from "../patterns/drawing.ts";
import { type Layout, OVERLAP_MM, type Page, type Paper } from "../patterns/pages.ts";
import { CHECK_WORDS } from "../patterns/sheet.ts";
import { PENS } from "./sheets.ts";

/** Points of a PDF in a millimetre. */
const POINTS = 72 / 25.4;
const PEN_MM = 0.2;

export interface PdfRequest {
  readonly title: string;
  readonly drawings: readonly Drawing[];
  /** What each drawing is called on the page map. */
  readonly names: readonly string[];
  readonly layout: Layout;
  readonly paper: Paper;
}

export async function pagesPdf({ title, drawings, names, layout, paper }: PdfRequest): Promise<Uint8Array> {
  const { pdf, font } = await begun(title);
  mapPage(pdf, font, title, names, layout, paper);
  layout.pages.forEach((page, n) => {
    drawPage(pdf, font, page, { drawings, paper, label: labelOf(page, names, n, layout.pages.length, title) });
  });
  return pdf.save();
}

/** Drawings that fit a page, one on each, without tiles and page map. */
export async function sheetsPdf(title: string, drawings: readonly Drawing[], paper: Paper): Promise<Uint8Array> {
  const { pdf, font } = await begun(title);
  for (const drawing of drawings) {
    const heightMm = paper.heightMm ?? drawing.heightMm + 2 * paper.marginMm;
    const page = pdf.addPage([paper.widthMm * POINTS, heightMm * POINTS]);
    const here = movedBy(drawing, [
      (paper.widthMm - drawing.widthMm) / 2,
      heightMm - paper.marginMm - drawing.heightMm,
    ]);
    drawLines(page, here);
    for (const { at, text, heightMm: size } of here.texts) write(page, font, text, at[0], at[1], size);
  }
  return pdf.save();
}

async function begun(title: string): Promise<{ pdf: PDFDocument; font: PDFFont }> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  pdf.setProducer("Rimefell");
  // The same plan gives the same file.
  pdf.setCreationDate(new Date(0));
  pdf.setModificationDate(new Date(0));
  return { pdf, font: await pdf.embedFont(StandardFonts.Helvetica) };
}

function labelOf({ tile, placed }: Page, names: readonly string[], n: number, of: number, title: string): string {
  const what = tile
    ? `${names[tile.drawing]}, tile ${String.fromCharCode(65 + tile.column)}${tile.row + 1}, ${tile.columns} across and ${tile.rows} up`
    : placed.map(({ drawing }) => names[drawing]).join("; ");
  return `${title}. Page ${n + 1} of ${of}: ${what}`;
}

const colourOf = (layer: SheetLayer) => {
  const { css } = PENS[layer];
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(css.slice(at, at + 2), 16) / 255);
  return rgb(r, g, b);
};

/** Thin and fixed spaces, which figures are shown with. */
const SPACES = /[\u00a0\u2009\u202f]/g;

/** The standard fonts of PDF have no thin spaces; a letter that they do not have is a question mark. */
function plain(font: PDFFont, text: string): string {
  const known = new Set(font.getCharacterSet());
  return Array.from(text.replace(SPACES, " "), (letter) => (known.has(letter.codePointAt(0) ?? 0) ? letter : "?")).join(
    "",
  );
}

function write(page: PDFPage, font: PDFFont, text: string, xMm: number, yMm: number, heightMm: number, turned = false) {
  page.drawText(plain(font, text), {
    x: xMm * POINTS,
    y: yMm * POINTS,
    size: heightMm * POINTS * 1.2,
    font,
    color: colourOf("text"),
    ...(turned ? { rotate: degrees(90) } : {}),
  });
}

/** The first page: what is on which page, how it goes together, and the bar to measure. */
function mapPage(
  pdf: PDFDocument,
  font: PDFFont,
  title: string,
  names: readonly string[],
  { pages, wasteShare }: Layout,
  paper: Paper,
): void {
  const heightMm = paper.heightMm ?? 297;
  const page = pdf.addPage([paper.widthMm * POINTS, heightMm * POINTS]);
  const left = paper.marginMm + 8;
  let y = heightMm - paper.marginMm - 12;
  const line = (text: string, size = 3.5) => {
    write(page, font, text, left, y, size);
    y -= size * 1.9;
  };
  line(title, 6);
  line(
    `${pages.length} ${pages.length === 1 ? "page" : "pages"} at 1:1 on ${paper.name}; ${Math.round(100 * wasteShare)} % of the paper is left over.`,
  );
  line(`Tiles overlap by ${OVERLAP_MM} mm: cut along the dashed line and lay the edge on the next tile's.`);
  y -= 3;
  drawLines(page, { lines: checkBar([left, y - CHECK_BAR_MM]), circles: [], texts: [], widthMm: 0, heightMm: 0 });
  write(page, font, CHECK_WORDS, left + 5, y - CHECK_BAR_MM + 5, 2.6);
  y -= CHECK_BAR_MM + 10;
  for (const text of mapLines(pages, names)) {
    if (y < paper.marginMm + 8) break;
    line(text, 2.8);
  }
}

/** What is on which page: one line for a drawing in tiles, one for every page that holds whole ones. */
function mapLines(pages: readonly Page[], names: readonly string[]): string[] {
  const tileName = ({ column, row }: { column: number; row: number }) =>
    `${String.fromCharCode(65 + column)}${row + 1}`;
  const lines: string[] = [];
  for (let n = 0; n < pages.length; ) {
    const { tile, placed } = pages[n];
    if (!tile) {
      lines.push(`Page ${n + 1}: ${placed.map(({ drawing }) => names[drawing]).join("; ")}`);
      n++;
      continue;
    }
    const first = n;
    while (pages[n]?.tile?.drawing === tile.drawing) n++;
    const last = pages[n - 1].tile ?? tile;
    const { columns, rows } = tile;
    lines.push(
      `Pages ${first + 1} to ${n}: ${names[tile.drawing]}, ${columns} across and ${rows} up, tiles ${tileName(tile)} to ${tileName(last)}, row by row from the lower left; blank ones are left out`,
    );
  }
  return lines;
}

function drawPage(
  pdf: PDFDocument,
  font: PDFFont,
  { widthMm, heightMm, placed, tile }: Page,
  { drawings, paper, label }: { drawings: readonly Drawing[]; paper: Paper; label: string },
): void {
  const page = pdf.addPage([widthMm * POINTS, heightMm * POINTS]);
  const { marginMm } = paper;
  const [roomW, roomH] = [widthMm - 2 * marginMm, heightMm - 2 * marginMm];
  // Nothing is drawn where a printer could not: what lies there is on the next tile.
  const corner = (x: number, y: number): [number, number] => [(marginMm + x) * POINTS, (marginMm + y) * POINTS];
  page.pushOperators(
    pushGraphicsState(),
    moveTo(...corner(0, 0)),
    lineTo(...corner(roomW, 0)),
    lineTo(...corner(roomW, roomH)),
    lineTo(...corner(0, roomH)),
    closePath(),
    clip(),
    endPath(),
  );
  for (const { drawing, at, turned } of placed) {
    const drawn = turned ? turnedUp(drawings[drawing]) : drawings[drawing];
    const here = movedBy(drawn, [at[0] + marginMm, at[1] + marginMm]);
    drawLines(page, here);
    for (const { at: place, text, heightMm: size } of here.texts)
      write(page, font, text, place[0], place[1], size, turned);
  }
  page.pushOperators(popGraphicsState());
  write(page, font, label, marginMm, marginMm / 2 - 1, 2.4);
  if (tile) glueLines(page, tile, marginMm, roomW, roomH);
}

/** Along the sides where another tile follows: how far it overlaps. */
function glueLines(
  page: PDFPage,
  tile: NonNullable<Page["tile"]>,
  marginMm: number,
  roomW: number,
  roomH: number,
): void {
  const dashed = (x0: number, y0: number, x1: number, y1: number) =>
    page.drawLine({
      start: { x: (marginMm + x0) * POINTS, y: (marginMm + y0) * POINTS },
      end: { x: (marginMm + x1) * POINTS, y: (marginMm + y1) * POINTS },
      thickness: 0.2 * POINTS,
      color: colourOf("score"),
      dashArray: [4 * POINTS, 3 * POINTS],
    });
  if (tile.column + 1 < tile.columns) dashed(roomW - OVERLAP_MM, 0, roomW - OVERLAP_MM, roomH);
  if (tile.column > 0) dashed(OVERLAP_MM, 0, OVERLAP_MM, roomH);
  if (tile.row + 1 < tile.rows) dashed(0, roomH - OVERLAP_MM, roomW, roomH - OVERLAP_MM);
  if (tile.row > 0) dashed(0, OVERLAP_MM, roomW, OVERLAP_MM);
}

function drawLines(page: PDFPage, { lines, circles }: Drawing): void {
  for (const layer of SHEET_LAYERS) {
    if (layer === "text") continue;
    const color = colourOf(layer);
    const dashArray = PENS[layer].dash ? PENS[layer].dash.split(" ").map((mm) => Number(mm) * POINTS) : undefined;
    for (const line of lines) {
      if (line.layer !== layer) continue;
      // A path's y runs down in this library: it is turned back.
      const path = line.points.map(([x, y], k) => `${k ? "L" : "M"}${x * POINTS} ${-y * POINTS}`).join("");
      page.drawSvgPath(`${path}${line.closed ? "Z" : ""}`, {
        x: 0,
        y: 0,
        borderColor: color,
        borderWidth: PEN_MM * POINTS,
        ...(dashArray ? { borderDashArray: dashArray } : {}),
      });
    }
    for (const circle of circles) {
      if (circle.layer !== layer) continue;
      page.drawCircle({
        x: circle.at[0] * POINTS,
        y: circle.at[1] * POINTS,
        size: circle.radiusMm * POINTS,
        borderColor: color,
        borderWidth: PEN_MM * POINTS,
      });
    }
  }
}
