/** Area and volume of a level of a node field, summed straight from its cells. */
import { TriangleSums } from "../mesh/mesh.ts";
import { EDGE_CORNERS } from "./cubes.ts";
import type { BrickGrid } from "./grid.ts";
import { type BrickRanges, type BrickRun, placeOnEdge, sweepCells } from "./sweep.ts";

/** Edges of a cell. */
const EDGES = 12;

/**
 * Area and enclosed volume of what `isosurface` would make in some bricks, without making it.
 * @param onBoard only what lies above z = 0 counts; the cut needs no lid there
 * @returns mm2 and mm3; the volumes of all bricks together are the volume enclosed
 */
export function surfaceFigures(
  grid: BrickGrid,
  values: Float32Array,
  level: number,
  ranges: BrickRanges,
  bricks: BrickRun,
  onBoard: boolean,
): { areaMm2: number; volumeMm3: number } {
  // The points of the cell's twelve edges, then the corners of what is left of a triangle that the board cuts.
  const points = new Float64Array(3 * (EDGES + 4));
  const sums = new TriangleSums(points);
  sweepCells(grid, values, level, ranges, bricks, (block, corner, _, x, y, z, table) => {
    let known = 0;
    let lowest = Infinity;
    for (let k = 0; k < table.length; k++) {
      const e = table[k];
      if (known & (1 << e)) continue;
      known |= 1 << e;
      const low = EDGE_CORNERS[e][0];
      placeOnEdge(points, 3 * e, grid, block, corner, x + (low & 1), y + ((low >> 1) & 1), z + (low >> 2), e >> 2);
      lowest = Math.min(lowest, points[3 * e + 2]);
    }
    for (let k = 0; k < table.length; k += 3) {
      if (!onBoard || lowest >= 0) {
        sums.add(table[k], table[k + 1], table[k + 2]);
        continue;
      }
      const count = clipAboveBoard(points, [table[k], table[k + 1], table[k + 2]], EDGES);
      for (let c = 1; c + 1 < count; c++) sums.add(EDGES, EDGES + c, EDGES + c + 1);
    }
  });
  return sums.figures();
}

/**
 * The part of a triangle above z = 0, as a fan of triangles (Sutherland and Hodgman 1974).
 * @param p xyz per point; the part's corners are written from `to` on
 * @returns how many corners it has
 */
function clipAboveBoard(p: Float64Array, corners: readonly [number, number, number], to: number): number {
  let count = 0;
  for (let k = 0; k < 3; k++) {
    const a = 3 * corners[k];
    const b = 3 * corners[(k + 1) % 3];
    const above = p[a + 2] >= 0;
    if (above) p.copyWithin(3 * (to + count++), a, a + 3);
    if (above === p[b + 2] >= 0) continue;
    const s = p[a + 2] / (p[a + 2] - p[b + 2]);
    const at = 3 * (to + count++);
    p[at] = p[a] + s * (p[b] - p[a]);
    p[at + 1] = p[a + 1] + s * (p[b + 1] - p[a + 1]);
    p[at + 2] = 0;
  }
  return count;
}
