/**
 * The surface where a node field crosses zero, by marching cubes over the kept bricks. Vertices are shared through
 * the grid edges they lie on, so the mesh is welded as it is made. Preconditions: the field crosses zero only
 * between kept nodes.
 */
import type { JobContext } from "../job/context.ts";
import { FloatList, IndexList } from "../mesh/io/scanner.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { CUBE_TRIANGLES, EDGE_CORNERS } from "./cubes.ts";
import { BRICK, BRICK_NODES, type BrickGrid, neighbourSlot } from "./grid.ts";

/** Side of the block of values one brick's cells need. */
const BLOCK = BRICK + 1;

/**
 * @param values field per node; negative inside
 * @param level the surface is where values = level
 * @returns triangles in world mm facing outwards (towards greater values)
 */
export function isosurface(grid: BrickGrid, values: Float32Array, level: number, ctx: JobContext): TriangleMesh {
  const vertices = new FloatList();
  const triangles = new IndexList();
  /** Vertex numbers on the three edges leaving each node upwards, for bricks that need them. */
  const edgeVertices = new Map<number, Int32Array>();
  const block = new Float32Array(BLOCK ** 3);
  const corner = new Int32Array(3);
  const vertexOfEdge = new Int32Array(12);
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    if ((slot & 0xff) === 0) ctx.checkCancelled();
    if (!crosses(values, slot, level) && !neighbourCrosses(grid, values, slot, level)) continue;
    const size = loadBlock(grid, values, slot, level, block, corner);
    for (let z = 0; z < size[2]; z++) {
      for (let y = 0; y < size[1]; y++) {
        for (let x = 0; x < size[0]; x++) {
          const at = x + BLOCK * (y + BLOCK * z);
          const mask = maskAt(block, at);
          const table = CUBE_TRIANGLES[mask];
          if (table.length === 0) continue;
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
        }
      }
    }
  }
  return { positions: vertices.done(), triangles: triangles.done() };
}

function crosses(values: Float32Array, slot: number, level: number): boolean {
  const start = slot * BRICK_NODES;
  const below = values[start] < level;
  for (let n = start + 1; n < start + BRICK_NODES; n++) if (values[n] < level !== below) return true;
  return false;
}

/** Does the sign differ between this brick and an upper neighbour? */
function neighbourCrosses(grid: BrickGrid, values: Float32Array, slot: number, level: number): boolean {
  const below = values[slot * BRICK_NODES] < level;
  const brick = grid.brickOf[slot];
  for (let c = 1; c < 8; c++) {
    const other = neighbourSlot(grid, brick, c & 1, (c >> 1) & 1, c >> 2);
    if (other < 0) continue;
    if (values[other * BRICK_NODES] < level !== below || crosses(values, other, level)) return true;
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
): number[] {
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
  return [BRICK, BRICK, BRICK];
}

const CORNER_OFFSET = Int32Array.from({ length: 8 }, (_, c) => (c & 1) + BLOCK * (((c >> 1) & 1) + BLOCK * (c >> 2)));

/** Inside corners of the cell, or 0 when a corner is missing. */
function maskAt(block: Float32Array, at: number): number {
  let mask = 0;
  for (let c = 0; c < 8; c++) {
    const value = block[at + CORNER_OFFSET[c]];
    if (value < 0) mask |= 1 << c;
    else if (Number.isNaN(value)) return 0;
  }
  return mask;
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
  const at = i + BLOCK * (j + BLOCK * k);
  const a = block[at];
  const b = block[at + (axis === 0 ? 1 : axis === 1 ? BLOCK : BLOCK * BLOCK)];
  // Kept a hair off the nodes, so that no triangle collapses to a point.
  const s = Math.min(0.999, Math.max(0.001, a / (a - b)));
  const number = vertices.length / 3;
  store[key] = number;
  const h = grid.stepMm;
  vertices.push3(
    grid.originMm[0] + h * (brickCorner[0] + i + (axis === 0 ? s : 0)),
    grid.originMm[1] + h * (brickCorner[1] + j + (axis === 1 ? s : 0)),
    grid.originMm[2] + h * (brickCorner[2] + k + (axis === 2 ? s : 0)),
  );
  return number;
}
