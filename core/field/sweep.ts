/** The cells of a brick grid that a level of a node field runs through: what marching cubes walk over. */
import { CUBE_TRIANGLES } from "./cubes.ts";
import { BRICK, BRICK_NODES, type BrickGrid, neighbourSlot } from "./grid.ts";

/** Side of the block of values one brick's cells need. */
const BLOCK = BRICK + 1;

/** A run of bricks, by slot. */
export interface BrickRun {
  readonly from: number;
  readonly to: number;
}

/**
 * Visits a cell that the level runs through: the 9 x 9 x 9 block of (value - level) it lies in, the first node of its
 * brick, the brick's slot, the cell's place in it, and its row of the case table.
 */
export type CellVisitor = (
  block: Float32Array,
  brickCorner: Int32Array,
  slot: number,
  x: number,
  y: number,
  z: number,
  table: Uint8Array,
) => void;

/** Visits every cell of some bricks that the level runs through. */
export function sweepCells(
  grid: BrickGrid,
  values: Float32Array,
  level: number,
  ranges: BrickRanges,
  { from, to }: BrickRun,
  visit: CellVisitor,
): void {
  const block = new Float32Array(BLOCK ** 3);
  const below = new Int32Array(BLOCK * BLOCK);
  const missing = new Int32Array(BLOCK * BLOCK);
  const corner = new Int32Array(3);
  for (let slot = from; slot < to; slot++) {
    if (!mayCross(grid, ranges, slot, level)) continue;
    loadBlock(grid, values, slot, level, block, corner);
    rowBits(block, below, missing);
    for (let z = 0; z < BRICK; z++) {
      for (let y = 0; y < BRICK; y++) {
        const row = y + BLOCK * z;
        const [r0, r1, r2, r3] = [below[row], below[row + 1], below[row + BLOCK], below[row + BLOCK + 1]];
        if (r0 === r1 && r0 === r2 && r0 === r3 && (r0 === 0 || r0 === ALL)) continue;
        const gone = missing[row] | missing[row + 1] | missing[row + BLOCK] | missing[row + BLOCK + 1];
        for (let x = 0; x < BRICK; x++) {
          if ((gone >> x) & 3) continue;
          const mask = ((r0 >> x) & 3) | (((r1 >> x) & 3) << 2) | (((r2 >> x) & 3) << 4) | (((r3 >> x) & 3) << 6);
          const table = CUBE_TRIANGLES[mask];
          if (table.length > 0) visit(block, corner, slot, x, y, z, table);
        }
      }
    }
  }
}

/** Least and greatest value of every brick's nodes. */
export interface BrickRanges {
  readonly least: Float32Array;
  readonly greatest: Float32Array;
}

export function brickRanges(values: Float32Array): BrickRanges {
  const slots = values.length / BRICK_NODES;
  const least = new Float32Array(slots);
  const greatest = new Float32Array(slots);
  for (let slot = 0; slot < slots; slot++) {
    let low = Infinity;
    let high = -Infinity;
    for (let n = slot * BRICK_NODES; n < (slot + 1) * BRICK_NODES; n++) {
      const value = values[n];
      if (value < low) low = value;
      if (value > high) high = value;
    }
    least[slot] = low;
    greatest[slot] = high;
  }
  return { least, greatest };
}

/** May the level lie in the cells of this brick, which end on the nodes of its upper neighbours? */
export function mayCross(grid: BrickGrid, { least, greatest }: BrickRanges, slot: number, level: number): boolean {
  let low = least[slot];
  let high = greatest[slot];
  if (low < level && high >= level) return true;
  const brick = grid.brickOf[slot];
  for (let c = 1; c < 8; c++) {
    const other = neighbourSlot(grid, brick, c & 1, (c >> 1) & 1, c >> 2);
    if (other < 0) continue;
    low = Math.min(low, least[other]);
    high = Math.max(high, greatest[other]);
    if (low < level && high >= level) return true;
  }
  return false;
}

/** Fills the 9 x 9 x 9 block of (value - level), NaN where there is no node, and the place of its first. */
function loadBlock(
  grid: BrickGrid,
  values: Float32Array,
  slot: number,
  level: number,
  block: Float32Array,
  corner: Int32Array,
): void {
  const brick = grid.brickOf[slot];
  corner[0] = (brick % grid.bricks[0]) * BRICK;
  corner[1] = (Math.floor(brick / grid.bricks[0]) % grid.bricks[1]) * BRICK;
  corner[2] = Math.floor(brick / (grid.bricks[0] * grid.bricks[1])) * BRICK;
  block.fill(Number.NaN);
  for (let c = 0; c < 8; c++) {
    const from = c === 0 ? slot : neighbourSlot(grid, brick, c & 1, (c >> 1) & 1, c >> 2);
    if (from < 0) continue;
    const nx = c & 1 ? 1 : BRICK;
    const ny = c & 2 ? 1 : BRICK;
    const nz = c & 4 ? 1 : BRICK;
    const to = (c & 1 ? BRICK : 0) + BLOCK * ((c & 2 ? BRICK : 0) + BLOCK * (c & 4 ? BRICK : 0));
    for (let z = 0; z < nz; z++) {
      for (let y = 0; y < ny; y++) {
        for (let x = 0; x < nx; x++) {
          block[to + x + BLOCK * (y + BLOCK * z)] = values[from * BRICK_NODES + x + BRICK * (y + BRICK * z)] - level;
        }
      }
    }
  }
}

/** A row of nodes all below the level. */
const ALL = (1 << BLOCK) - 1;

/** Which nodes of each row along x are below the level, and which are missing: a bit a node. */
function rowBits(block: Float32Array, below: Int32Array, missing: Int32Array): void {
  for (let row = 0, at = 0; row < below.length; row++) {
    let low = 0;
    let gone = 0;
    for (let x = 0; x < BLOCK; x++, at++) {
      if (block[at] < 0) low |= 1 << x;
      else if (!(block[at] >= 0)) gone |= 1 << x;
    }
    below[row] = low;
    missing[row] = gone;
  }
}

/** Where the level crosses the edge that leaves node (i, j, k) of the block along an axis: xyz, mm, written at `out[to]`. */
export function placeOnEdge(
  out: Float64Array,
  to: number,
  { originMm: o, stepMm: h }: BrickGrid,
  block: Float32Array,
  brickCorner: Int32Array,
  i: number,
  j: number,
  k: number,
  axis: number,
): void {
  const at = i + BLOCK * (j + BLOCK * k);
  const a = block[at];
  const b = block[at + (axis === 0 ? 1 : axis === 1 ? BLOCK : BLOCK * BLOCK)];
  // Kept a hair off the nodes, so that no triangle collapses to a point.
  const s = Math.min(0.999, Math.max(0.001, a / (a - b)));
  out[to] = o[0] + h * (brickCorner[0] + i + (axis === 0 ? s : 0));
  out[to + 1] = o[1] + h * (brickCorner[1] + j + (axis === 1 ? s : 0));
  out[to + 2] = o[2] + h * (brickCorner[2] + k + (axis === 2 ? s : 0));
}
