/** Patterns printed and measured: the PDF is turned into pixels by a reader that shares no code with what wrote it. */
import { createCanvas } from "@napi-rs/canvas";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { beforeAll, describe, expect, it } from "vitest";
import { AlongWall } from "../flange/along.ts";
import { fasteningsOf } from "../flange/fastenings.ts";
import { marksOn } from "../flange/marks.ts";
import { TYPICAL_FLANGES } from "../flange/settings.ts";
import { paperOf } from "../patterns/pages.ts";
import { groundOf, upright, WIDTH_MM } from "../testing/walls.ts";
import { patternsOf } from "../walls/pattern.ts";
import { wallsOn } from "../walls/walls.ts";
import { wallsPdf } from "./wallsPdf.ts";

const PX_PER_MM = 10;
/** What is measured is right to this, mm: the width of a pen, and a pixel. */
const WITHIN_MM = 0.3;

interface Pixels {
  readonly width: number;
  readonly height: number;
  /** 4 a pixel. */
  readonly data: Uint8ClampedArray;
}

const ground = groundOf(upright);
const [wall] = wallsOn([ground], [WIDTH_MM]);
const [pattern] = patternsOf([wall], null);
const fastenings = fasteningsOf(new AlongWall(ground, wall), TYPICAL_FLANGES, null, { flangeMm: 20 });
const marks = pattern.pieces.map((piece) => marksOn(piece, fastenings, 3));

async function pagesOf(paper: string): Promise<Pixels[]> {
  const { bytes } = await wallsPdf([{ pattern, marks }], "Test piece", paperOf(paper));
  const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
  const pages: Pixels[] = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n);
    // PDF counts in points, 72 an inch.
    const viewport = page.getViewport({ scale: (PX_PER_MM * 25.4) / 72 });
    const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
    const context = canvas.getContext("2d");
    await page.render({ canvasContext: context as never, canvas: canvas as never, viewport }).promise;
    const { width, height } = canvas;
    pages.push({ width, height, data: context.getImageData(0, 0, width, height).data });
  }
  return pages;
}

type Ink = (r: number, g: number, b: number) => boolean;
const isGreen: Ink = (r, g, b) => g > r + 30 && g > b + 10;
const isBlack: Ink = (r, g, b) => Math.max(r, g, b) < 110 && Math.max(r, g, b) - Math.min(r, g, b) < 12;

/** The longest unbroken run of an ink along rows, or along columns, px. */
function longestRun({ width, height, data }: Pixels, ink: Ink, upwards: boolean): number {
  let best = 0;
  const [lines, along] = upwards ? [width, height] : [height, width];
  for (let line = 0; line < lines; line++) {
    let run = 0;
    for (let k = 0; k < along; k++) {
      const at = 4 * (upwards ? k * width + line : line * width + k);
      run = ink(data[at], data[at + 1], data[at + 2]) ? run + 1 : 0;
      best = Math.max(best, run);
    }
  }
  return best;
}

describe("patterns printed", () => {
  let roll: Pixels[];
  beforeAll(async () => {
    roll = await pagesOf("roll-610");
  });

  it("have a check bar that measures 100 mm both ways", () => {
    for (const upwards of [false, true])
      expect(Math.abs(longestRun(roll[0], isGreen, upwards) / PX_PER_MM - 100)).toBeLessThan(WITHIN_MM);
  });

  it("are as long and as wide as the wall", () => {
    expect(roll).toHaveLength(2);
    expect(Math.abs(longestRun(roll[1], isBlack, false) / PX_PER_MM - 420)).toBeLessThan(WITHIN_MM);
    expect(Math.abs(longestRun(roll[1], isBlack, true) / PX_PER_MM - WIDTH_MM)).toBeLessThan(WITHIN_MM);
  });

  it("are cut into tiles that show all of it, each up to the edge of what prints", async () => {
    const tiles = (await pagesOf("a4")).slice(1);
    expect(tiles.length).toBeGreaterThan(1);
    // Lying or standing, the long edges of all tiles together, less what they show twice.
    const runs = tiles.map((tile) => Math.max(longestRun(tile, isBlack, false), longestRun(tile, isBlack, true)));
    const shown = runs.reduce((sum, run) => sum + run / PX_PER_MM, 0) - 10 * (tiles.length - 1);
    expect(Math.abs(shown - 420)).toBeLessThan(WITHIN_MM * tiles.length);
  });

  it("give the same bytes for the same plan", async () => {
    const print = async () => (await wallsPdf([{ pattern, marks }], "Test piece", paperOf("a3"))).bytes;
    expect(await print()).toEqual(await print());
  });
});
