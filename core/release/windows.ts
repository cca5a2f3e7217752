/**
 * Where along each line of a bundle the cell of one section can lie at all. Nearly every line of a section's bundle runs
 * through other sections' cells only: to know that beforehand spares looking at it place by place.
 *
 * Every node that may speak for the section is cast on an image across the pull that keeps its first and last place
 * along it (two depth maps, Williams 1978), widened by how far a point may be from a node about it. What lies outside
 * these windows is not in the section's cell: no node about it says so.
 */
import { BRICK, BRICK_NODES, brickCorner } from "../field/grid.ts";
import { NO_CLASS } from "../field/nearest.ts";
import type { Kernel } from "../job/team.ts";
import type { ColumnFrame } from "../survey/columns.ts";
import { type CellsData, sectionBit } from "./cells.ts";

/** An image across a pull, a pixel as wide as a step of the cells' nodes. */
export interface CellWindows {
  readonly pixelMm: number;
  /** Middle of pixel (0, 0) across, mm. */
  readonly originU: number;
  readonly originV: number;
  readonly countU: number;
  readonly countV: number;
  /** Per pixel, where along the pull the cell may begin and end, mm; infinite the wrong way round where it is not. */
  readonly fromMm: Float32Array;
  readonly toMm: Float32Array;
  /** 1 for each face of the nodes' box that the cell may reach: low and high along x, y, z. */
  readonly faces: Uint8Array;
}

/** The windows of a cell that may be anywhere. */
export const ANYWHERE: CellWindows = {
  pixelMm: 1e9,
  originU: 0,
  originV: 0,
  countU: 1,
  countV: 1,
  fromMm: Float32Array.of(-Infinity),
  toMm: Float32Array.of(Infinity),
  faces: new Uint8Array(6).fill(1),
};

/** A point is no farther than this from each of the eight nodes about it, in steps. */
const ABOUT_STEPS = Math.sqrt(3);
/** Pixels that far, from the pixel nearest the one to the pixel nearest the other. */
const RINGS = 2;

interface WindowShare {
  readonly cells: CellsData;
  readonly section: number;
  readonly frame: ColumnFrame;
  /** Out: its two images. */
  readonly windows: CellWindows;
}

export const windowKernel: Kernel<WindowShare> = {
  name: "cell windows",
  run({ cells, section, frame, windows }) {
    castNodes(cells, section, frame, windows);
    const { fromMm, toMm, countU, countV } = windows;
    spread(fromMm, countU, countV, Math.min);
    spread(toMm, countU, countV, Math.max);
  },
};

/** Images with room for a section's windows, nothing in them yet; `buffer` gives memory that threads share. */
export function emptyWindows(
  { nearest }: CellsData,
  { bundle }: ColumnFrame,
  buffer: (bytes: number) => ArrayBufferLike,
): CellWindows {
  const pixelMm = nearest.grid.stepMm;
  const { originU, originV, spacingMm } = bundle;
  const countU = Math.round(((bundle.countU - 1) * spacingMm) / pixelMm) + 1;
  const countV = Math.round(((bundle.countV - 1) * spacingMm) / pixelMm) + 1;
  const image = () => new Float32Array(buffer(4 * countU * countV));
  return {
    pixelMm,
    originU,
    originV,
    countU,
    countV,
    fromMm: image().fill(Infinity),
    toMm: image().fill(-Infinity),
    faces: new Uint8Array(buffer(6)),
  };
}

function castNodes(
  { nearest: { grid, triangle }, classes, mayBe }: CellsData,
  section: number,
  { u: [ux, uy, uz], v: [vx, vy, vz], d: [dx, dy, dz] }: ColumnFrame,
  { pixelMm, originU, originV, countU, countV, fromMm, toMm, faces }: CellWindows,
): void {
  const { stepMm } = grid;
  const [ox, oy, oz] = grid.originMm;
  const { node, brick } = classes;
  const [lastI, lastJ, lastK] = grid.bricks.map((count) => BRICK * count - 1);
  const bit = sectionBit(section);
  const aboutMm = ABOUT_STEPS * stepMm;
  const corner = new Int32Array(3);
  for (let slot = 0; slot < brick.length; slot++) {
    const whole = brick[slot];
    if (whole >= 0 && whole !== section && whole !== NO_CLASS) continue;
    brickCorner(grid, slot, corner);
    for (let n = 0; n < BRICK_NODES; n++) {
      const at = slot * BRICK_NODES + n;
      if (node[at] !== section && (node[at] !== NO_CLASS || (mayBe[triangle[at]] & bit) === 0)) continue;
      const i = corner[0] + (n & 7);
      const j = corner[1] + ((n >> 3) & 7);
      const k = corner[2] + (n >> 6);
      const x = ox + stepMm * i;
      const y = oy + stepMm * j;
      const z = oz + stepMm * k;
      const a = Math.round((ux * x + uy * y + uz * z - originU) / pixelMm);
      const b = Math.round((vx * x + vy * y + vz * z - originV) / pixelMm);
      const along = dx * x + dy * y + dz * z;
      const pixel = clamped(a, countU) + countU * clamped(b, countV);
      if (along - aboutMm < fromMm[pixel]) fromMm[pixel] = along - aboutMm;
      if (along + aboutMm > toMm[pixel]) toMm[pixel] = along + aboutMm;
      if (i === 0) faces[0] = 1;
      if (i === lastI) faces[1] = 1;
      if (j === 0) faces[2] = 1;
      if (j === lastJ) faces[3] = 1;
      if (k === 0) faces[4] = 1;
      if (k === lastK) faces[5] = 1;
    }
  }
}

function clamped(pixel: number, count: number): number {
  return pixel < 0 ? 0 : pixel >= count ? count - 1 : pixel;
}

/** Every pixel takes the best of those within RINGS of it, along one axis and then the other. */
function spread(image: Float32Array, countU: number, countV: number, best: (a: number, b: number) => number): void {
  const axes = [
    [countU, 1, countV, countU],
    [countV, countU, countU, 1],
  ] as const;
  for (const [length, stride, rows, rowStride] of axes) {
    const row = new Float32Array(length);
    for (let r = 0; r < rows; r++) {
      const first = r * rowStride;
      for (let k = 0; k < length; k++) row[k] = image[first + k * stride];
      for (let k = 0; k < length; k++) {
        let most = row[k];
        for (let m = Math.max(0, k - RINGS); m <= Math.min(length - 1, k + RINGS); m++) most = best(most, row[m]);
        image[first + k * stride] = most;
      }
    }
  }
}

/** Looks up the windows of a bundle's lines one after another. */
export class LineWindows {
  /** Along the line last looked up: where the section's cell may begin and end, mm. */
  private fromMm = 0;
  private toMm = 0;
  /** Where it runs among the nodes, and whether the cell may reach the faces it comes in and goes out by. */
  private enterMm = 0;
  private leaveMm = 0;
  private before = true;
  private after = true;
  private line = -1;
  private readonly lowMm: readonly number[];
  private readonly highMm: readonly number[];

  /** @param frame of the windows, or a band of its lines */
  constructor(
    private readonly windows: CellWindows,
    private readonly frame: ColumnFrame,
    { nearest: { grid } }: CellsData,
  ) {
    this.lowMm = grid.originMm;
    this.highMm = grid.originMm.map((o, a) => o + (grid.bricks[a] * BRICK - 1) * grid.stepMm);
  }

  lookUp(line: number): void {
    if (line === this.line) return;
    this.line = line;
    const { windows, frame } = this;
    const { bundle, u, v } = frame;
    const a = bundle.originU + bundle.spacingMm * (line % bundle.countU);
    const b = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
    const i = clamped(Math.round((a - windows.originU) / windows.pixelMm), windows.countU);
    const j = clamped(Math.round((b - windows.originV) / windows.pixelMm), windows.countV);
    this.fromMm = windows.fromMm[i + windows.countU * j];
    this.toMm = windows.toMm[i + windows.countU * j];
    this.enterMm = -Infinity;
    this.leaveMm = Infinity;
    for (let k = 0; k < 3; k++) this.clipTo(k, u[k] * a + v[k] * b);
  }

  /** Clips the line to one pair of faces of the nodes' box (slabs: Kay and Kajiya 1986). */
  private clipTo(axis: number, foot: number): void {
    const along = this.frame.d[axis];
    const { faces } = this.windows;
    const [low, high] = [faces[2 * axis] === 1, faces[2 * axis + 1] === 1];
    const toLow = (this.lowMm[axis] - foot) / along;
    const toHigh = (this.highMm[axis] - foot) / along;
    // A line along the faces is at them from beginning to end, or beside them.
    if (Number.isFinite(toLow) && Number.isFinite(toHigh)) {
      const rising = along > 0;
      if (Math.min(toLow, toHigh) > this.enterMm) {
        this.enterMm = Math.min(toLow, toHigh);
        this.before = rising ? low : high;
      }
      if (Math.max(toLow, toHigh) < this.leaveMm) {
        this.leaveMm = Math.max(toLow, toHigh);
        this.after = rising ? high : low;
      }
    } else if (foot < this.lowMm[axis] || foot > this.highMm[axis]) {
      this.leaveMm = -Infinity;
      this.after = foot < this.lowMm[axis] ? low : high;
    }
  }

  /** How far on from a place the line stays out of the cell, mm; 0 where it may not. */
  clearMm(placeMm: number): number {
    if (placeMm >= this.leaveMm) return this.after ? 0 : Infinity;
    if (placeMm < this.enterMm) return this.before ? 0 : this.enterMm - placeMm;
    if (placeMm < this.fromMm) return Math.min(this.fromMm, this.leaveMm) - placeMm;
    return placeMm > this.toMm ? this.leaveMm - placeMm : 0;
  }
}
