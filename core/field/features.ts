/**
 * Surface features of a mesh on a brick grid: for every cell the surface passes through, the point of the surface
 * closest to the cell's node, kept only if it lies in that cell. These are the seeds of the distance transform.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf } from "../job/team.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import { type Box, meshBox, type TriangleMesh } from "../mesh/mesh.ts";
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

/**
 * Calls `visit` with the node-space box of each piece of each triangle, pieces being at most `span` nodes wide.
 * @param between triangles that lie wholly above or below these heights are passed over
 */
function forEachPiece(
  mesh: TriangleMesh,
  box: { origin: readonly number[]; step: number },
  span: number,
  visit: (t: number, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => void,
  between: { lowMm: number; highMm: number } = { lowMm: -Infinity, highMm: Infinity },
): void {
  const p = mesh.positions;
  const count = mesh.triangles.length / 3;
  const inverse = 1 / box.step;
  const [ox, oy, oz] = box.origin;
  const { lowMm, highMm } = between;
  const split = (
    t: number,
    ax: number,
    ay: number,
    az: number,
    bx: number,
    by: number,
    bz: number,
    cx: number,
    cy: number,
    cz: number,
  ): void => {
    const x0 = Math.min(ax, bx, cx),
      x1 = Math.max(ax, bx, cx);
    const y0 = Math.min(ay, by, cy),
      y1 = Math.max(ay, by, cy);
    const z0 = Math.min(az, bz, cz),
      z1 = Math.max(az, bz, cz);
    if (Math.max(x1 - x0, y1 - y0, z1 - z0) <= span) {
      visit(t, x0, y0, z0, x1, y1, z1);
      return;
    }
    const ab = (ax - bx) ** 2 + (ay - by) ** 2 + (az - bz) ** 2;
    const bc = (bx - cx) ** 2 + (by - cy) ** 2 + (bz - cz) ** 2;
    const ca = (cx - ax) ** 2 + (cy - ay) ** 2 + (cz - az) ** 2;
    if (ab >= bc && ab >= ca) {
      const mx = (ax + bx) / 2,
        my = (ay + by) / 2,
        mz = (az + bz) / 2;
      split(t, ax, ay, az, mx, my, mz, cx, cy, cz);
      split(t, mx, my, mz, bx, by, bz, cx, cy, cz);
    } else if (bc >= ca) {
      split(t, bx, by, bz, cx, cy, cz, ax, ay, az);
    } else {
      split(t, cx, cy, cz, ax, ay, az, bx, by, bz);
    }
  };
  for (let t = 0; t < count; t++) {
    const a = 3 * mesh.triangles[3 * t];
    const b = 3 * mesh.triangles[3 * t + 1];
    const c = 3 * mesh.triangles[3 * t + 2];
    const za = p[a + 2];
    const zb = p[b + 2];
    const zc = p[c + 2];
    if ((za < lowMm && zb < lowMm && zc < lowMm) || (za > highMm && zb > highMm && zc > highMm)) continue;
    split(
      t,
      (p[a] - ox) * inverse,
      (p[a + 1] - oy) * inverse,
      (p[a + 2] - oz) * inverse,
      (p[b] - ox) * inverse,
      (p[b + 1] - oy) * inverse,
      (p[b + 2] - oz) * inverse,
      (p[c] - ox) * inverse,
      (p[c + 1] - oy) * inverse,
      (p[c + 2] - oz) * inverse,
    );
  }
}

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
  forEachPiece(mesh, { origin: originMm, step: stepMm }, BRICK / 2, (_t, x0, y0, z0, x1, y1, z1) => {
    for (let k = Math.floor(z0 / BRICK); k <= Math.floor(z1 / BRICK); k++) {
      for (let j = Math.floor(y0 / BRICK); j <= Math.floor(y1 / BRICK); j++) {
        for (let i = Math.floor(x0 / BRICK); i <= Math.floor(x1 / BRICK); i++) {
          const b = i + nx * (j + ny * k);
          if (!occupied[b]) {
            occupied[b] = 1;
            tight.set([Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity], 6 * b);
          }
          const at = 6 * b;
          tight[at] = Math.min(tight[at], Math.max(x0, i * BRICK));
          tight[at + 1] = Math.min(tight[at + 1], Math.max(y0, j * BRICK));
          tight[at + 2] = Math.min(tight[at + 2], Math.max(z0, k * BRICK));
          tight[at + 3] = Math.max(tight[at + 3], Math.min(x1, (i + 1) * BRICK));
          tight[at + 4] = Math.max(tight[at + 4], Math.min(y1, (j + 1) * BRICK));
          tight[at + 5] = Math.max(tight[at + 5], Math.min(z1, (k + 1) * BRICK));
        }
      }
    }
  });
  return gridFromActive(originMm, stepMm, bricks, growBricks(bricks, occupied, tight, reachMm / stepMm));
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
  return compactFeatures(mesh, grid, nodeFeature);
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
  const between = { lowMm: o[2] + h * (from - limit), highMm: o[2] + h * (to - 1 + limit) };
  forEachPiece(
    mesh,
    { origin: o, step: h },
    BRICK / 2,
    (t, x0, y0, z0, x1, y1, z1) => {
      for (let k = Math.max(from, Math.ceil(z0 - limit)); k <= z1 + limit && k < to; k++) {
        for (let j = Math.ceil(y0 - limit); j <= y1 + limit; j++) {
          for (let i = Math.ceil(x0 - limit); i <= x1 + limit; i++) {
            const d2 = closestPointOnTriangle(point, mesh, t, o[0] + i * h, o[1] + j * h, o[2] + k * h);
            const node = nodeAt(grid, i, j, k);
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

/** Turns the triangle numbers left at the nodes into features numbered along the bricks. */
function compactFeatures(mesh: TriangleMesh, grid: BrickGrid, nodeFeature: Int32Array): Features {
  let count = 0;
  for (let n = 0; n < nodeFeature.length; n++) if (nodeFeature[n] !== NO_FEATURE) count++;
  const points = new Float32Array(count * 3);
  const owner = new Int32Array(count);
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
