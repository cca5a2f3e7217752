/**
 * The surface where a node field crosses zero, by marching cubes over the kept bricks. Vertices are shared through
 * the grid edges they lie on, so the mesh is welded as it is made. Preconditions: the field crosses zero only
 * between kept nodes.
 */
import type { JobContext } from "../job/context.ts";
import { FloatList, IndexList } from "../mesh/io/scanner.ts";
import { type TriangleMesh, TriangleSums } from "../mesh/mesh.ts";
import { CUBE_TRIANGLES, EDGE_CORNERS } from "./cubes.ts";
import { BRICK, BRICK_NODES, type BrickGrid, neighbourSlot } from "./grid.ts";

/** Edges of a cell. */
const EDGES = 12;
/** Side of the block of values one brick's cells need. */
const BLOCK = BRICK + 1;

/**
 * @param values field per node; negative inside
 * @param level the surface is where values = level
 * @param ranges the values' ranges, where several levels of one field are read
 * @returns triangles in world mm facing outwards (towards greater values)
 */
export function isosurface(
  grid: BrickGrid,
  values: Float32Array,
  level: number,
  ctx: JobContext,
  ranges: BrickRanges = brickRanges(values),
): TriangleMesh {
  const vertices = new FloatList();
  const triangles = new IndexList();
  /** Vertex numbers on the three edges leaving each node upwards, for bricks that need them. */
  const edgeVertices = new Map<number, Int32Array>();
  const vertexOfEdge = new Int32Array(EDGES);
  const bricks = { from: 0, to: grid.brickOf.length };
  sweepCells(grid, values, level, ranges, bricks, ctx, (block, corner, slot, x, y, z, table) => {
    vertexOfEdge.fill(-1);
    for (let k = 0; k < table.length; k++) {
      const e = table[k];
      if (vertexOfEdge[e] < 0) {
        vertexOfEdge[e] = edgeVertex(grid, edgeVertices, block, corner, slot, x, y, z, e, vertices);
      }
    }
    for (let k = 0; k < table.length; k += 3) {
      triangles.push3(vertexOfEdge[table[k]], vertexOfEdge[table[k + 1]], vertexOfEdge[table[k + 2]]);
    }
  });
  return { positions: vertices.done(), triangles: triangles.done() };
}

/**
 * Visits a cell that the level runs through: the 9 x 9 x 9 block of (value - level) it lies in, the first node of its
 * brick, the brick's slot, the cell's place in it, and its row of the case table.
 */
type CellVisitor = (
  block: Float32Array,
  brickCorner: Int32Array,
  slot: number,
  x: number,
  y: number,
  z: number,
  table: Uint8Array,
) => void;

/** Visits every cell of some bricks (by slot) that the level runs through. */
function sweepCells(
  grid: BrickGrid,
  values: Float32Array,
  level: number,
  ranges: BrickRanges,
  { from, to }: { readonly from: number; readonly to: number },
  ctx: JobContext,
  visit: CellVisitor,
): void {
  const block = new Float32Array(BLOCK ** 3);
  const below = new Int32Array(BLOCK * BLOCK);
  const missing = new Int32Array(BLOCK * BLOCK);
  const corner = new Int32Array(3);
  for (let slot = from; slot < to; slot++) {
    if ((slot & 0xff) === 0) ctx.checkCancelled();
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

/**
 * Area and enclosed volume of what `isosurface` would make in some bricks (by slot), without making it.
 * @param onBoard only what lies above z = 0 counts; the cut needs no lid there
 * @returns mm2 and mm3; the volumes of all bricks together are the volume enclosed
 */
export function surfaceFigures(
  grid: BrickGrid,
  values: Float32Array,
  level: number,
  ranges: BrickRanges,
  bricks: { readonly from: number; readonly to: number },
  onBoard: boolean,
  ctx: JobContext,
): { areaMm2: number; volumeMm3: number } {
  // The points of the cell's twelve edges, then the corners of what is left of a triangle that the board cuts.
  const points = new Float64Array(3 * (EDGES + 4));
  const sums = new TriangleSums(points);
  sweepCells(grid, values, level, ranges, bricks, ctx, (block, corner, _, x, y, z, table) => {
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
function mayCross(grid: BrickGrid, { least, greatest }: BrickRanges, slot: number, level: number): boolean {
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

/** Fills the 9 x 9 x 9 block of (value - level); returns how many cells along each axis are whole. */
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

/** The vertex on edge e of the cell (x, y, z), made when first met. */
function edgeVertex(
  grid: BrickGrid,
  edgeVertices: Map<number, Int32Array>,
  block: Float32Array,
  brickCorner: Int32Array,
  slot: number,
  x: number,
  y: number,
  z: number,
  e: number,
  vertices: FloatList,
): number {
  const axis = e >> 2;
  const low = EDGE_CORNERS[e][0];
  const i = x + (low & 1);
  const j = y + ((low >> 1) & 1);
  const k = z + (low >> 2);
  const outer = (i >> 3) | (j >> 3) | (k >> 3);
  const owner = outer ? neighbourSlot(grid, grid.brickOf[slot], i >> 3, j >> 3, k >> 3) : slot;
  let store = edgeVertices.get(owner);
  if (!store) {
    store = new Int32Array(BRICK_NODES * 3).fill(-1);
    edgeVertices.set(owner, store);
  }
  const key = 3 * ((i & 7) + BRICK * ((j & 7) + BRICK * (k & 7))) + axis;
  if (store[key] >= 0) return store[key];
  const number = vertices.length / 3;
  store[key] = number;
  placeOnEdge(place, 0, grid, block, brickCorner, i, j, k, axis);
  vertices.push3(place[0], place[1], place[2]);
  return number;
}

const place = new Float64Array(3);

/** Where the level crosses the edge that leaves node (i, j, k) of the block along an axis: xyz, mm, written at `out[to]`. */
function placeOnEdge(
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
