/**
 * The space about a body: how far each place is from it, and which vertex of it is nearest. A small dense grid, for
 * judging how thick a fill would have to be and whose cell it would fall to.
 */
import { type Features, NO_FEATURE, seedFromMesh } from "../field/features.ts";
import { BRICK, BRICK_NODES, brickCorner, gridFromActive, nodeCount } from "../field/grid.ts";
import { propagateFeatures } from "../field/transform.ts";
import type { JobContext } from "../job/context.ts";
import { boxSize, meshBox, type TriangleMesh } from "../mesh/mesh.ts";

/** Nodes of the grid: as many as the mesh's fineness deserves, and at most 4.8 MB. */
const MOST_NODES = 6e5;
const LEAST_NODES = 6e4;
const NODES_PER_VERTEX = 25;

/** Node (i, j, k) stands at origin + step (i, j, k) and has number i + nx (j + ny k). */
export interface DepthField {
  readonly originMm: readonly [number, number, number];
  readonly stepMm: number;
  readonly size: readonly [number, number, number];
  /** Two a node, side by side since they are read together: its distance from the body, mm, and the vertex nearest it. */
  readonly places: Float32Array;
}

/** Distances about a mesh, over its box: within a node's own distance from the surface's seeds, about half a step. */
export function depthField(mesh: TriangleMesh, ctx: JobContext): DepthField {
  const box = meshBox(mesh);
  const extent = boxSize(box);
  const nodes = Math.min(MOST_NODES, Math.max(LEAST_NODES, (NODES_PER_VERTEX * mesh.positions.length) / 3));
  const stepMm = Math.cbrt(extent.reduce((product, s) => product * Math.max(1, s), 1) / nodes);
  const originMm = box.min.map((m, a) => m - (1.3 + 0.07 * a) * stepMm) as [number, number, number];
  const bricks = extent.map((s) => Math.ceil((s / stepMm + 4) / BRICK)) as [number, number, number];
  const grid = gridFromActive(originMm, stepMm, bricks, new Uint8Array(bricks[0] * bricks[1] * bricks[2]).fill(1));
  const nodeFeature = new Int32Array(ctx.team.buffer(4 * nodeCount(grid)));
  const silent = { ...ctx, progress: () => {} };
  const features = seedFromMesh(mesh, grid, nodeFeature, silent);
  propagateFeatures(grid, features, nodeFeature, silent, { name: "depth", from: 0, to: 1 });
  const size = bricks.map((n) => n * BRICK) as [number, number, number];
  const { points } = features;
  const vertexOf = nearestCorners(mesh, features, originMm, stepMm);
  const places = new Float32Array(ctx.team.buffer(8 * nodeFeature.length));
  const corner = new Int32Array(3);
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    brickCorner(grid, slot, corner);
    for (let n = 0; n < BRICK_NODES; n++) {
      const i = corner[0] + (n & 7);
      const j = corner[1] + ((n >> 3) & 7);
      const k = corner[2] + (n >> 6);
      const at = 2 * (i + size[0] * (j + size[1] * k));
      const f = nodeFeature[slot * BRICK_NODES + n];
      if (f === NO_FEATURE) {
        places[at] = Infinity;
        continue;
      }
      const x = points[3 * f] - i;
      const y = points[3 * f + 1] - j;
      const z = points[3 * f + 2] - k;
      places[at] = stepMm * Math.sqrt(x * x + y * y + z * z);
      places[at + 1] = vertexOf[f];
    }
  }
  return { originMm, stepMm, size, places };
}

/** The vertex nearest each feature: a corner of its triangle. */
function nearestCorners(
  { positions: p, triangles: t }: TriangleMesh,
  { points, owner }: Features,
  originMm: readonly number[],
  stepMm: number,
): Uint32Array {
  const out = new Uint32Array(owner.length);
  for (let f = 0; f < out.length; f++) {
    const x = originMm[0] + stepMm * points[3 * f];
    const y = originMm[1] + stepMm * points[3 * f + 1];
    const z = originMm[2] + stepMm * points[3 * f + 2];
    let least = Infinity;
    for (let c = 3 * owner[f]; c < 3 * owner[f] + 3; c++) {
      const v = t[c];
      const away = (p[3 * v] - x) ** 2 + (p[3 * v + 1] - y) ** 2 + (p[3 * v + 2] - z) ** 2;
      if (away >= least) continue;
      least = away;
      out[f] = v;
    }
  }
  return out;
}

/**
 * Number of the node nearest a place; places off the grid take its edge.
 * @param x, y, z in steps from half a step before node (0, 0, 0): cut off to whole numbers they name the node
 */
export function depthNode([nx, ny, nz]: DepthField["size"], x: number, y: number, z: number): number {
  const i = x <= 0 ? 0 : x >= nx ? nx - 1 : x | 0;
  const j = y <= 0 ? 0 : y >= ny ? ny - 1 : y | 0;
  const k = z <= 0 ? 0 : z >= nz ? nz - 1 : z | 0;
  return i + nx * (j + ny * k);
}
