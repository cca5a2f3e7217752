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
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { DistanceField } from "./distance.ts";
import { type Features, NO_FEATURE } from "./features.ts";
import { type BrickGrid, nodeAt, nodeCount, nodePoint } from "./grid.ts";
import { propagateFeatures } from "./transform.ts";

/** Kinds of feature: on the smooth surface, on a crease (two nearest points), at a corner (three). */
const SMOOTH = 1;
const CREASE = 2;

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
  const phi = new Float32Array(nodeCount(grid));
  for (let n = 0; n < phi.length; n++) phi[n] = distanceMm[n] - offsetMm;
  if (radiusMm <= 0) return phi;
  const seeds = new Int32Array(phi.length);
  const features = levelFeatures(mesh, field, offsetMm + radiusMm, seeds, ctx);
  if (!features.owner.some((kind) => kind >= CREASE)) return phi;
  const nearest = seeds.slice();
  propagateFeatures(grid, features, nearest, ctx, { name: "jacket", from: 0.3, to: 0.8 });
  for (let n = 0; n < phi.length; n++) {
    if ((n & 0x3ffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("jacket", 0.8 + (0.2 * n) / phi.length);
    }
    if (phi[n] > 0 && phi[n] <= radiusMm && nearest[n] !== NO_FEATURE) {
      phi[n] = bentBy(grid, features, seeds, n, nearest[n], phi[n], radiusMm);
    }
  }
  ctx.progress("jacket", 1);
  return phi;
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
  const distance2 = (f: number) =>
    (points[3 * f] - x) ** 2 + (points[3 * f + 1] - y) ** 2 + (points[3 * f + 2] - z) ** 2;
  let best = start;
  let best2 = distance2(best);
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
      const d2 = distance2(f);
      if (d2 < best2 - 1e-9) {
        best2 = d2;
        best = f;
        moved = true;
      }
    }
  }
  return verdict(owner[best], plain, radiusMm, h * Math.sqrt(best2), h);
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

/** Features on the surface d = R, one a cell, each marked with its kind. */
function levelFeatures(
  mesh: TriangleMesh,
  field: DistanceField,
  levelMm: number,
  nodeFeature: Int32Array,
  ctx: JobContext,
): Features {
  const { grid, distanceMm } = field;
  const { stepMm: h, originMm: o } = grid;
  nodeFeature.fill(NO_FEATURE);
  const candidates: number[] = [];
  const [from, to] = closingBand(levelMm, h);
  for (let n = 0; n < distanceMm.length; n++) {
    if (distanceMm[n] >= from && distanceMm[n] <= to) candidates.push(n);
  }
  const points = new Float32Array(candidates.length * 3);
  const owner = new Int32Array(candidates.length);
  const score = new Float32Array(candidates.length);
  const pusher = new CreasePusher(mesh, field, levelMm);
  let count = 0;
  for (let c = 0; c < candidates.length; c++) {
    if ((c & 0x3fff) === 0) {
      ctx.checkCancelled();
      ctx.progress("jacket", (0.3 * c) / candidates.length);
    }
    const kind = pusher.place(candidates[c]);
    if (kind < 0 || (kind === SMOOTH && distanceMm[candidates[c]] < levelMm - NEXT_TO * h)) continue;
    const p = pusher.point;
    const fx = (p[0] - o[0]) / h;
    const fy = (p[1] - o[1]) / h;
    const fz = (p[2] - o[2]) / h;
    const i = Math.round(fx);
    const j = Math.round(fy);
    const k = Math.round(fz);
    const home = nodeAt(grid, i, j, k);
    if (home < 0) continue;
    // One feature a cell: corners before creases before smooth ones, then the one nearest to the cell's node.
    const rank = 10 * (3 - kind) + (fx - i) ** 2 + (fy - j) ** 2 + (fz - k) ** 2;
    const held = nodeFeature[home];
    if (held !== NO_FEATURE && score[held] <= rank) continue;
    const f = held === NO_FEATURE ? count++ : held;
    nodeFeature[home] = f;
    points[3 * f] = fx;
    points[3 * f + 1] = fy;
    points[3 * f + 2] = fz;
    owner[f] = kind;
    score[f] = rank;
  }
  return { points: points.subarray(0, 3 * count), owner: owner.subarray(0, count), count };
}

/** Puts a node's foot on the surface d = R, out of the balls of its neighbours' closest points. */
class CreasePusher {
  readonly point = new Float64Array(3);
  /** Closest points of the node and its 26 neighbours. */
  private readonly near = new Float64Array(27 * 3);
  private nearCount = 0;
  private readonly active = new Int32Array(3);
  private readonly node = new Float64Array(3);
  private readonly q = new Float64Array(3);
  private readonly tolerance: number;

  constructor(
    private readonly mesh: TriangleMesh,
    private readonly field: DistanceField,
    private readonly levelMm: number,
  ) {
    this.tolerance = 0.01 * field.grid.stepMm;
  }

  /** Sets `point`; returns its kind, or -1 when no point could be found near the node. */
  place(node: number): number {
    const { levelMm: R, near, point: p, node: x } = this;
    nodePoint(this.field.grid, node, x, 0);
    this.gather(node);
    const d = Math.hypot(x[0] - near[0], x[1] - near[1], x[2] - near[2]);
    for (let a = 0; a < 3; a++) p[a] = near[a] + ((x[a] - near[a]) * R) / d;
    this.active[0] = 0;
    for (let held = 1; held <= 3; held++) {
      const worst = this.deepestBall(held);
      if (worst < 0) return this.kindOf(held);
      if (held === 3) return -1;
      this.active[held] = worst;
      if (!this.solve(held + 1)) return -1;
    }
    return -1;
  }

  /** A crease only where the nearest points lie in clearly different directions. */
  private kindOf(held: number): number {
    const { near, active } = this;
    const apart = 0.25 * this.field.grid.stepMm;
    for (let k = 1; k < held; k++) {
      const a = 3 * active[0];
      const b = 3 * active[k];
      if (Math.hypot(near[a] - near[b], near[a + 1] - near[b + 1], near[a + 2] - near[b + 2]) > apart) return held;
    }
    return SMOOTH;
  }

  private gather(node: number): void {
    const { grid, triangle } = this.field;
    const { stepMm: h, originMm: o } = grid;
    const x = this.node;
    const i = Math.round((x[0] - o[0]) / h);
    const j = Math.round((x[1] - o[1]) / h);
    const k = Math.round((x[2] - o[2]) / h);
    this.nearCount = 0;
    this.add(triangle[node], x[0], x[1], x[2]);
    for (let c = 0; c < 27; c++) {
      if (c === 13) continue;
      const di = (c % 3) - 1;
      const dj = (Math.floor(c / 3) % 3) - 1;
      const dk = Math.floor(c / 9) - 1;
      const n = nodeAt(grid, i + di, j + dj, k + dk);
      if (n >= 0 && triangle[n] >= 0) this.add(triangle[n], x[0] + di * h, x[1] + dj * h, x[2] + dk * h);
    }
  }

  private add(triangle: number, x: number, y: number, z: number): void {
    closestPointOnTriangle(this.q, this.mesh, triangle, x, y, z);
    this.near.set(this.q, 3 * this.nearCount++);
  }

  /** The neighbour whose ball the point lies deepest in, or -1. */
  private deepestBall(held: number): number {
    const { near, point: p, active, levelMm: R } = this;
    let worst = -1;
    let least = (R - this.tolerance) ** 2;
    for (let c = 0; c < this.nearCount; c++) {
      const d2 = (p[0] - near[3 * c]) ** 2 + (p[1] - near[3 * c + 1]) ** 2 + (p[2] - near[3 * c + 2]) ** 2;
      if (d2 >= least) continue;
      let isHeld = false;
      for (let k = 0; k < held; k++) isHeld ||= active[k] === c;
      if (isHeld) continue;
      least = d2;
      worst = c;
    }
    return worst;
  }

  /** Moves the point by least change onto all `count` held spheres of radius R. */
  private solve(count: number): boolean {
    const { near, point: p, active, levelMm: R } = this;
    const reach = 2.5 * this.field.grid.stepMm;
    for (let round = 0; round < 12; round++) {
      let off = 0;
      for (let k = 0; k < count; k++) {
        const c = 3 * active[k];
        const ux = p[0] - near[c];
        const uy = p[1] - near[c + 1];
        const uz = p[2] - near[c + 2];
        const d = Math.sqrt(ux * ux + uy * uy + uz * uz) || 1;
        rows[3 * k] = ux / d;
        rows[3 * k + 1] = uy / d;
        rows[3 * k + 2] = uz / d;
        residual[k] = R - d;
        off = Math.max(off, Math.abs(residual[k]));
      }
      if (off < this.tolerance * 0.1) break;
      if (!leastChange(count)) return false;
      p[0] += change[0];
      p[1] += change[1];
      p[2] += change[2];
    }
    const x = this.node;
    return Math.abs(p[0] - x[0]) < reach && Math.abs(p[1] - x[1]) < reach && Math.abs(p[2] - x[2]) < reach;
  }
}

const rows = new Float64Array(9);
const residual = new Float64Array(3);
const change = new Float64Array(3);
const gram = new Float64Array(9);

/** change = A^T (A A^T)^-1 residual for the first `count` rows of A; false when they are dependent. */
function leastChange(count: number): boolean {
  for (let a = 0; a < count; a++) {
    for (let b = 0; b < count; b++) {
      gram[3 * a + b] =
        rows[3 * a] * rows[3 * b] + rows[3 * a + 1] * rows[3 * b + 1] + rows[3 * a + 2] * rows[3 * b + 2];
    }
    gram[4 * a] += 1e-9;
  }
  // Gaussian elimination; the Gram matrix is symmetric and positive.
  const y = [residual[0], residual[1], residual[2]];
  for (let a = 0; a < count; a++) {
    const pivot = gram[4 * a];
    if (pivot < 1e-7) return false;
    for (let b = a + 1; b < count; b++) {
      const factor = gram[3 * b + a] / pivot;
      for (let c = a; c < count; c++) gram[3 * b + c] -= factor * gram[3 * a + c];
      y[b] -= factor * y[a];
    }
  }
  for (let a = count - 1; a >= 0; a--) {
    for (let c = a + 1; c < count; c++) y[a] -= gram[3 * a + c] * y[c];
    y[a] /= gram[4 * a];
  }
  change.fill(0);
  for (let k = 0; k < count; k++) for (let a = 0; a < 3; a++) change[a] += rows[3 * k + a] * y[k];
  return true;
}
