import { plainContext } from "../job/context.ts";
import type { Box, TriangleMesh } from "../mesh/mesh.ts";
import { BRICK, gridFromActive, nodeCount, nodePoint } from "./grid.ts";
import type { Sdf } from "./implicit.ts";
import { isosurface } from "./isosurface.ts";

/**
 * The surface of an implicit body inside a box, cut flat at z = 0. Bricks whose middle is farther from the body than
 * their own reach are skipped: the distances need only be within `looseness` of true.
 */
export function polygonise(body: Sdf, box: Box, stepMm: number, looseness = 2.2): TriangleMesh {
  const onBoard: Sdf = (x, y, z) => Math.max(body(x, y, z), -z);
  const originMm = box.min.map((m, a) => m - (1.37 + 0.11 * a) * stepMm) as [number, number, number];
  const bricks = box.max.map((m, a) => Math.ceil((m - originMm[a] + 2 * stepMm) / (BRICK * stepMm))) as [
    number,
    number,
    number,
  ];
  const active = new Uint8Array(bricks[0] * bricks[1] * bricks[2]);
  const reach = BRICK * stepMm * 0.87 * looseness;
  for (let b = 0; b < active.length; b++) {
    const at = [b % bricks[0], Math.floor(b / bricks[0]) % bricks[1], Math.floor(b / (bricks[0] * bricks[1]))];
    const [x, y, z] = at.map((k, a) => originMm[a] + (k + 0.5) * BRICK * stepMm);
    active[b] = Math.abs(onBoard(x, y, z)) < reach ? 1 : 0;
  }
  const grid = gridFromActive(originMm, stepMm, bricks, active);
  const values = new Float32Array(nodeCount(grid));
  const p = new Float64Array(3);
  for (let n = 0; n < values.length; n++) {
    nodePoint(grid, n, p, 0);
    values[n] = onBoard(p[0], p[1], p[2]);
  }
  return isosurface(grid, values, 0, plainContext);
}
