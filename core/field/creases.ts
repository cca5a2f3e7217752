/**
 * Points on the surface d = R about a piece, near given nodes: the smooth foot of a node or, where that lies inside the
 * ball of radius R about a neighbour's closest point, the crease between the balls, reached by Newton steps of least
 * change.
 */
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { DistanceField } from "./distance.ts";
import { BRICK, brickCorner, nodeAt, nodePoint } from "./grid.ts";

/** Kinds of feature: on the smooth surface, on a crease (two nearest points); 3 is a corner. */
export const SMOOTH = 1;
export const CREASE = 2;

export type TriangleField = Pick<DistanceField, "grid" | "triangle">;

/** Side of a brick with one node more all round. */
const BLOCK = BRICK + 2;

/** Puts a node's foot on the surface d = R, out of the balls of its neighbours' closest points. */
export class CreasePusher {
  readonly point = new Float64Array(3);
  /** Closest points of the node and its 26 neighbours. */
  private readonly near = new Float64Array(27 * 3);
  private nearCount = 0;
  private readonly active = new Int32Array(3);
  private readonly node = new Float64Array(3);
  private readonly q = new Float64Array(3);
  private readonly tolerance: number;
  /** First node (i, j, k) of the brick at hand. */
  private readonly corner = new Int32Array(3);
  /**
   * Closest points of the brick's nodes and those round it, each worked out when first asked for: neighbours share
   * them. A place is held while its stamp is that of the brick; a stamp below 0 says that the node has no triangle.
   */
  private readonly held = new Float64Array(3 * BLOCK ** 3);
  private readonly stamp = new Int32Array(BLOCK ** 3);
  private brickStamp = 0;

  constructor(
    private readonly mesh: TriangleMesh,
    private readonly field: TriangleField,
    private readonly levelMm: number,
  ) {
    this.tolerance = 0.01 * field.grid.stepMm;
  }

  /** Turns to the brick in a slot; the nodes placed next lie in it. */
  enter(slot: number): void {
    brickCorner(this.field.grid, slot, this.corner);
    this.brickStamp++;
  }

  /** Sets `point` for a node of the brick entered; returns its kind, or -1 when none could be found near the node. */
  place(node: number): number {
    const { levelMm: R, near, point: p, node: x } = this;
    nodePoint(this.field.grid, node, x, 0);
    this.gather(node);
    const d = Math.sqrt((x[0] - near[0]) ** 2 + (x[1] - near[1]) ** 2 + (x[2] - near[2]) ** 2);
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
    const x = (node & 7) + 1;
    const y = ((node >> 3) & 7) + 1;
    const z = ((node >> 6) & 7) + 1;
    this.nearCount = 0;
    this.add(x, y, z);
    for (let dz = -1; dz <= 1; dz++) {
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) if (dx !== 0 || dy !== 0 || dz !== 0) this.add(x + dx, y + dy, z + dz);
      }
    }
  }

  /** Adds the closest point of the node at (x, y, z) of the block. */
  private add(x: number, y: number, z: number): void {
    const { held, stamp, brickStamp, near } = this;
    const at = x + BLOCK * (y + BLOCK * z);
    if (stamp[at] === -brickStamp || (stamp[at] !== brickStamp && !this.workOut(at, x, y, z))) return;
    const to = 3 * this.nearCount++;
    near[to] = held[3 * at];
    near[to + 1] = held[3 * at + 1];
    near[to + 2] = held[3 * at + 2];
  }

  private workOut(at: number, x: number, y: number, z: number): boolean {
    const { corner, field, mesh, q } = this;
    const { stepMm: h, originMm: o } = field.grid;
    const i = corner[0] + x - 1;
    const j = corner[1] + y - 1;
    const k = corner[2] + z - 1;
    const n = nodeAt(field.grid, i, j, k);
    if (n < 0 || field.triangle[n] < 0) {
      this.stamp[at] = -this.brickStamp;
      return false;
    }
    this.stamp[at] = this.brickStamp;
    closestPointOnTriangle(q, mesh, field.triangle[n], o[0] + i * h, o[1] + j * h, o[2] + k * h);
    this.held[3 * at] = q[0];
    this.held[3 * at + 1] = q[1];
    this.held[3 * at + 2] = q[2];
    return true;
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
