/** The same field on a grid `factor` times coarser: every factor-th node, missing ones as NaN. */
import { BRICK, BRICK_NODES, type BrickGrid, gridFromActive, nodeAt, nodeCount } from "./grid.ts";

export function coarsen(
  grid: BrickGrid,
  values: Float32Array,
  factor: number,
): { grid: BrickGrid; values: Float32Array } {
  if (factor <= 1) return { grid, values };
  const bricks = grid.bricks.map((n) => Math.ceil(n / factor)) as [number, number, number];
  const active = new Uint8Array(bricks[0] * bricks[1] * bricks[2]);
  for (const b of grid.brickOf) {
    const i = Math.floor((b % grid.bricks[0]) / factor);
    const j = Math.floor((Math.floor(b / grid.bricks[0]) % grid.bricks[1]) / factor);
    const k = Math.floor(Math.floor(b / (grid.bricks[0] * grid.bricks[1])) / factor);
    active[i + bricks[0] * (j + bricks[1] * k)] = 1;
  }
  const coarse = gridFromActive(grid.originMm, grid.stepMm * factor, bricks, active);
  const out = new Float32Array(nodeCount(coarse)).fill(Number.NaN);
  for (let slot = 0; slot < coarse.brickOf.length; slot++) {
    const b = coarse.brickOf[slot];
    const i0 = (b % bricks[0]) * BRICK;
    const j0 = (Math.floor(b / bricks[0]) % bricks[1]) * BRICK;
    const k0 = Math.floor(b / (bricks[0] * bricks[1])) * BRICK;
    for (let n = 0; n < BRICK_NODES; n++) {
      const at = nodeAt(grid, (i0 + (n & 7)) * factor, (j0 + ((n >> 3) & 7)) * factor, (k0 + (n >> 6)) * factor);
      if (at >= 0) out[slot * BRICK_NODES + n] = values[at];
    }
  }
  return { grid: coarse, values: out };
}
