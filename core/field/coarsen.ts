/** The same field on a coarser grid, trilinear between the nodes; where the finer grid has none, NaN. */
import { BRICK, BRICK_NODES, type BrickGrid, brickCorner, gridFromActive, nodeCount, sampleAt } from "./grid.ts";

/** @param factor how many times coarser; 1 or less leaves the grid as it is */
export function coarsen(
  grid: BrickGrid,
  values: Float32Array,
  factor: number,
): { grid: BrickGrid; values: Float32Array } {
  if (factor <= 1) return { grid, values };
  const bricks = grid.bricks.map((n) => Math.ceil(n / factor)) as [number, number, number];
  const stepMm = grid.stepMm * factor;
  const coarse = gridFromActive(grid.originMm, stepMm, bricks, bricksOver(grid, bricks, factor));
  const out = new Float32Array(nodeCount(coarse)).fill(Number.NaN);
  const corner = new Int32Array(3);
  const [x, y, z] = grid.originMm;
  for (let slot = 0; slot < coarse.brickOf.length; slot++) {
    brickCorner(coarse, slot, corner);
    for (let n = 0; n < BRICK_NODES; n++) {
      const i = corner[0] + (n & 7);
      const j = corner[1] + ((n >> 3) & 7);
      const k = corner[2] + (n >> 6);
      const at = slot * BRICK_NODES + n;
      out[at] = sampleAt(grid, values, x + stepMm * i, y + stepMm * j, z + stepMm * k, Number.NaN);
    }
  }
  return { grid: coarse, values: out };
}

/** 1 for the bricks of the coarser grid that lie over kept ones. */
function bricksOver(grid: BrickGrid, bricks: readonly [number, number, number], factor: number): Uint8Array {
  const active = new Uint8Array(bricks[0] * bricks[1] * bricks[2]);
  const corner = new Int32Array(3);
  const under = (brick: number, axis: number, end: 0 | 1) =>
    Math.min(bricks[axis] - 1, Math.floor((brick + end) / factor));
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    brickCorner(grid, slot, corner);
    const [bi, bj, bk] = [corner[0] / BRICK, corner[1] / BRICK, corner[2] / BRICK];
    for (let k = under(bk, 2, 0); k <= under(bk, 2, 1); k++)
      for (let j = under(bj, 1, 0); j <= under(bj, 1, 1); j++)
        for (let i = under(bi, 0, 0); i <= under(bi, 0, 1); i++) active[i + bricks[0] * (j + bricks[1] * k)] = 1;
  }
  return active;
}
