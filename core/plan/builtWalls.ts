/** The walls of a plan as they are built: as wide as was decided, with what holds the flanges together, and their patterns. */
import { AlongWall } from "../flange/along.ts";
import { type DrillRow, drillMap } from "../flange/drillMap.ts";
import { type Fastenings, fasteningsOf, widthFor } from "../flange/fastenings.ts";
import { marksOn, type PatternMarks } from "../flange/marks.ts";
import { choiceFor, type FlangeSettings, type WallChoice } from "../flange/settings.ts";
import { once } from "../job/once.ts";
import { pagesFor, paperOf } from "../patterns/pages.ts";
import { pieceDrawing } from "../patterns/sheet.ts";
import { type ShellThicknesses, thickestOf } from "../shell/index.ts";
import { allLayups, type ShellLaid } from "../shell/layup.ts";
import { CLAY_BEYOND_MM, CLAY_WALL_MM, SHIM_MM } from "../takeoff/flanges.ts";
import { patternsOf, type WallPattern } from "../walls/pattern.ts";
import type { WallGround } from "../walls/wallGround.ts";
import { type Wall, wallsOn } from "../walls/walls.ts";
import type { PlanDocument } from "./document/document.ts";

/** A wall with what holds its flanges together. */
export interface FastenedWall {
  /** Of the line that it stands on; null where the plan was not told apart from others. */
  readonly id: string | null;
  readonly wall: Wall;
  readonly along: AlongWall;
  readonly choice: WallChoice | null;
  readonly fastenings: Fastenings;
}

export interface BuiltWall extends FastenedWall {
  readonly pattern: WallPattern;
  /** Of each piece of its pattern. */
  readonly marks: readonly PatternMarks[];
}

type Walled = Pick<PlanDocument, "shell" | "seat">;

/**
 * Pure, in milliseconds: a width of one wall's own, or a bolt that is moved, asks for nothing else.
 * @param grounds one for every parting line
 * @param ids of the lines, in their order
 */
export function builtWalls(grounds: readonly WallGround[], document: Walled, ids: readonly string[] = []): BuiltWall[] {
  const { flanges } = document.shell;
  const { patterns } = laidOut(grounds, document, ids);
  return fastenedWalls(grounds, document, ids).map((wall, n): BuiltWall => {
    const pattern = patterns()[n];
    const marks = pattern.pieces.map((piece) => marksOn(piece, wall.fastenings, flanges.bolts.diameterMm / 2));
    return { ...wall, pattern, marks };
  });
}

/** The walls without their patterns. */
export function fastenedWalls(
  grounds: readonly WallGround[],
  document: Walled,
  ids: readonly string[] = [],
): FastenedWall[] {
  const { flanges } = document.shell;
  const terms = shellTerms(document.shell);
  const { walls } = laidOut(grounds, document, ids);
  return grounds.map((ground, n): FastenedWall => {
    const along = new AlongWall(ground, walls[n]);
    const id = ids[n] ?? null;
    const choice = choiceFor(flanges, id);
    return { id, wall: walls[n], along, choice, fastenings: fasteningsOf(along, flanges, choice, terms) };
  });
}

interface LaidOut {
  readonly walls: readonly Wall[];
  /** Worked out when they are first asked for. */
  readonly patterns: () => readonly WallPattern[];
}

/** Walls and patterns by their widths: an edit that leaves those alone lays nothing out again. */
const laidOutBefore = new WeakMap<readonly WallGround[], { readonly key: string; readonly laid: LaidOut }>();

function laidOut(grounds: readonly WallGround[], { shell, seat }: Walled, ids: readonly string[]): LaidOut {
  const boardMm = seat.onBoard ? 0 : null;
  const terms = shellTerms(shell);
  const widths = grounds.map((_, n) => widthFor(shell.flanges, ids[n] ?? null, terms));
  const key = JSON.stringify([widths, boardMm]);
  const held = laidOutBefore.get(grounds);
  if (held?.key === key) return held.laid;
  const walls = wallsOn(grounds, widths);
  const laid = { walls, patterns: once(() => patternsOf(walls, boardMm)) };
  laidOutBefore.set(grounds, { key, laid });
  return laid;
}

/** Thicknesses of the shell and of its flanges, mm: of its thickest section, where they differ. */
export function shellTerms(shell: ShellLaid): ShellThicknesses {
  return thickestOf(allLayups(shell));
}

export interface WallTotals {
  /** What the walls are cut from, mm2; of clay, mm3, where they are coiled; shims where they are pushed in. */
  readonly sheetMm2: number;
  readonly clayMm3: number;
  readonly shims: number;
}

export function wallTotals(walls: readonly BuiltWall[]): WallTotals {
  return walls.reduce(
    ({ sheetMm2, clayMm3, shims }, { pattern }) => ({
      sheetMm2: sheetMm2 + pattern.areaMm2,
      clayMm3: clayMm3 + (pattern.areaMm2 + CLAY_BEYOND_MM * pattern.lengthMm) * CLAY_WALL_MM,
      shims: shims + Math.ceil(pattern.lengthMm / SHIM_MM),
    }),
    { sheetMm2: 0, clayMm3: 0, shims: 0 },
  );
}

/** What the command line tells of the walls. */
export function wallReport(walls: readonly BuiltWall[]) {
  return walls.map(({ id, wall, along, pattern, fastenings, marks }) => {
    const { number, sections, lengthMm, patternLengthMm, areaMm2, pieces, ends } = pattern;
    const { bolts, dimples, grooves, slots, unbolted } = fastenings;
    return {
      ...{ id, number, sections, lengthMm, patternLengthMm, areaMm2, ends },
      /** The width that was asked for, and stretches where there was no room for it. */
      widthMm: wall.wantedMm,
      /** How many pages of A4 its pattern takes. */
      sheets: sheetsOf(pattern, marks),
      narrowed: wall.narrowed,
      /** Places where it would cross itself. */
      folds: wall.folds,
      mostLeanDeg: Math.max(0, ...Array.from(along.ground.leanDeg, Math.abs)),
      pieces: pieces.map(({ widthMm, heightMm, fromMm, toMm, bends }) => ({
        ...{ widthMm, heightMm, fromMm, toMm, bends: bends.length },
      })),
      bolts: bolts.length,
      flangeKeys: dimples.length + grooves.length,
      prySlots: slots,
      unbolted,
    };
  });
}

export type WallReport = ReturnType<typeof wallReport>;

function sheetsOf(pattern: WallPattern, marks: readonly PatternMarks[]): number {
  const title = { pieceName: "", walls: 1 };
  const drawings = pattern.pieces.map((_, n) => pieceDrawing(pattern, n, title, marks[n]));
  const areas = pattern.pieces.map(({ areaMm2 }) => areaMm2);
  return pagesFor(drawings, areas, paperOf("a4")).pages.length;
}

/** All bolts of a plan, each with its wall and its place in space. */
export function boltReport(walls: readonly BuiltWall[]) {
  return walls.flatMap(({ along, pattern: { number, sections }, fastenings }) =>
    fastenings.bolts.map((bolt, k) => ({ wall: number, sections, number: k + 1, ...bolt, at: along.place(bolt) })),
  );
}

/** All keys between flanges. */
export function flangeKeyReport(walls: readonly BuiltWall[]) {
  return walls.flatMap(({ along, pattern: { number, sections }, fastenings: { dimples, grooves } }) => [
    ...dimples.map((dimple) => ({ kind: "dimple", wall: number, sections, ...dimple, at: along.place(dimple) })),
    ...grooves.map((groove) => ({ kind: "groove", wall: number, sections, ...groove })),
  ]);
}

/** The drill maps as a table of text, one row a bolt. */
export function drillMapCsv(
  walls: readonly BuiltWall[],
  { diameterMm, hold }: Pick<FlangeSettings["bolts"], "diameterMm" | "hold">,
): string {
  const head =
    "wall,sections,bolt,hole_mm,along_jacket_mm,along_edge_mm,off_jacket_mm,aslant_deg,away_from_section,note";
  const rows = walls.flatMap(({ pattern, along, fastenings }) =>
    drillMap(along, fastenings, hold).map((row) => rowOf(pattern, row, diameterMm)),
  );
  return `${[head, ...rows].join("\n")}\n`;
}

function rowOf({ number, sections }: WallPattern, row: DrillRow, diameterMm: number): string {
  const { bolt, alongMm, outerMm, offMm, aslant, strap, insertIn } = row;
  const mm = (value: number) => value.toFixed(0);
  return [
    number,
    sections.join("|"),
    bolt,
    diameterMm,
    mm(alongMm),
    mm(outerMm),
    mm(offMm),
    aslant ? mm(aslant.deg) : "0",
    aslant?.section ?? "",
    strap ? "no room for a nut: strap here" : insertIn === null ? "" : `insert laid into section ${insertIn}`,
  ].join(",");
}
