/**
 * The nearest triangle of a mesh for every point of its box: a dense, coarse grid of nearest features, made exact on
 * demand by a walk over the mesh. Answers "whose cell is this point in".
 */
import type { JobContext } from "../job/context.ts";
import { ALONE, type Kernel, runsOf, SHARES, shared, type Team } from "../job/team.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { walkToClosest } from "../mesh/closestPoint.ts";
import { boxSize, meshBox, type TriangleMesh } from "../mesh/mesh.ts";
import { type Features, NO_FEATURE, seedFromMesh } from "./features.ts";
import { BRICK, BRICK_NODES, type BrickGrid, gridFromActive, nodeAt, nodeCount, nodePoint } from "./grid.ts";
import { propagateFeatures } from "./transform.ts";

/** Nodes a nearest field may have: 16 MB of features. */
const NODE_BUDGET = 2e6;

/** The class of triangles that are of none. */
export const NO_CLASS = 255;

/** A class of the nearest triangle at every node, and of whole bricks where they are all of one (-1 elsewhere). */
export interface NodeClasses {
  readonly node: Uint8Array;
  readonly brick: Int16Array;
}

/** What a nearest field is made of, as plain data for other threads. */
export interface NearestData {
  readonly mesh: TriangleMesh;
  readonly grid: BrickGrid;
  /** The triangle nearest each node. */
  readonly triangle: Int32Array;
  /** Distance of each node from the mesh, mm: exact to the seed of the cell it was seeded from. */
  readonly nodeMm: Float32Array;
  readonly across: Int32Array;
}

export class NearestField {
  private readonly mesh: TriangleMesh;
  private readonly grid: BrickGrid;
  private readonly triangle: Int32Array;
  private readonly nodeMm: Float32Array;
  private readonly across: Int32Array;
  private readonly point = new Float64Array(3);

  constructor(readonly data: NearestData) {
    this.mesh = data.mesh;
    this.grid = data.grid;
    this.triangle = data.triangle;
    this.nodeMm = data.nodeMm;
    this.across = data.across;
  }

  /** @param finestMm step of the nodes, where the budget allows it */
  static about(mesh: TriangleMesh, finestMm: number, ctx: JobContext): NearestField {
    const box = meshBox(mesh);
    const size = boxSize(box);
    const volume = size.reduce((product, s) => product * (s + 4 * finestMm), 1);
    const stepMm = Math.max(finestMm, Math.cbrt(volume / NODE_BUDGET));
    const originMm = box.min.map((m, a) => m - (2.3 + 0.07 * a) * stepMm) as [number, number, number];
    const bricks = size.map((s) => Math.ceil((s / stepMm + 6) / BRICK)) as [number, number, number];
    const grid = gridFromActive(originMm, stepMm, bricks, new Uint8Array(bricks[0] * bricks[1] * bricks[2]).fill(1));
    const triangle = new Int32Array(ctx.team.buffer(4 * nodeCount(grid)));
    // A stage of its own is not told: it is a step of whatever asks.
    const quiet = { ...ctx, progress: () => {} };
    const features = seedFromMesh(mesh, grid, triangle, quiet);
    propagateFeatures(grid, features, triangle, quiet, { name: "cells", from: 0, to: 1 });
    const nodeMm = new Float32Array(ctx.team.buffer(4 * triangle.length));
    const shares = runsOf(triangle.length, SHARES).map((run) => ({ grid, features, triangle, nodeMm, ...run }));
    ctx.team.run(ownerKernel, shares, () => ctx.checkCancelled());
    return new NearestField({ mesh, grid, triangle, nodeMm, across: shared(ctx.team, adjacencyOf(mesh).across) });
  }

  /** Spreads a class of each triangle over the field, for `sureClass`. */
  classes(classOf: Uint8Array, team: Team = ALONE): NodeClasses {
    const { triangle } = this;
    const node = new Uint8Array(team.buffer(triangle.length));
    for (let n = 0; n < node.length; n++) node[n] = classOf[triangle[n]];
    const brick = new Int16Array(team.buffer(2 * this.grid.brickOf.length));
    for (let slot = 0; slot < brick.length; slot++) {
      const from = slot * BRICK_NODES;
      brick[slot] = node[from];
      for (let n = from + 1; n < from + BRICK_NODES && brick[slot] >= 0; n++)
        if (node[n] !== node[from]) brick[slot] = -1;
    }
    return { node, brick };
  }

  /**
   * Are the triangles named by the eight nodes about a point all of one class? Then the point is surely in it.
   * @returns the class, or -1 when the eight disagree or the point is off the grid
   */
  sureClass(classes: NodeClasses, x: number, y: number, z: number): number {
    const { originMm: o, stepMm: h } = this.grid;
    const i = Math.floor((x - o[0]) / h);
    const j = Math.floor((y - o[1]) / h);
    const k = Math.floor((z - o[2]) / h);
    const first = nodeAt(this.grid, i, j, k);
    if (first < 0) return -1;
    if ((i & 7) < 7 && (j & 7) < 7 && (k & 7) < 7) {
      const whole = classes.brick[Math.floor(first / BRICK_NODES)];
      if (whole >= 0) return whole;
      const { node } = classes;
      const own = node[first];
      const one =
        node[first + 1] === own &&
        node[first + BRICK] === own &&
        node[first + BRICK + 1] === own &&
        node[first + BRICK * BRICK] === own &&
        node[first + BRICK * BRICK + 1] === own &&
        node[first + BRICK * BRICK + BRICK] === own &&
        node[first + BRICK * BRICK + BRICK + 1] === own;
      return one ? own : -1;
    }
    const found = classes.node[first];
    for (let c = 1; c < 8; c++) {
      const n = nodeAt(this.grid, i + (c & 1), j + ((c >> 1) & 1), k + (c >> 2));
      if (n < 0 || classes.node[n] !== found) return -1;
    }
    return found;
  }

  /** The node nearest a point; points off the grid take its edge. */
  private nodeBy(x: number, y: number, z: number): number {
    const { originMm: o, stepMm: h, bricks } = this.grid;
    const i = Math.min(bricks[0] * BRICK - 1, Math.max(0, Math.round((x - o[0]) / h)));
    const j = Math.min(bricks[1] * BRICK - 1, Math.max(0, Math.round((y - o[1]) / h)));
    const k = Math.min(bricks[2] * BRICK - 1, Math.max(0, Math.round((z - o[2]) / h)));
    return nodeAt(this.grid, i, j, k);
  }

  /**
   * For a point farther from the mesh than `farMm`: the triangle nearest the node beside it, and its distance to within a
   * step. Else -1: near the mesh only the exact answer will do.
   */
  farTriangle(farMm: number, x: number, y: number, z: number): number {
    const node = this.nodeBy(x, y, z);
    return this.nodeMm[node] > farMm ? this.triangle[node] : -1;
  }

  /** Distance of a point from the mesh, mm, as the node nearest it has it: to within a step and what it was seeded from. */
  roughMm(x: number, y: number, z: number): number {
    return this.nodeMm[this.nodeBy(x, y, z)];
  }

  /** Distance of a point from the mesh, mm: exact within `farMm` of it, to within a step beyond. */
  distanceNear(farMm: number, x: number, y: number, z: number): number {
    const rough = this.roughMm(x, y, z);
    return rough > farMm ? rough : this.distance(x, y, z);
  }

  /** The nearest triangle to a point; `out` receives the nearest point. Points off the grid use its edge. */
  nearest(out: Float64Array, x: number, y: number, z: number): number {
    const from = this.triangle[this.nodeBy(x, y, z)];
    return walkToClosest(out, this.mesh, this.across, from, x, y, z);
  }

  /** The same from a triangle near it: for a point that moves a little at a time. */
  nearestFrom(out: Float64Array, from: number, x: number, y: number, z: number): number {
    return walkToClosest(out, this.mesh, this.across, from, x, y, z);
  }

  /** The nearest triangle to every point of a list, xyz. */
  trianglesAt(points: Float32Array, team: Team): Int32Array {
    const triangles = new Int32Array(team.buffer((4 * points.length) / 3));
    const { data } = this;
    const shares = runsOf(triangles.length, SHARES).map((run) => ({ data, points, triangles, ...run }));
    team.run(walkKernel, shares);
    return triangles;
  }

  /** Distance from a point to the mesh, mm. */
  distance(x: number, y: number, z: number): number {
    this.nearest(this.point, x, y, z);
    const dx = this.point[0] - x;
    const dy = this.point[1] - y;
    const dz = this.point[2] - z;
    return Math.sqrt(dx * dx + dy * dy + dz * dz);
  }
}

/** The nodes `from` to `to`. */
interface OwnerShare {
  readonly grid: BrickGrid;
  readonly features: Features;
  /** In: the feature nearest each node; out: the triangle it lies on. */
  readonly triangle: Int32Array;
  readonly nodeMm: Float32Array;
  readonly from: number;
  readonly to: number;
}

export const ownerKernel: Kernel<OwnerShare> = {
  name: "owners of nodes",
  run({ grid, features, triangle, nodeMm, from, to }) {
    const point = new Float64Array(3);
    for (let n = from; n < to; n++) {
      const f = triangle[n];
      nodeMm[n] = f === NO_FEATURE ? 0 : distanceToFeature(grid, n, features, f, point);
      triangle[n] = f === NO_FEATURE ? 0 : features.owner[f];
    }
  },
};

/** The points `from` to `to`. */
interface WalkShare {
  readonly data: NearestData;
  readonly points: Float32Array;
  /** Out: the triangle nearest each point. */
  readonly triangles: Int32Array;
  readonly from: number;
  readonly to: number;
}

export const walkKernel: Kernel<WalkShare> = {
  name: "triangles nearest points",
  run({ data, points, triangles, from, to }) {
    const field = new NearestField(data);
    const place = new Float64Array(3);
    for (let k = from; k < to; k++) {
      triangles[k] = field.nearest(place, points[3 * k], points[3 * k + 1], points[3 * k + 2]);
    }
  },
};

function distanceToFeature(grid: BrickGrid, node: number, features: Features, f: number, at: Float64Array): number {
  nodePoint(grid, node, at, 0);
  let sum = 0;
  for (let a = 0; a < 3; a++) {
    sum += (features.points[3 * f + a] * grid.stepMm + grid.originMm[a] - at[a]) ** 2;
  }
  return Math.sqrt(sum);
}
