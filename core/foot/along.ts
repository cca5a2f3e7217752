/** How far sections' faces stand along the board, and how much of the board lies about them: what their feet are measured by. */
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** Where a section's face stands on the board: from and to of every bit, x and y, mm, 4 a bit. */
type Bits = readonly number[];

/** @param nearMm open edges no higher than this over the board stand on it, mm */
function bitsOn(skin: TriangleMesh, boardMm: number, nearMm: number): Bits {
  const { positions: p, triangles: t } = skin;
  const { across } = adjacencyOf(skin);
  const bits: number[] = [];
  for (let e = 0; e < t.length; e++) {
    if (across[e] !== OPEN) continue;
    const [a, b] = [3 * t[e], 3 * t[3 * Math.floor(e / 3) + ((e + 1) % 3)]];
    if (Math.max(p[a + 2], p[b + 2]) - boardMm > nearMm) continue;
    bits.push(p[a], p[a + 1], p[b], p[b + 1]);
  }
  return bits;
}

export interface AlongBoard {
  /** How far every section stands along the board, mm. */
  readonly lengthsMm: readonly number[];
  /** Of every section, the board about it at 0, 10, 20 ... mm from the jacket, mm2. */
  readonly areasMm2: readonly (readonly number[])[];
}

/** Areas are kept at widths so far apart, up to the greatest, mm. */
const FOOT_STEP_MM = 10;
const MOST_FOOT_MM = 300;
/** Places on the board are no nearer to each other than this, mm, and so many on a side at most. */
const RASTER_MM = 6;
const MOST_PLACES = 140;

/**
 * Every place of the board goes with the nearest bit of what stands on it: feet that meet are counted once.
 * @param nearMm open edges of a skin no higher than this over the board stand on it, mm
 */
export function alongBoard(skins: readonly TriangleMesh[], boardMm: number, nearMm: number): AlongBoard {
  const bits = skins.map((skin) => bitsOn(skin, boardMm, nearMm));
  const lengthsMm = bits.map((own) => {
    let mm = 0;
    for (let k = 0; k < own.length; k += 4) mm += Math.hypot(own[k] - own[k + 2], own[k + 1] - own[k + 3]);
    return mm;
  });
  const steps = MOST_FOOT_MM / FOOT_STEP_MM;
  const areasMm2 = bits.map(() => new Float64Array(steps + 1));
  const all = Float64Array.from(bits.flat());
  if (all.length === 0) return { lengthsMm, areasMm2: areasMm2.map(() => []) };
  const sectionOf = bits.flatMap((own, section) => new Array<number>(own.length / 4).fill(section));
  const board = boardAbout(all);
  const { size, cellMm } = board;
  const nearest = nearestBits(all, board);
  const isWithin = within(all, board);
  for (let n = 0; n < size[0] * size[1]; n++) {
    if (isWithin[n]) continue;
    const section = sectionOf[nearest.bit[n]];
    const mm = Math.sqrt(nearest.mm2[n]);
    // What lies nearer than a width is within it: shared out evenly over the place's own size.
    for (let w = Math.max(0, Math.ceil((mm - cellMm / 2) / FOOT_STEP_MM)); w <= steps; w++)
      areasMm2[section][w] += cellMm ** 2 * Math.min(1, (w * FOOT_STEP_MM - mm) / cellMm + 0.5);
  }
  return { lengthsMm, areasMm2: areasMm2.map((areas) => Array.from(areas)) };
}

/** Places on the board: the middle of the first, how far they lie apart, and how many there are along x and y. */
interface Board {
  readonly low: readonly [number, number];
  readonly cellMm: number;
  readonly size: readonly [number, number];
}

/** The places about what stands on the board, out to the widest foot. */
function boardAbout(bits: Float64Array): Board {
  const low: [number, number] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const high: [number, number] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  bits.forEach((mm, k) => {
    low[k % 2] = Math.min(low[k % 2], mm);
    high[k % 2] = Math.max(high[k % 2], mm);
  });
  const wideMm = [0, 1].map((axis) => high[axis] - low[axis] + 2 * MOST_FOOT_MM);
  const cellMm = Math.max(RASTER_MM, Math.max(...wideMm) / MOST_PLACES);
  const corner = (axis: 0 | 1) => low[axis] - MOST_FOOT_MM + cellMm / 2;
  return {
    low: [corner(0), corner(1)],
    cellMm,
    size: [Math.ceil(wideMm[0] / cellMm), Math.ceil(wideMm[1] / cellMm)],
  };
}

/** Which places are within what stands on the board: by how often a row crosses its outline before them (Shimrat 1962). */
function within(bits: Float64Array, { low, cellMm, size }: Board): Uint8Array {
  const inside = new Uint8Array(size[0] * size[1]);
  for (let j = 0; j < size[1]; j++) {
    const y = low[1] + j * cellMm;
    const crossings: number[] = [];
    for (let k = 0; k < bits.length; k += 4) {
      const [ay, by] = [bits[k + 1], bits[k + 3]];
      if (ay > y !== by > y) crossings.push(bits[k] + ((y - ay) / (by - ay)) * (bits[k + 2] - bits[k]));
    }
    crossings.sort((a, b) => a - b);
    let passed = 0;
    for (let i = 0; i < size[0]; i++) {
      while (passed < crossings.length && crossings[passed] <= low[0] + i * cellMm) passed++;
      inside[i + size[0] * j] = passed % 2;
    }
  }
  return inside;
}

/**
 * The bit nearest to every place, and the square of how far it is, mm2: bits are handed on from place to place, forth and
 * back over the rows (Danielsson 1980), and measured anew at each.
 */
function nearestBits(bits: Float64Array, { low, cellMm, size }: Board): { bit: Int32Array; mm2: Float64Array } {
  const bit = new Int32Array(size[0] * size[1]).fill(-1);
  const mm2 = new Float64Array(bit.length).fill(Number.POSITIVE_INFINITY);
  const offer = (i: number, j: number, b: number) => {
    if (i < 0 || j < 0 || i >= size[0] || j >= size[1] || b < 0) return;
    const n = i + size[0] * j;
    if (bit[n] === b) return;
    const away = awayMm2(bits, b, low[0] + i * cellMm, low[1] + j * cellMm);
    if (away < mm2[n]) [mm2[n], bit[n]] = [away, b];
  };
  for (let b = 0; b < bits.length / 4; b++) {
    const [ax, ay, bx, by] = bits.subarray(4 * b, 4 * b + 4);
    const steps = Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay)) / cellMm);
    for (let k = 0; k <= steps; k++) {
      const share = steps === 0 ? 0 : k / steps;
      offer(
        Math.round((ax + share * (bx - ax) - low[0]) / cellMm),
        Math.round((ay + share * (by - ay) - low[1]) / cellMm),
        b,
      );
    }
  }
  const at = (i: number, j: number) => (i < 0 || j < 0 || i >= size[0] || j >= size[1] ? -1 : bit[i + size[0] * j]);
  for (const forth of [1, -1, 1, -1]) {
    for (let row = 0; row < size[1]; row++) {
      const j = forth > 0 ? row : size[1] - 1 - row;
      for (let i = 0; i < size[0]; i++) for (const di of [-1, 0, 1]) offer(i, j, at(i + di, j - forth));
      for (let i = 0; i < size[0]; i++) offer(i, j, at(i - 1, j));
      for (let i = size[0] - 1; i >= 0; i--) offer(i, j, at(i + 1, j));
    }
  }
  return { bit, mm2 };
}

/** The square of how far a place is from a bit, mm2. */
function awayMm2(bits: Float64Array, b: number, x: number, y: number): number {
  const [ax, ay] = [bits[4 * b], bits[4 * b + 1]];
  const [ux, uy] = [bits[4 * b + 2] - ax, bits[4 * b + 3] - ay];
  const share = Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy || 1)));
  return (x - ax - share * ux) ** 2 + (y - ay - share * uy) ** 2;
}

/** The area at a width, mm2, between those that are kept, and on as they grow beyond them. */
export function footAreaAt(areasMm2: readonly number[], wideMm: number): number {
  if (areasMm2.length < 2 || wideMm <= 0) return 0;
  const low = Math.min(areasMm2.length - 2, Math.floor(wideMm / FOOT_STEP_MM));
  return areasMm2[low] + (wideMm / FOOT_STEP_MM - low) * (areasMm2[low + 1] - areasMm2[low]);
}
