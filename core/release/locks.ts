/**
 * Locks of a section: the space of its cell that, moving along its pull, meets the jacket again.
 *
 * The cell of a section is all points nearer to its patch of the jacket than to any other's. Space counts from the
 * back of the jacket (or the board) forwards. Columns of the cell no deeper along the pull than the fill depth are
 * filled; so are longer ones where the whole lock they are part of lies within the fill depth of the jacket, for a
 * long shallow hollow takes a thin fill. The rest stays open, and the section does not release.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type ColumnFrame, columnFrame, columnPoint, FROM_BACK, visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";
import { Cells, type CellsData } from "./cells.ts";
import { changedNodes, linesThrough } from "./changes.ts";
import { fillStarts, type Stretch, withoutGrazes } from "./fillable.ts";
import { ANYWHERE, type CellWindows, emptyWindows, LineWindows, windowKernel } from "./windows.ts";

/** How much farther from the jacket than its shell a section reaches, by its flanges, mm. */
const FLANGE_REACH_MM = 25;
/** Shorter than this share of the spacing is below what the grid can tell. */
const DEPTH_FLOOR = 0.5;

/** A filled stretch of a line. */
export interface FilledColumn {
  readonly line: number;
  readonly fromMm: number;
  readonly toMm: number;
}

export interface SectionLock {
  readonly lockMm3: number;
  readonly fillMm3: number;
  /** How far the deepest point moves before it meets the jacket; 0 where there is no lock. */
  readonly deepestMm: number;
  /** The deepest point left open, or the deepest filled one; null where there is no lock. */
  readonly at: readonly [number, number, number] | null;
  /** Volume left open because it is deeper than the fill depth. */
  readonly openMm3: number;
  /** Volume in locks thicker than the residue: above 0, the section does not release as the jacket stands. */
  readonly holdingMm3: number;
  readonly columns: readonly FilledColumn[];
  /** Points spread through the lock: xyz and the depth there, mm, 4 per point; the depth of a filled one is negative. */
  readonly points: Float32Array;
  readonly frame: ColumnFrame;
}

export interface LockRequest {
  readonly jacket: TriangleMesh;
  readonly section: number;
  readonly pull: Direction;
  /** Between the lines, across the pull. */
  readonly spacingMm: number;
  /** Between the samples along a line. */
  readonly alongMm: number;
  readonly boardMm: number | null;
  readonly fillDepthMm: number;
  /** A lock no thicker than this is the grid's own roughness, mm. */
  readonly residueMm: number;
  /** Thickness of the section: columns of its cell that nowhere come this near the jacket do not hold it. */
  readonly shellMm: number;
}

/** The stretches of one section's cell on a band of lines, measured by any thread. */
interface StretchShare {
  readonly request: LockRequest;
  /** The frame of the pull, its bundle cut down to the band. */
  readonly frame: ColumnFrame;
  /** Number of the band's first line in the whole bundle. */
  readonly firstLine: number;
  /** 1 at the lines of the band to be measured; all where it is null. */
  readonly wanted: Uint8Array | null;
  readonly cells: CellsData;
  /** Where along the lines of the whole bundle the section's cell can lie. */
  readonly windows: CellWindows;
  /** Out: how many there are; more than `figures` has room for when it was too small. */
  readonly count: Int32Array;
  /** Out: six figures a stretch, see `Stretch`. */
  readonly figures: Float64Array;
}

export const stretchKernel: Kernel<StretchShare> = {
  name: "lock stretches",
  run({ request, frame, firstLine, wanted, cells, windows, count, figures }) {
    const stretches = stretchesOf(request, frame, wanted, new Cells(cells), new LineWindows(windows, frame, cells));
    count[0] = stretches.length;
    if (6 * stretches.length > figures.length) return;
    stretches.forEach(({ line, to, low, near, lengthMm, thickMm }, k) => {
      figures.set([line + firstLine, to, low, near, lengthMm, thickMm], 6 * k);
    });
  },
};

/** Room for stretches at first, by lines of the bundle. */
const ROOM_PER_LINE = 2;

/** Bands the lines of a section are cut into: enough that the threads end together. */
const BANDS = 3;
/** Fewer lines than this are not worth cutting up: every band looks through the whole jacket. */
const BAND_LINES = 20_000;
/** Fewer lines than this are looked at sooner than it is known where the section's cell can lie along them. */
const FEW_LINES = 3000;

/** What was measured, kept so that the next measure looks only at what has changed. */
export class LockMemory {
  private held: { readonly cells: Cells; readonly sections: readonly MeasuredSection[] } | null = null;

  /** What of a measure is known, and which lines are not; nothing where it cannot be compared. */
  recall(requests: readonly LockRequest[], frames: readonly ColumnFrame[], cells: Cells): (Recalled | null)[] {
    const { held } = this;
    const alike = requests.map((request, k) =>
      held?.sections.find(
        (other) => sameMeasure(other.request, request) && JSON.stringify(other.frame) === JSON.stringify(frames[k]),
      ),
    );
    const changed = held && alike.some((before) => before) ? changedNodes(held.cells, cells) : null;
    return requests.map((_, k) => {
      const before = alike[k];
      if (!before || !changed) return null;
      const wanted = linesThrough(changed, cells, frames[k]);
      return { wanted, stretches: before.stretches.filter(({ line }) => wanted[line] === 0) };
    });
  }

  keep(cells: Cells, sections: readonly MeasuredSection[]): void {
    this.held = { cells, sections };
  }

  copy(): LockMemory {
    const other = new LockMemory();
    other.held = this.held;
    return other;
  }
}

interface MeasuredSection {
  readonly request: LockRequest;
  readonly frame: ColumnFrame;
  readonly stretches: readonly Stretch[];
}

interface Recalled {
  /** 1 at the lines to be measured anew. */
  readonly wanted: Uint8Array;
  /** Those of all other lines. */
  readonly stretches: readonly Stretch[];
}

/** Are two measures of the same section on the same lines? The jacket and the cells may differ. */
function sameMeasure(a: LockRequest, b: LockRequest): boolean {
  const keys = ["section", "spacingMm", "alongMm", "boardMm", "residueMm", "shellMm"] as const;
  return keys.every((key) => a[key] === b[key]) && a.pull.every((x, k) => x === b.pull[k]);
}

/**
 * The locks of several sections, one request each, measured side by side.
 * @param memory of the measure before: lines through nothing that has changed since are not measured again
 */
export function measureLocks(
  requests: readonly LockRequest[],
  cells: Cells,
  ctx: JobContext,
  memory: LockMemory | null = null,
): SectionLock[] {
  const frames = requests.map(({ jacket, pull, spacingMm }) => columnFrame(jacket, pull, spacingMm));
  const recalled = memory?.recall(requests, frames, cells) ?? requests.map(() => null);
  const measured = stretchesAnew(requests, frames, recalled, cells, ctx);
  const sections = requests.map((request, k): MeasuredSection => {
    const known = recalled[k];
    const stretches = known ? inLineOrder([...known.stretches, ...measured[k]]) : measured[k];
    return { request, frame: frames[k], stretches };
  });
  memory?.keep(cells, sections);
  return sections.map(({ request, frame, stretches }) => lockOf(request, frame, stretches));
}

/** By line; those of one line keep their order. */
function inLineOrder(stretches: Stretch[]): Stretch[] {
  return stretches.sort((a, b) => a.line - b.line);
}

/** The stretches of every section on the lines that are wanted of it. */
function stretchesAnew(
  requests: readonly LockRequest[],
  frames: readonly ColumnFrame[],
  recalled: readonly (Recalled | null)[],
  cells: Cells,
  ctx: JobContext,
): Stretch[][] {
  const shareOf = (band: Omit<StretchShare, "cells" | "count" | "figures">, room: number): StretchShare => ({
    ...band,
    cells: cells.data,
    count: new Int32Array(ctx.team.buffer(4)),
    figures: new Float64Array(ctx.team.buffer(48 * room)),
  });
  const lines = frames.map((frame, k) => wantedLines(frame, recalled[k]));
  const windows = windowsOf(requests, frames, lines, cells, ctx);
  let shares = requests.flatMap((request, k) =>
    bandsOf(frames[k], lines[k]).flatMap(({ frame, firstLine }) => {
      const inBand = frame.bundle.countU * frame.bundle.countV;
      const wanted = recalled[k]?.wanted.subarray(firstLine, firstLine + inBand) ?? null;
      if (wanted && !wanted.includes(1)) return [];
      return [
        shareOf({ request, frame, firstLine, wanted, windows: windows[k] }, ROOM_PER_LINE * Math.min(inBand, lines[k])),
      ];
    }),
  );
  ctx.team.run(stretchKernel, shares, () => ctx.checkCancelled());
  const short = shares.filter(({ count, figures }) => 6 * count[0] > figures.length);
  if (short.length > 0) {
    const larger = new Map(short.map((share) => [share, shareOf(share, share.count[0])]));
    ctx.team.run(stretchKernel, [...larger.values()], () => ctx.checkCancelled());
    shares = shares.map((share) => larger.get(share) ?? share);
  }
  return requests.map((request) => shares.filter((share) => share.request === request).flatMap(stretchesIn));
}

/** Where each section's cell can lie along its lines; anywhere, for the few lines of a small edit. */
function windowsOf(
  requests: readonly LockRequest[],
  frames: readonly ColumnFrame[],
  lines: readonly number[],
  cells: Cells,
  ctx: JobContext,
): CellWindows[] {
  const windows = frames.map((frame, k) =>
    lines[k] < FEW_LINES ? ANYWHERE : emptyWindows(cells.data, frame, (bytes) => ctx.team.buffer(bytes)),
  );
  const shares = requests.flatMap(({ section }, k) =>
    windows[k] === ANYWHERE ? [] : [{ cells: cells.data, section, frame: frames[k], windows: windows[k] }],
  );
  ctx.team.run(windowKernel, shares, () => ctx.checkCancelled());
  return windows;
}

function wantedLines({ bundle }: ColumnFrame, recalled: Recalled | null): number {
  return recalled ? recalled.wanted.reduce((sum, one) => sum + one, 0) : bundle.countU * bundle.countV;
}

/** A frame's lines in bands of rows, in order. */
function bandsOf(frame: ColumnFrame, lines: number): { frame: ColumnFrame; firstLine: number }[] {
  const { bundle } = frame;
  return runsOf(bundle.countV, Math.max(1, Math.min(BANDS, Math.round(lines / BAND_LINES)))).map(({ from, to }) => ({
    frame: {
      ...frame,
      bundle: { ...bundle, originV: bundle.originV + from * bundle.spacingMm, countV: to - from },
    },
    firstLine: from * bundle.countU,
  }));
}

function stretchesIn({ count, figures }: StretchShare): Stretch[] {
  return Array.from({ length: count[0] }, (_, k) => {
    const [line, to, low, near, lengthMm, thickMm] = figures.subarray(6 * k, 6 * k + 6);
    return { line, to, low, near, lengthMm, thickMm };
  });
}

function stretchesOf(
  request: LockRequest,
  frame: ColumnFrame,
  wanted: Uint8Array | null,
  cells: Cells,
  windows: LineWindows,
): Stretch[] {
  const { jacket, section, spacingMm, alongMm, boardMm, residueMm, shellMm } = request;
  const reachMm = shellMm + FLANGE_REACH_MM;
  const stretches: Stretch[] = [];
  const point = new Float64Array(3);
  visitColumns(
    jacket,
    frame,
    boardMm,
    (line, from, to, first) => {
      if (to - from <= DEPTH_FLOOR * spacingMm) return;
      windows.lookUp(line);
      if (windows.clearMm(from) >= to - from) return;
      const samples = Math.max(1, Math.ceil((to - from) / alongMm));
      const each = (to - from) / samples;
      let low = Number.NaN;
      let length = 0;
      let near = Number.NaN;
      let reached = false;
      let thickMm = 0;
      for (let k = 0; k < samples; k++) {
        const place = from + (k + 0.5) * each;
        const clearMm = windows.clearMm(place);
        if (clearMm > 0) {
          k += Math.max(0, Math.floor(clearMm / each - 1e-6));
          continue;
        }
        columnPoint(frame, line, place, point);
        if (cells.at(point[0], point[1], point[2]) !== section) continue;
        // Short columns fill anyway: only long ones need their distance from the jacket.
        const thick = to - from <= residueMm ? 0 : cells.distance(point);
        thickMm = Math.max(thickMm, thick);
        reached ||= thick < shellMm;
        if (thick > reachMm) near = Number.NaN;
        else if (Number.isNaN(near)) near = from + k * each;
        if (length === 0)
          low = k === 0 ? from : cellEdge(cells, section, frame, line, from + (k - 0.5) * each, each, point);
        length += length === 0 ? from + (k + 1) * each - low : each;
      }
      if (!reached || to - low <= DEPTH_FLOOR * spacingMm) return;
      if (first === FROM_BACK && low === from) thickMm = Infinity;
      const nearMm = Math.max(low, Number.isNaN(near) ? to - spacingMm : near);
      stretches.push({ line, to, low, near: nearMm, lengthMm: length, thickMm });
    },
    wanted,
  );
  return stretches;
}

/** What the stretches of a section's cell come to. */
function lockOf(request: LockRequest, frame: ColumnFrame, stretches: readonly Stretch[]): SectionLock {
  const { fillDepthMm, residueMm, spacingMm } = request;
  const kept = withoutGrazes(stretches, frame, fillDepthMm, residueMm);
  const rough = withoutGrazes(stretches, frame, residueMm, residueMm);
  const smooth = rough.map(({ low, to, thickMm }) => Math.max(to - low, thickMm) <= residueMm);
  const thin = fillStarts(rough, frame, residueMm);
  const holdingMm3 = rough.reduce(
    (sum, { lengthMm, low }, k) => sum + (smooth[k] || thin[k] === low ? 0 : spacingMm ** 2 * lengthMm),
    0,
  );
  return { ...summarise(kept, fillStarts(kept, frame, fillDepthMm), frame, spacingMm), holdingMm3 };
}

/** Halvings of a sample's length when a cell's edge is looked for: to a thirtieth. */
const EDGE_HALVINGS = 5;

/** Where on a line a section's cell begins, between a sample outside it at `outMm` and one inside it a sample on. */
function cellEdge(
  cells: Cells,
  section: number,
  frame: ColumnFrame,
  line: number,
  outMm: number,
  each: number,
  point: Float64Array,
): number {
  let out = outMm;
  let within = outMm + each;
  for (let k = 0; k < EDGE_HALVINGS; k++) {
    const middle = (out + within) / 2;
    columnPoint(frame, line, middle, point);
    if (cells.at(point[0], point[1], point[2]) === section) within = middle;
    else out = middle;
  }
  return within;
}

function summarise(
  stretches: readonly Stretch[],
  fillFrom: Float64Array,
  frame: ColumnFrame,
  spacingMm: number,
): Omit<SectionLock, "holdingMm3"> {
  const face = spacingMm * spacingMm;
  let lockMm3 = 0;
  let fillMm3 = 0;
  let deepestMm = 0;
  let at: [number, number, number] | null = null;
  const columns: FilledColumn[] = [];
  const point = new Float64Array(3);
  let openMm3 = 0;
  let mostTelling = 0;
  const filled = Array.from(fillFrom, (from) => !Number.isNaN(from));
  stretches.forEach(({ line, to, low, lengthMm }, k) => {
    const depth = to - low;
    lockMm3 += face * lengthMm;
    if (filled[k]) {
      fillMm3 += face * Math.min(lengthMm, to - fillFrom[k]);
      columns.push({ line, fromMm: fillFrom[k], toMm: to });
    } else openMm3 += face * lengthMm;
    // Open locks are told before filled ones, however deep.
    const telling = filled[k] ? depth : depth + 1e6;
    if (telling > mostTelling) {
      mostTelling = telling;
      deepestMm = depth;
      columnPoint(frame, line, low, point);
      at = [point[0], point[1], point[2]];
    }
  });
  return {
    lockMm3,
    fillMm3,
    deepestMm,
    at,
    openMm3,
    columns,
    points: spreadPoints(stretches, filled, frame),
    frame,
  };
}

/** At most this many points stand for a lock on the stage. */
const SHOWN_POINTS = 1500;

function spreadPoints(stretches: readonly Stretch[], filled: readonly boolean[], frame: ColumnFrame): Float32Array {
  const every = Math.max(1, Math.ceil(stretches.length / SHOWN_POINTS));
  const shown = stretches.map((_, k) => k).filter((k) => k % every === 0);
  const out = new Float32Array(shown.length * 4);
  const point = new Float64Array(3);
  shown.forEach((n, k) => {
    const { line, low, to } = stretches[n];
    columnPoint(frame, line, (low + to) / 2, point);
    out.set([point[0], point[1], point[2], filled[n] ? low - to : to - low], 4 * k);
  });
  return out;
}
