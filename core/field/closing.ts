/**
 * Closing of a body grown from a piece, J = erode(dilate(P + t, r), r), as a node field.
 *
 * P + t grown by r is {d <= R}, R = t + r, d the distance to P. A point x outside P + t lies outside J when some
 * centre c with d(c) >= R is nearer to it than r. Where the nearest such c is a smooth point of the surface d = R,
 * its distance is R - d(x) exactly, and J's face is the plain offset d = t. Where it is on a crease (a point with
 * two or more nearest points of P), J's face is a fillet about the crease. So: features on the surface d = R, those
 * inside a neighbour's ball pushed out onto the crease between the balls (Newton steps of least change), the exact
 * vector transform inwards, and the field is bent only where the nearest feature is not the smooth foot of x:
 *   phi(x) = min(d - t, r - |x - c|)     c the nearest feature.
 *
 * Source: closing by Minkowski sum and difference, Serra 1982; the crease features are our own.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES, type Team } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { CREASE, CreasePusher, SMOOTH } from "./creases.ts";
import type { DistanceField } from "./distance.ts";
import { type Features, NO_FEATURE } from "./features.ts";
import { BRICK_NODES, type BrickGrid, nodeAt, nodeCount, nodePoint } from "./grid.ts";
import { propagateFeatures } from "./transform.ts";

/** A node within this many steps of a surface may have it in its cell (half the cell's diagonal). */
const NEXT_TO = 0.87;
/** A crease shows only from below, and from as far as a cell and a half. */
const BELOW_CREASE = 1.75;

/** The distances that must be exact for a closing with its far surface at `levelMm`. */
export function closingBand(levelMm: number, stepMm: number): [from: number, to: number] {
  return [levelMm - BELOW_CREASE * stepMm, levelMm + NEXT_TO * stepMm];
}

/**
 * @param field distance to the piece, exact around R = offsetMm + radiusMm and reaching past it
 * @param offsetMm t, the jacket's thickness
 * @param radiusMm r, the smoothing; 0 leaves the plain offset
 * @returns field per node, negative inside J; mm and exact to second order near J's face
 */
export function closedOffset(
  mesh: TriangleMesh,
  field: DistanceField,
  offsetMm: number,
  radiusMm: number,
  ctx: JobContext,
): Float32Array {
  const { grid, distanceMm } = field;
  const phi = new Float32Array(ctx.team.buffer(4 * nodeCount(grid)));
  for (let n = 0; n < phi.length; n++) phi[n] = distanceMm[n] - offsetMm;
  if (radiusMm <= 0) return phi;
  const seeds = new Int32Array(ctx.team.buffer(4 * phi.length));
  const features = levelFeatures(mesh, field, offsetMm + radiusMm, seeds, ctx);
  if (!features.owner.some((kind) => kind >= CREASE)) return phi;
  const nearest = new Int32Array(ctx.team.buffer(4 * phi.length));
  nearest.set(seeds);
  propagateFeatures(grid, features, nearest, ctx, { name: "jacket", from: 0.3, to: 0.8 });
  const shares = runsOf(grid.brickOf.length, SHARES).map(
    (run): BendShare => ({ grid, features, seeds, nearest, phi, radiusMm, ...run }),
  );
  ctx.team.run(bendKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("jacket", 0.8 + 0.2 * done);
  });
  return phi;
}

interface BendShare {
  readonly grid: BrickGrid;
  readonly features: Features;
  /** The feature of each node's own cell. */
  readonly seeds: Int32Array;
  /** The feature nearest each node, or one beside it. */
  readonly nearest: Int32Array;
  /** In: the plain offset; out: bent where a feature rules. */
  readonly phi: Float32Array;
  readonly radiusMm: number;
  readonly from: number;
  readonly to: number;
}

export const bendKernel: Kernel<BendShare> = { name: "closing", run: bend };

function bend({ grid, features, seeds, nearest, phi, radiusMm, from, to }: BendShare): void {
  for (let n = from * BRICK_NODES; n < to * BRICK_NODES; n++) {
    if (phi[n] > 0 && phi[n] <= radiusMm && nearest[n] !== NO_FEATURE) {
      phi[n] = bentBy(grid, features, seeds, n, nearest[n], phi[n], radiusMm);
    }
  }
}

/**
 * phi at a node between P + t and the far surface, given a feature close to its nearest one. The features lie
 * anywhere in their cells, so the transform may name a neighbour of the nearest: a descent over the seeded cells
 * finds the nearest itself.
 */
function bentBy(
  grid: BrickGrid,
  features: Features,
  seeds: Int32Array,
  node: number,
  start: number,
  plain: number,
  radiusMm: number,
): number {
  const { points, owner } = features;
  const h = grid.stepMm;
  nodePoint(grid, node, world, 0);
  const x = (world[0] - grid.originMm[0]) / h;
  const y = (world[1] - grid.originMm[1]) / h;
  const z = (world[2] - grid.originMm[2]) / h;
  let best = start;
  let best2 = distance2(points, best, x, y, z);
  const early = verdict(owner[best], plain, radiusMm, h * Math.sqrt(best2), h);
  // A nearer feature only raises the value, by no more than a cell or so: far from the face it changes nothing.
  if (early === plain || early > 1.5 * h || early < -2.5 * h) return early;
  for (let moved = true; moved; ) {
    moved = false;
    const i = Math.round(points[3 * best]);
    const j = Math.round(points[3 * best + 1]);
    const k = Math.round(points[3 * best + 2]);
    for (let c = 0; c < 27; c++) {
      const home = nodeAt(grid, i + (c % 3) - 1, j + (((c / 3) | 0) % 3) - 1, k + ((c / 9) | 0) - 1);
      const f = home < 0 ? NO_FEATURE : seeds[home];
      if (f === NO_FEATURE) continue;
      const d2 = distance2(points, f, x, y, z);
      if (d2 < best2 - 1e-9) {
        best2 = d2;
        best = f;
        moved = true;
      }
    }
  }
  return verdict(owner[best], plain, radiusMm, h * Math.sqrt(best2), h);
}

function distance2(points: Float32Array, f: number, x: number, y: number, z: number): number {
  const dx = points[3 * f] - x;
  const dy = points[3 * f + 1] - y;
  const dz = points[3 * f + 2] - z;
  return dx * dx + dy * dy + dz * dz;
}

/** phi from the nearest feature's kind and distance. */
function verdict(kind: number, plain: number, radiusMm: number, reachMm: number, stepMm: number): number {
  const bent = Math.min(plain, radiusMm - reachMm);
  // A smooth feature is a sample: its distance may exceed the true one by this much through its spacing alone.
  const slackMm = (SAMPLE_SLACK * stepMm * stepMm) / Math.max(reachMm, stepMm);
  return kind >= CREASE || plain - bent > slackMm ? bent : plain;
}

const SAMPLE_SLACK = 0.55;
const world = new Float64Array(3);

/** Candidates for features: of the nodes near the far surface in the bricks of slots `from` to `to`. */
interface FeatureShare {
  readonly mesh: TriangleMesh;
  readonly grid: BrickGrid;
  readonly triangle: Int32Array;
  readonly distanceMm: Float32Array;
  readonly levelMm: number;
  readonly from: number;
  readonly to: number;
  /** Out: kinds (0: none) and grid coordinates, one a candidate node, in the order of the nodes. */
  readonly kinds: Uint8Array;
  readonly points: Float32Array;
  /** Where this share's candidates begin. */
  readonly first: number;
}

export const featureKernel: Kernel<FeatureShare> = { name: "crease features", run: placeFeatures };

function placeFeatures(share: FeatureShare): void {
  const { mesh, grid, triangle, distanceMm, levelMm, kinds, points } = share;
  const { stepMm: h, originMm: o } = grid;
  const [least, most] = closingBand(levelMm, h);
  const pusher = new CreasePusher(mesh, { grid, triangle }, levelMm);
  let c = share.first;
  for (let slot = share.from; slot < share.to; slot++) {
    let entered = false;
    for (let n = slot * BRICK_NODES; n < (slot + 1) * BRICK_NODES; n++) {
      if (distanceMm[n] < least || distanceMm[n] > most) continue;
      if (!entered) pusher.enter(slot);
      entered = true;
      const kind = pusher.place(n);
      // A smooth foot is near its own node; only creases show from farther below.
      if (kind >= CREASE || (kind === SMOOTH && distanceMm[n] >= levelMm - NEXT_TO * h)) {
        kinds[c] = kind;
        for (let a = 0; a < 3; a++) points[3 * c + a] = (pusher.point[a] - o[a]) / h;
      }
      c++;
    }
  }
}

/** Features on the surface d = R, one a cell, each marked with its kind. */
function levelFeatures(
  mesh: TriangleMesh,
  field: DistanceField,
  levelMm: number,
  nodeFeature: Int32Array,
  ctx: JobContext,
): Features {
  const { grid, distanceMm, triangle } = field;
  const [least, most] = closingBand(levelMm, grid.stepMm);
  const runs = runsOf(grid.brickOf.length, SHARES);
  const firsts: number[] = [];
  let candidates = 0;
  for (const { from, to } of runs) {
    firsts.push(candidates);
    for (let n = from * BRICK_NODES; n < to * BRICK_NODES; n++)
      if (distanceMm[n] >= least && distanceMm[n] <= most) candidates++;
  }
  const kinds = new Uint8Array(ctx.team.buffer(candidates));
  const places = new Float32Array(ctx.team.buffer(12 * candidates));
  const common = { mesh, grid, triangle, distanceMm, levelMm, kinds, points: places };
  const shares = runs.map((run, k): FeatureShare => ({ ...common, ...run, first: firsts[k] }));
  ctx.team.run(featureKernel, shares, (done) => {
    ctx.checkCancelled();
    ctx.progress("jacket", 0.3 * done);
  });
  return onePerCell(grid, kinds, places, nodeFeature, ctx.team);
}

/** One feature a cell: corners before creases before smooth ones, then the one nearest to the cell's node. */
function onePerCell(
  grid: BrickGrid,
  kinds: Uint8Array,
  places: Float32Array,
  nodeFeature: Int32Array,
  team: Team,
): Features {
  nodeFeature.fill(NO_FEATURE);
  const points = new Float32Array(team.buffer(4 * places.length));
  const owner = new Int32Array(team.buffer(4 * kinds.length));
  const score = new Float32Array(kinds.length);
  let count = 0;
  for (let c = 0; c < kinds.length; c++) {
    if (kinds[c] === 0) continue;
    const [fx, fy, fz] = [places[3 * c], places[3 * c + 1], places[3 * c + 2]];
    const [i, j, k] = [Math.round(fx), Math.round(fy), Math.round(fz)];
    const home = nodeAt(grid, i, j, k);
    if (home < 0) continue;
    const rank = 10 * (3 - kinds[c]) + (fx - i) ** 2 + (fy - j) ** 2 + (fz - k) ** 2;
    const held = nodeFeature[home];
    if (held !== NO_FEATURE && score[held] <= rank) continue;
    const f = held === NO_FEATURE ? count++ : held;
    nodeFeature[home] = f;
    points[3 * f] = fx;
    points[3 * f + 1] = fy;
    points[3 * f + 2] = fz;
    owner[f] = kinds[c];
    score[f] = rank;
  }
  return { points: points.subarray(0, 3 * count), owner: owner.subarray(0, count), count };
}
