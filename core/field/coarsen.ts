/** The same field on a coarser grid. */
import { BRICK, type BrickGrid, gridFromActive, nodeCount, nodePoint, sampleAt } from "./grid.ts";

/** No node of a coarser grid lies at a round figure, where flat faces lie: they are so many of its steps beside it. */
const ASIDE = [0.3, 0.37, 0.44] as const;

/**
 * A field on a grid whose nodes do not depend on the one it is known on: they lie at whole steps of the coarser one, and
 * take the field between the nodes about them (trilinear). Nodes that it does not reach are NaN.
 * @param stepMm of the coarser grid; where that is no coarser, the field stays as it is
 */
export function coarsened(
  grid: BrickGrid,
  values: Float32Array,
  stepMm: number,
): { grid: BrickGrid; values: Float32Array } {
  if (stepMm <= grid.stepMm) return { grid, values };
  const fineMm = BRICK * grid.stepMm;
  const brickMm = BRICK * stepMm;
  const originMm = grid.originMm.map((mm, a) => (Math.floor(mm / stepMm) + ASIDE[a] - 1) * stepMm) as [
    number,
    number,
    number,
  ];
  const brickAt = (mm: number, a: number) => Math.floor((mm - originMm[a]) / brickMm);
  const bricks = grid.bricks.map((n, a) => brickAt(grid.originMm[a] + n * fineMm, a) + 1) as [number, number, number];
  const active = new Uint8Array(bricks[0] * bricks[1] * bricks[2]);
  for (const b of grid.brickOf) {
    const place = [
      b % grid.bricks[0],
      Math.floor(b / grid.bricks[0]) % grid.bricks[1],
      Math.floor(b / (grid.bricks[0] * grid.bricks[1])),
    ];
    const [x, y, z] = place.map((n, a) => {
      const fromMm = grid.originMm[a] + n * fineMm;
      return [brickAt(fromMm, a), brickAt(fromMm + fineMm, a)];
    });
    for (let k = z[0]; k <= z[1]; k++)
      for (let j = y[0]; j <= y[1]; j++)
        for (let i = x[0]; i <= x[1]; i++) active[i + bricks[0] * (j + bricks[1] * k)] = 1;
  }
  const coarse = gridFromActive(originMm, stepMm, bricks, active);
  const out = new Float32Array(nodeCount(coarse));
  const at = new Float64Array(3);
  for (let n = 0; n < out.length; n++) {
    nodePoint(coarse, n, at, 0);
    out[n] = sampleAt(grid, values, at[0], at[1], at[2], Number.NaN);
  }
  return { grid: coarse, values: out };
}
