/** The rim: a flat foot of silicone on the board, of even width all round the jacket's foot. */
import { BRICK, type BrickGrid, nodeAt } from "../field/grid.ts";

/**
 * Area of the board within `widthMm` of the jacket's foot, outside it, mm2. An exact squared distance transform in the
 * plane (Felzenszwalb and Huttenlocher 2012) on the grid's first layer above the board.
 * @param phi the jacket's field, negative inside
 */
export function rimAreaMm2(grid: BrickGrid, phi: Float32Array, widthMm: number): number {
  if (widthMm <= 0) return 0;
  const h = grid.stepMm;
  const layer = Math.ceil((1e-3 - grid.originMm[2]) / h);
  const pad = Math.ceil(widthMm / h) + 2;
  const nx = grid.bricks[0] * BRICK + 2 * pad;
  const ny = grid.bricks[1] * BRICK + 2 * pad;
  const far = 1e12;
  const distance2 = new Float64Array(nx * ny).fill(far);
  let foot = 0;
  for (let j = 0; j < grid.bricks[1] * BRICK; j++) {
    let inside = false;
    for (let i = 0; i < grid.bricks[0] * BRICK; i++) {
      const n = nodeAt(grid, i, j, layer);
      // Nodes not kept are deep inside or far outside: the last kept node tells which.
      if (n >= 0) inside = phi[n] < 0;
      if (!inside) continue;
      distance2[i + pad + nx * (j + pad)] = 0;
      foot++;
    }
  }
  if (foot === 0) return 0;
  const line = new Float64Array(Math.max(nx, ny));
  for (let i = 0; i < nx; i++) transformLine(distance2, i, nx, ny, line);
  for (let j = 0; j < ny; j++) transformLine(distance2, j * nx, 1, nx, line);
  // Distance to the nearest foot node overstates the distance to the foot's edge by half a step.
  const reach2 = (widthMm / h + 0.5) ** 2;
  let count = 0;
  for (let n = 0; n < distance2.length; n++) if (distance2[n] > 0 && distance2[n] <= reach2) count++;
  return count * h * h;
}

function transformLine(values: Float64Array, start: number, stride: number, count: number, out: Float64Array): void {
  const site = new Int32Array(count);
  const from = new Float64Array(count + 1);
  let top = -1;
  for (let q = 0; q < count; q++) {
    const f = values[start + q * stride];
    if (f >= 1e12) continue;
    let s = -Infinity;
    while (top >= 0) {
      const p = site[top];
      s = (f + q * q - values[start + p * stride] - p * p) / (2 * (q - p));
      if (s > from[top]) break;
      top--;
      s = -Infinity;
    }
    site[++top] = q;
    from[top] = top === 0 ? -Infinity : s;
  }
  if (top < 0) return;
  for (let q = 0, k = 0; q < count; q++) {
    while (k < top && from[k + 1] <= q) k++;
    out[q] = values[start + site[k] * stride] + (q - site[k]) ** 2;
  }
  for (let q = 0; q < count; q++) values[start + q * stride] = out[q];
}
