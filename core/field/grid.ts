/**
 * A sparse grid of nodes in bricks of 8 x 8 x 8, kept only where something is near: memory grows with the surface,
 * not with the box. World point of node (i, j, k) = origin + step (i, j, k). Node arrays hold 512 values a brick,
 * x fastest; a node's cell is the cube of one step around it.
 */
export const BRICK = 8;
export const BRICK_NODES = BRICK * BRICK * BRICK;
export const NO_BRICK = -1;

/** From a node to the six beside it, in steps. */
export const FACES = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;

export interface BrickGrid {
  readonly originMm: readonly [number, number, number];
  readonly stepMm: number;
  /** Bricks along x, y, z. */
  readonly bricks: readonly [number, number, number];
  /** Slot of each brick of the box, or NO_BRICK. */
  readonly slotOf: Int32Array;
  /** Brick (linear, x fastest) of each slot. */
  readonly brickOf: Int32Array;
}

/** Keeps bricks marked 1 in `active` (one byte a brick of the box). */
export function gridFromActive(
  originMm: readonly [number, number, number],
  stepMm: number,
  bricks: readonly [number, number, number],
  active: Uint8Array,
): BrickGrid {
  let count = 0;
  for (let b = 0; b < active.length; b++) count += active[b];
  const slotOf = new Int32Array(active.length).fill(NO_BRICK);
  const brickOf = new Int32Array(count);
  let slot = 0;
  for (let b = 0; b < active.length; b++) {
    if (!active[b]) continue;
    slotOf[b] = slot;
    brickOf[slot++] = b;
  }
  return { originMm, stepMm, bricks, slotOf, brickOf };
}

export function nodeCount(grid: BrickGrid): number {
  return grid.brickOf.length * BRICK_NODES;
}

/** First node (i, j, k) of the brick in a slot. */
export function brickCorner(grid: BrickGrid, slot: number, out: Int32Array): void {
  const b = grid.brickOf[slot];
  const nx = grid.bricks[0];
  const ny = grid.bricks[1];
  out[0] = (b % nx) * BRICK;
  out[1] = (Math.floor(b / nx) % ny) * BRICK;
  out[2] = Math.floor(b / (nx * ny)) * BRICK;
}

/** World point (mm) of a node of the node arrays, written at `out[at..at + 2]`. */
export function nodePoint(grid: BrickGrid, node: number, out: Float64Array, at: number): void {
  const b = grid.brickOf[Math.floor(node / BRICK_NODES)];
  const nx = grid.bricks[0];
  const ny = grid.bricks[1];
  out[at] = grid.originMm[0] + grid.stepMm * ((b % nx) * BRICK + (node & 7));
  out[at + 1] = grid.originMm[1] + grid.stepMm * ((Math.floor(b / nx) % ny) * BRICK + ((node >> 3) & 7));
  out[at + 2] = grid.originMm[2] + grid.stepMm * (Math.floor(b / (nx * ny)) * BRICK + ((node >> 6) & 7));
}

/** Number of node (i, j, k) in the node arrays, or -1 where no brick is kept. */
export function nodeAt(grid: BrickGrid, i: number, j: number, k: number): number {
  // Read one by one: to take the three apart as a list is a sixth slower, and every field asks here.
  const { bricks } = grid;
  const bi = i >> 3;
  const bj = j >> 3;
  const bk = k >> 3;
  if (bi < 0 || bj < 0 || bk < 0 || bi >= bricks[0] || bj >= bricks[1] || bk >= bricks[2]) return -1;
  const slot = grid.slotOf[bi + bricks[0] * (bj + bricks[1] * bk)];
  return slot < 0 ? -1 : slot * BRICK_NODES + (i & 7) + BRICK * (j & 7) + BRICK * BRICK * (k & 7);
}

/** Slot of the neighbouring brick, or NO_BRICK. */
export function neighbourSlot(grid: BrickGrid, brick: number, di: number, dj: number, dk: number): number {
  const nx = grid.bricks[0];
  const ny = grid.bricks[1];
  const nz = grid.bricks[2];
  const bi = (brick % nx) + di;
  const bj = (Math.floor(brick / nx) % ny) + dj;
  const bk = Math.floor(brick / (nx * ny)) + dk;
  if (bi < 0 || bj < 0 || bk < 0 || bi >= nx || bj >= ny || bk >= nz) return NO_BRICK;
  return grid.slotOf[bi + nx * (bj + ny * bk)];
}

/**
 * Trilinear value of a node array at a world point; `outside` where a corner's brick is not kept.
 */
export function sampleAt(
  grid: BrickGrid,
  values: Float32Array,
  x: number,
  y: number,
  z: number,
  outside: number,
): number {
  const inverse = 1 / grid.stepMm;
  const fx = (x - grid.originMm[0]) * inverse;
  const fy = (y - grid.originMm[1]) * inverse;
  const fz = (z - grid.originMm[2]) * inverse;
  const i = Math.floor(fx);
  const j = Math.floor(fy);
  const k = Math.floor(fz);
  const u = fx - i;
  const v = fy - j;
  const w = fz - k;
  const inBrick = (i & 7) < 7 && (j & 7) < 7 && (k & 7) < 7;
  const n = nodeAt(grid, i, j, k);
  if (n < 0) return outside;
  if (inBrick) {
    const a = values[n] * (1 - u) + values[n + 1] * u;
    const b = values[n + 8] * (1 - u) + values[n + 9] * u;
    const c = values[n + 64] * (1 - u) + values[n + 65] * u;
    const d = values[n + 72] * (1 - u) + values[n + 73] * u;
    return (a * (1 - v) + b * v) * (1 - w) + (c * (1 - v) + d * v) * w;
  }
  return acrossBricks(grid, values, i, j, k, u, v, w, outside);
}

const cell = new Float64Array(8);

/**
 * Trilinear value in the cell of node (i, j, k) whose corners lie in more than one brick, at shares u, v, w of a step
 * from that node; `outside` where a corner's brick is not kept.
 */
function acrossBricks(
  grid: BrickGrid,
  values: Float32Array,
  i: number,
  j: number,
  k: number,
  u: number,
  v: number,
  w: number,
  outside: number,
): number {
  if (!cornersAcross(grid, values, i, j, k, cell)) return outside;
  let sum = 0;
  for (let c = 0; c < 4; c++) {
    const a = cell[2 * c];
    sum += (a + (cell[2 * c + 1] - a) * u) * (c & 1 ? v : 1 - v) * (c & 2 ? w : 1 - w);
  }
  return sum;
}

/**
 * The values at the corners of the cell of node (i, j, k), which lie in more than one brick, x fastest.
 * @returns whether all their bricks are kept; `out` is filled only then
 */
export function cornersAcross(
  { bricks, slotOf }: BrickGrid,
  values: Float32Array,
  i: number,
  j: number,
  k: number,
  out: Float64Array,
): boolean {
  const nx = bricks[0];
  const layer = nx * bricks[1];
  const [x, y, z] = [i & 7, j & 7, k & 7];
  const own = (i >> 3) + nx * (j >> 3) + layer * (k >> 3);
  if ((x === 7 && (i >> 3) + 1 >= nx) || (y === 7 && (j >> 3) + 1 >= bricks[1])) return false;
  if (z === 7 && (k >> 3) + 1 >= bricks[2]) return false;
  // Of each axis: how far the brick and the node within it are, of the corner one step on.
  const brickX = x === 7 ? 1 : 0;
  const brickY = y === 7 ? nx : 0;
  const brickZ = z === 7 ? layer : 0;
  const low = x + BRICK * y + BRICK * BRICK * z;
  const nodeX = x === 7 ? -7 : 1;
  const nodeY = y === 7 ? -7 * BRICK : BRICK;
  const nodeZ = z === 7 ? -7 * BRICK * BRICK : BRICK * BRICK;
  for (let c = 0; c < 4; c++) {
    const brick = own + (c & 1 ? brickY : 0) + (c & 2 ? brickZ : 0);
    const node = low + (c & 1 ? nodeY : 0) + (c & 2 ? nodeZ : 0);
    const slot = slotOf[brick];
    const next = brickX ? slotOf[brick + brickX] : slot;
    if (slot < 0 || next < 0) return false;
    out[2 * c] = values[slot * BRICK_NODES + node];
    out[2 * c + 1] = values[next * BRICK_NODES + node + nodeX];
  }
  return true;
}
