/**
 * The space about a body: how far each place is from it, and which vertex of it is nearest. A small dense grid, for
 * judging how thick a fill would have to be and whose cell it would fall to.
 */
import { type Features, NO_FEATURE, seedFromMesh } from "../field/features.ts";
import { BRICK, gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import { propagateFeatures } from "../field/transform.ts";
import { plainContext } from "../job/context.ts";
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
export function depthField(mesh: TriangleMesh): DepthField {
  const box = meshBox(mesh);
  const extent = boxSize(box);
  const nodes = Math.min(MOST_NODES, Math.max(LEAST_NODES, (NODES_PER_VERTEX * mesh.positions.length) / 3));
  const stepMm = Math.cbrt(extent.reduce((product, s) => product * Math.max(1, s), 1) / nodes);
  const originMm = box.min.map((m, a) => m - (1.3 + 0.07 * a) * stepMm) as [number, number, number];
  const bricks = extent.map((s) => Math.ceil((s / stepMm + 4) / BRICK)) as [number, number, number];
  const grid = gridFromActive(originMm, stepMm, bricks, new Uint8Array(bricks[0] * bricks[1] * bricks[2]).fill(1));
  const nodeFeature = new Int32Array(nodeCount(grid));
  const features = seedFromMesh(mesh, grid, nodeFeature, plainContext);
  propagateFeatures(grid, features, nodeFeature, plainContext, { name: "depth", from: 0, to: 1 });
  const size = bricks.map((n) => n * BRICK) as [number, number, number];
  const field: DepthField = {
    originMm,
    stepMm,
    size,
    places: new Float32Array(2 * nodeFeature.length),
  };
  const node = new Float64Array(3);
  const point = new Float64Array(3);
  for (let n = 0; n < nodeFeature.length; n++) {
    const f = nodeFeature[n];
    nodePoint(grid, n, node, 0);
    const at = depthNode(field, node[0], node[1], node[2]);
    field.places[2 * at] = Infinity;
    if (f === NO_FEATURE) continue;
    let sum = 0;
    for (let a = 0; a < 3; a++) {
      point[a] = features.points[3 * f + a] * stepMm + originMm[a];
      sum += (point[a] - node[a]) ** 2;
    }
    field.places[2 * at] = Math.sqrt(sum);
    field.places[2 * at + 1] = nearestCorner(mesh, features, f, point);
  }
  return field;
}

function nearestCorner(mesh: TriangleMesh, features: Features, f: number, point: Float64Array): number {
  const { positions: p, triangles: t } = mesh;
  let best = 0;
  let least = Infinity;
  for (let c = 0; c < 3; c++) {
    const v = t[3 * features.owner[f] + c];
    const away = (p[3 * v] - point[0]) ** 2 + (p[3 * v + 1] - point[1]) ** 2 + (p[3 * v + 2] - point[2]) ** 2;
    if (away >= least) continue;
    least = away;
    best = v;
  }
  return best;
}

/** Number of the node nearest a point; points off the grid take its edge. */
export function depthNode(field: DepthField, x: number, y: number, z: number): number {
  const { originMm: o, stepMm: h, size } = field;
  const i = Math.min(size[0] - 1, Math.max(0, Math.round((x - o[0]) / h)));
  const j = Math.min(size[1] - 1, Math.max(0, Math.round((y - o[1]) / h)));
  const k = Math.min(size[2] - 1, Math.max(0, Math.round((z - o[2]) / h)));
  return i + size[0] * (j + size[1] * k);
}
