/**
 * Surface features of a mesh on a brick grid: for every cell the surface passes through, the point of the surface
 * closest to the cell's node, kept only if it lies in that cell. These are the seeds of the distance transform.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, type Team } from "../job/team.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import { type Box, meshBox, type TriangleMesh } from "../mesh/mesh.ts";
import { perMesh } from "../mesh/perMesh.ts";
import { BRICK, BRICK_NODES, type BrickGrid, gridFromActive, nodeAt, nodeCount } from "./grid.ts";

/** Points in grid coordinates (nodes, origin at node 0), one per seeded cell. */
export interface Features {
  /** xyz per feature, grid coordinates. */
  readonly points: Float32Array;
  /** What each feature lies on: a triangle of the mesh, or a kind of the caller's own. */
  readonly owner: Int32Array;
  readonly count: number;
}

/** No feature at this node. */
export const NO_FEATURE = -1;

/** Off round numbers, so that no node lies on a scan's flat faces. */
const ORIGIN_SHIFT = [0.382, 0.214, 0.296] as const;

/** Least x, y, z, then greatest, of a piece of a triangle, in nodes. */
type PieceBox = Float64Array;
type PieceVisitor = (t: number, box: PieceBox) => void;

/**
 * Calls `visit` with the node-space box of each piece of each triangle, pieces being at most `span` nodes wide. The box
 * is the same array every time: figures handed over one by one would each be put on the heap.
 * @param between triangles that lie wholly above or below these heights are passed over
 */
function forEachPiece(
  mesh: TriangleMesh,
  { origin, step }: { origin: readonly number[]; step: number },
  span: number,
  visit: PieceVisitor,
  { lowMm, highMm }: { lowMm: number; highMm: number } = { lowMm: -Infinity, highMm: Infinity },
): void {
  const { positions: p, triangles } = mesh;
  const count = triangles.length / 3;
  const inverse = 1 / step;
  const [ox, oy, oz] = origin;
  const box = new Float64Array(6);
  const corners = new Float64Array(9 * (MOST_HALVINGS + 1));
  const bounds = blockHeights(mesh);
  for (let block = 0; 2 * block < bounds.length; block++) {
    if (bounds[2 * block + 1] < lowMm || bounds[2 * block] > highMm) continue;
    const end = Math.min(count, (block + 1) * BLOCK_TRIANGLES);
    for (let t = block * BLOCK_TRIANGLES; t < end; t++) {
      const a = 3 * triangles[3 * t];
      const b = 3 * triangles[3 * t + 1];
      const c = 3 * triangles[3 * t + 2];
      const za = p[a + 2];
      const zb = p[b + 2];
      const zc = p[c + 2];
      if ((za < lowMm && zb < lowMm && zc < lowMm) || (za > highMm && zb > highMm && zc > highMm)) continue;
      corners[0] = (p[a] - ox) * inverse;
      corners[1] = (p[a + 1] - oy) * inverse;
      corners[2] = (za - oz) * inverse;
      corners[3] = (p[b] - ox) * inverse;
      corners[4] = (p[b + 1] - oy) * inverse;
      corners[5] = (zb - oz) * inverse;
      corners[6] = (p[c] - ox) * inverse;
      corners[7] = (p[c + 1] - oy) * inverse;
      corners[8] = (zc - oz) * inverse;
      if (boxOf(corners, 0, box) <= span) visit(t, box);
      else inPieces(corners, span, box, t, visit);
    }
  }
}

/** The box of the three corners at `at`; returns its greatest width. */
function boxOf(corners: Float64Array, at: number, box: PieceBox): number {
  let widest = 0;
  for (let axis = 0; axis < 3; axis++) {
    const a = corners[at + axis];
    const b = corners[at + axis + 3];
    const c = corners[at + axis + 6];
    const low = a < b ? (a < c ? a : c) : b < c ? b : c;
    const high = a > b ? (a > c ? a : c) : b > c ? b : c;
    box[axis] = low;
    box[axis + 3] = high;
    if (high - low > widest) widest = high - low;
  }
  return widest;
}

/** Times a triangle is halved at most: down to pieces a billionth as wide. */
const MOST_HALVINGS = 90;

/**
 * Halves the triangle in the first nine figures across its longest side, and its halves, until no piece is wider than
 * `span`. The halves still to be looked at wait in the figures after those.
 */
function inPieces(waiting: Float64Array, span: number, box: PieceBox, t: number, visit: PieceVisitor): void {
  for (let top = 0; top >= 0; ) {
    const at = 9 * top;
    if (boxOf(waiting, at, box) <= span || top >= MOST_HALVINGS) {
      visit(t, box);
      top--;
      continue;
    }
    const ab = side2(waiting, at, at + 3);
    const bc = side2(waiting, at + 3, at + 6);
    const ca = side2(waiting, at + 6, at);
    const longest = ab >= bc && ab >= ca ? 0 : bc >= ca ? 1 : 2;
    const from = 3 * longest;
    const to = 3 * ((longest + 1) % 3);
    waiting.copyWithin(at + 9, at, at + 9);
    for (let axis = 0; axis < 3; axis++) {
      const middle = (waiting[at + from + axis] + waiting[at + to + axis]) / 2;
      waiting[at + from + axis] = middle;
      waiting[at + 9 + to + axis] = middle;
    }
    top++;
  }
}

function side2(corners: Float64Array, from: number, to: number): number {
  const x = corners[from] - corners[to];
  const y = corners[from + 1] - corners[to + 1];
  const z = corners[from + 2] - corners[to + 2];
  return x * x + y * y + z * z;
}

/** Triangles that follow one another in a mesh mostly lie side by side: so many are passed over together. */
const BLOCK_TRIANGLES = 256;

/** Lowest and highest place of each block of triangles, mm. */
const blockHeights = perMesh(({ positions: p, triangles: t }: TriangleMesh): Float32Array => {
  const corners = 3 * BLOCK_TRIANGLES;
  const bounds = new Float32Array(2 * Math.ceil(t.length / corners));
  for (let block = 0; 2 * block < bounds.length; block++) {
    let low = Infinity;
    let high = -Infinity;
    const end = Math.min(t.length, (block + 1) * corners);
    for (let c = block * corners; c < end; c++) {
      const z = p[3 * t[c] + 2];
      if (z < low) low = z;
      if (z > high) high = z;
    }
    bounds[2 * block] = low;
    bounds[2 * block + 1] = high;
  }
  return bounds;
});

/**
 * The bricks within `reachMm` of the surface, found from the tight box of the surface inside each brick.
 */
export function gridAroundMesh(mesh: TriangleMesh, stepMm: number, reachMm: number): BrickGrid {
  const box: Box = meshBox(mesh);
  const marginNodes = Math.ceil(reachMm / stepMm) + 2;
  const originMm: [number, number, number] = [0, 0, 0];
  const bricks: [number, number, number] = [0, 0, 0];
  for (let a = 0; a < 3; a++) {
    originMm[a] = (Math.floor(box.min[a] / stepMm) - marginNodes - ORIGIN_SHIFT[a]) * stepMm;
    bricks[a] = Math.ceil(((box.max[a] - originMm[a]) / stepMm + marginNodes + 1) / BRICK);
  }
  const total = bricks[0] * bricks[1] * bricks[2];
  const tight = new Float32Array(total * 6);
  const occupied = new Uint8Array(total);
  const [nx, ny] = bricks;
  forEachPiece(mesh, { origin: originMm, step: stepMm }, BRICK / 2, (_t, box) => {
    for (let k = Math.floor(box[2] / BRICK); k <= Math.floor(box[5] / BRICK); k++) {
      for (let j = Math.floor(box[1] / BRICK); j <= Math.floor(box[4] / BRICK); j++) {
        for (let i = Math.floor(box[0] / BRICK); i <= Math.floor(box[3] / BRICK); i++) {
          const b = i + nx * (j + ny * k);
          if (!occupied[b]) {
            occupied[b] = 1;
            tight.set([Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity], 6 * b);
          }
          widen(tight, 6 * b, box, 0, i * BRICK);
          widen(tight, 6 * b, box, 1, j * BRICK);
          widen(tight, 6 * b, box, 2, k * BRICK);
        }
      }
    }
  });
  return gridFromActive(originMm, stepMm, bricks, growBricks(bricks, occupied, tight, reachMm / stepMm));
}

/** Widens a tight box along one axis to take in a piece's box, as far as that lies within the brick from `first` on. */
function widen(tight: Float32Array, at: number, box: PieceBox, axis: number, first: number): void {
  const low = box[axis] > first ? box[axis] : first;
  const high = box[axis + 3] < first + BRICK ? box[axis + 3] : first + BRICK;
  if (low < tight[at + axis]) tight[at + axis] = low;
  if (high > tight[at + axis + 3]) tight[at + axis + 3] = high;
}

/** Marks every brick whose nodes come within `reach` (nodes) of the tight box of an occupied one. */
function growBricks(
  bricks: readonly [number, number, number],
  occupied: Uint8Array,
  tight: Float32Array,
  reach: number,
): Uint8Array {
  const [nx, ny, nz] = bricks;
  const active = new Uint8Array(occupied.length);
  const span = BRICK - 1;
  const gap = (low: number, high: number, brick: number) =>
    Math.max(0, low - (brick * BRICK + span), brick * BRICK - high);
  const first = (low: number) => Math.max(0, Math.floor((low - reach) / BRICK));
  const last = (high: number, n: number) => Math.min(n - 1, Math.floor((high + reach) / BRICK));
  for (let b = 0; b < occupied.length; b++) {
    if (!occupied[b]) continue;
    const t = tight.subarray(6 * b, 6 * b + 6);
    for (let k = first(t[2]); k <= last(t[5], nz); k++) {
      const gz = gap(t[2], t[5], k);
      for (let j = first(t[1]); j <= last(t[4], ny); j++) {
        const gy = gap(t[1], t[4], j);
        for (let i = first(t[0]); i <= last(t[3], nx); i++) {
          const gx = gap(t[0], t[3], i);
          if (gx * gx + gy * gy + gz * gz <= reach * reach) active[i + nx * (j + ny * k)] = 1;
        }
      }
    }
  }
  return active;
}

/**
 * Seeds the cells of the surface.
 * @param nodeFeature in the team's memory; receives the feature number of each node, or NO_FEATURE
 */
export function seedFromMesh(mesh: TriangleMesh, grid: BrickGrid, nodeFeature: Int32Array, ctx: JobContext): Features {
  nodeFeature.fill(NO_FEATURE);
  const closest = new Float32Array(ctx.team.buffer(4 * nodeCount(grid))).fill(Infinity);
  // Slabs of layers, each of about as many bricks: a node is written by the share of its layer alone.
  const layer = grid.bricks[0] * grid.bricks[1];
  const slabs = runsOf(grid.brickOf.length, ctx.team.size === 1 ? 1 : SLABS).map(
    ({ from, to }) => [from, to].map((slot) => layerOf(grid, slot, layer)) as [number, number],
  );
  const shares = slabs
    .filter(([from, to]) => to > from)
    .map(([from, to]): SeedShare => ({ mesh, grid, nodeFeature, closest, from: from * BRICK, to: to * BRICK }));
  ctx.team.run(seedKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("field", 0.25 * done);
  });
  return compactFeatures(mesh, grid, nodeFeature, ctx.team);
}

const SLABS = 6;

/** The layer of bricks that a slot begins or lies in; past the last slot, the layer after the last. */
function layerOf({ brickOf, bricks }: BrickGrid, slot: number, layer: number): number {
  return slot >= brickOf.length ? bricks[2] : slot === 0 ? 0 : Math.floor(brickOf[slot] / layer);
}

/** The cells of the layers of nodes `from` to `to`, along z. */
interface SeedShare {
  readonly mesh: TriangleMesh;
  readonly grid: BrickGrid;
  readonly nodeFeature: Int32Array;
  readonly closest: Float32Array;
  readonly from: number;
  readonly to: number;
}

export const seedKernel: Kernel<SeedShare> = { name: "seed cells", run: seedLayers };

function seedLayers({ mesh, grid, nodeFeature, closest, from, to }: SeedShare): void {
  const { stepMm: h, originMm: o } = grid;
  const limit = 0.5 + 1e-4;
  const h2 = h * h;
  const between = { lowMm: o[2] + h * (from - limit), highMm: o[2] + h * (to - 1 + limit) };
  forEachPiece(
    mesh,
    { origin: o, step: h },
    BRICK / 2,
    (t, box) => {
      const x0 = box[0];
      const y0 = box[1];
      const z0 = box[2];
      const x1 = box[3];
      const y1 = box[4];
      const z1 = box[5];
      for (let k = Math.max(from, Math.ceil(z0 - limit)); k <= z1 + limit && k < to; k++) {
        const dz2 = square(k < z0 ? z0 - k : k > z1 ? k - z1 : 0);
        for (let j = Math.ceil(y0 - limit); j <= y1 + limit; j++) {
          const dyz2 = dz2 + square(j < y0 ? y0 - j : j > y1 ? j - y1 : 0);
          for (let i = Math.ceil(x0 - limit); i <= x1 + limit; i++) {
            const node = nodeAt(grid, i, j, k);
            // The box about the piece is no farther than the piece: most triangles of a fine mesh are out by that.
            if (h2 * (dyz2 + square(i < x0 ? x0 - i : i > x1 ? i - x1 : 0)) > closest[node]) continue;
            const d2 = closestPointOnTriangle(point, mesh, t, o[0] + i * h, o[1] + j * h, o[2] + k * h);
            if (d2 >= closest[node]) continue;
            const fx = (point[0] - o[0]) / h;
            const fy = (point[1] - o[1]) / h;
            const fz = (point[2] - o[2]) / h;
            if (Math.abs(fx - i) > limit || Math.abs(fy - j) > limit || Math.abs(fz - k) > limit) continue;
            closest[node] = d2;
            nodeFeature[node] = t;
          }
        }
      }
    },
    between,
  );
}

function square(value: number): number {
  return value * value;
}

/** Turns the triangle numbers left at the nodes into features numbered along the bricks. */
function compactFeatures(mesh: TriangleMesh, grid: BrickGrid, nodeFeature: Int32Array, team: Team): Features {
  let count = 0;
  for (let n = 0; n < nodeFeature.length; n++) if (nodeFeature[n] !== NO_FEATURE) count++;
  const points = new Float32Array(team.buffer(12 * count));
  const owner = new Int32Array(team.buffer(4 * count));
  const { stepMm: h, originMm: o, bricks, brickOf } = grid;
  let f = 0;
  for (let slot = 0; slot < brickOf.length; slot++) {
    const b = brickOf[slot];
    const i0 = (b % bricks[0]) * BRICK;
    const j0 = (Math.floor(b / bricks[0]) % bricks[1]) * BRICK;
    const k0 = Math.floor(b / (bricks[0] * bricks[1])) * BRICK;
    for (let n = 0; n < BRICK_NODES; n++) {
      const t = nodeFeature[slot * BRICK_NODES + n];
      if (t === NO_FEATURE) continue;
      const x = i0 + (n & 7);
      const y = j0 + ((n >> 3) & 7);
      const z = k0 + (n >> 6);
      closestPointOnTriangle(point, mesh, t, o[0] + x * h, o[1] + y * h, o[2] + z * h);
      for (let a = 0; a < 3; a++) points[3 * f + a] = (point[a] - o[a]) / h;
      owner[f] = t;
      nodeFeature[slot * BRICK_NODES + n] = f++;
    }
  }
  return { points, owner, count };
}

const point = new Float64Array(3);
