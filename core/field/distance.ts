/**
 * Signed distance to a piece in a band around its surface, on a brick grid.
 *
 * Features next to the surface, an exact vector transform outwards, then an exact re-measure, by a walk over the
 * mesh, only at the nodes somebody reads: those next to the surface and those in `exactBandsMm`. Inside or outside by the votes of signed crossings along three axes; where they disagree or a line
 * is inconsistent, by the generalised winding number.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES, shared } from "../job/team.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { walkToClosest } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { voteAlong } from "./crossings.ts";
import { gridAroundMesh, NO_FEATURE, seedFromMesh } from "./features.ts";
import { BRICK_NODES, type BrickGrid, nodeCount, nodePoint } from "./grid.ts";
import { propagateFeatures } from "./transform.ts";
import { windingNumbers } from "./winding.ts";

export interface DistanceField {
  readonly grid: BrickGrid;
  /**
   * Signed distance per node, mm, negative inside. Exact in the bands asked for (but for a twentieth of a step where
   * two parts of the surface are about as near), within a step elsewhere.
   */
  readonly distanceMm: Float32Array;
  /** The triangle the distance was measured to. */
  readonly triangle: Int32Array;
  /** Nodes whose side was settled by winding number because the lines disagreed. */
  readonly disputedNodes: number;
}

export interface DistanceOptions {
  readonly stepMm: number;
  /** How far from the surface the field reaches, both ways. */
  readonly reachMm: number;
  /** Outside nodes between these distances are measured exactly, besides those next to the surface. */
  readonly exactBandsMm: readonly (readonly [from: number, to: number])[];
}

export function distanceField(mesh: TriangleMesh, options: DistanceOptions, ctx: JobContext): DistanceField {
  const grid = gridAroundMesh(mesh, options.stepMm, options.reachMm);
  const nodeFeature = new Int32Array(ctx.team.buffer(4 * nodeCount(grid)));
  const features = seedFromMesh(mesh, grid, nodeFeature, ctx);
  propagateFeatures(grid, features, nodeFeature, ctx, { name: "field", from: 0.25, to: 0.6 });
  const { inside, disputedNodes } = insideNodes(mesh, grid, ctx);
  ctx.progress("field", 0.8);
  const across = shared(ctx.team, adjacencyOf(mesh).across);
  const distanceMm = new Float32Array(ctx.team.buffer(4 * nodeFeature.length));
  const { points, owner } = features;
  const shares = runsOf(grid.brickOf.length, SHARES).map(
    (run): MeasureShare => ({ mesh, across, options, grid, points, owner, nodeFeature, inside, distanceMm, ...run }),
  );
  ctx.team.run(measureKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("field", 0.8 + 0.2 * done);
  });
  return { grid, distanceMm, triangle: nodeFeature, disputedNodes };
}

interface VoteShare {
  readonly mesh: TriangleMesh;
  readonly grid: BrickGrid;
  readonly axis: number;
  readonly votes: Uint8Array;
}

export const voteKernel: Kernel<VoteShare> = {
  name: "inside votes",
  run: ({ mesh, grid, axis, votes }) => voteAlong(mesh, grid, axis, votes),
};

/** One byte a node: 1 inside. */
function insideNodes(
  mesh: TriangleMesh,
  grid: BrickGrid,
  ctx: JobContext,
): { inside: Uint8Array; disputedNodes: number } {
  const shares = [0, 1, 2].map((axis): VoteShare => {
    const votes = new Uint8Array(ctx.team.buffer(nodeCount(grid)));
    return { mesh, grid, axis, votes };
  });
  ctx.team.run(voteKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("field", 0.6 + 0.2 * done);
  });
  const [votes, ...rest] = shares.map((share) => share.votes);
  for (const other of rest) for (let n = 0; n < votes.length; n++) votes[n] += other[n];
  const disputed: number[] = [];
  for (let n = 0; n < votes.length; n++) {
    const yes = votes[n] & 3;
    const asked = votes[n] >> 2;
    if (asked >= 2 && (yes === 0 || yes === asked)) votes[n] = yes > 0 ? 1 : 0;
    else disputed.push(n);
  }
  const points = new Float64Array(disputed.length * 3);
  disputed.forEach((n, k) => {
    nodePoint(grid, n, points, 3 * k);
  });
  const winding = windingNumbers(mesh, points, ctx);
  for (let k = 0; k < disputed.length; k++) votes[disputed[k]] = winding[k] > 0.5 ? 1 : 0;
  return { inside: votes, disputedNodes: disputed.length };
}

/** The nodes of the bricks in slots `from` to `to`. */
interface MeasureShare {
  readonly mesh: TriangleMesh;
  readonly across: Int32Array;
  readonly options: DistanceOptions;
  readonly grid: BrickGrid;
  /** Features and the triangles they lie on. */
  readonly points: Float32Array;
  readonly owner: Int32Array;
  /** In: feature numbers; out: triangle numbers. */
  readonly nodeFeature: Int32Array;
  readonly inside: Uint8Array;
  /** Out: mm. */
  readonly distanceMm: Float32Array;
  readonly from: number;
  readonly to: number;
}

export const measureKernel: Kernel<MeasureShare> = { name: "distances", run: measure };

function measure(share: MeasureShare): void {
  const { mesh, across, options, grid, points, owner, nodeFeature, inside, distanceMm, from, to } = share;
  const { stepMm: h, originMm: o, bricks, brickOf } = grid;
  const bands = options.exactBandsMm;
  const q = new Float64Array(3);
  for (let slot = from; slot < to; slot++) {
    const b = brickOf[slot];
    const i0 = (b % bricks[0]) * 8;
    const j0 = (Math.floor(b / bricks[0]) % bricks[1]) * 8;
    const k0 = Math.floor(b / (bricks[0] * bricks[1])) * 8;
    for (let k = 0; k < BRICK_NODES; k++) {
      const n = slot * BRICK_NODES + k;
      const f = nodeFeature[n];
      if (f === NO_FEATURE) {
        distanceMm[n] = inside[n] ? -options.reachMm * 2 : options.reachMm * 2;
        continue;
      }
      const i = i0 + (k & 7);
      const j = j0 + ((k >> 3) & 7);
      const l = k0 + (k >> 6);
      const fx = points[3 * f] - i;
      const fy = points[3 * f + 1] - j;
      const fz = points[3 * f + 2] - l;
      const rough = h * Math.sqrt(fx * fx + fy * fy + fz * fz);
      let t = owner[f];
      let d = rough;
      if (rough < 1.5 * h || (!inside[n] && inBands(rough, bands, 0.3 * h))) {
        const x = o[0] + i * h;
        const y = o[1] + j * h;
        const z = o[2] + l * h;
        t = walkToClosest(q, mesh, across, t, x, y, z);
        d = Math.sqrt((q[0] - x) ** 2 + (q[1] - y) ** 2 + (q[2] - z) ** 2);
      }
      nodeFeature[n] = t;
      distanceMm[n] = inside[n] ? -d : d;
    }
  }
}

function inBands(distance: number, bands: readonly (readonly [number, number])[], slack: number): boolean {
  for (let k = 0; k < bands.length; k++)
    if (distance > bands[k][0] - slack && distance < bands[k][1] + slack) return true;
  return false;
}
