/**
 * Generalised winding number of a point, by a tree of dipoles (Barill et al., Fast winding numbers for soups and
 * clouds, 2018, first order). Robust where a scan has holes, flipped faces or self-crossings: inside is above a
 * half. Used for the few nodes on which the line votes disagree.
 */
import type { JobContext } from "../job/context.ts";
import { filledBy } from "../mesh/lists.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** For so few points the plain sum is quicker than building a tree. */
const FEW_POINTS = 16;

/**
 * Winding numbers of the mesh about many points (xyz each).
 */
export function windingNumbers(mesh: TriangleMesh, points: Float64Array, ctx: JobContext): Float64Array {
  const count = points.length / 3;
  const triangles = mesh.triangles.length / 3;
  const out = new Float64Array(count);
  if (count === 0) return out;
  const tree = count > FEW_POINTS ? new WindingTree(mesh) : null;
  for (let k = 0; k < count; k++) {
    if ((k & 0x3ff) === 0) ctx.checkCancelled();
    const [x, y, z] = [points[3 * k], points[3 * k + 1], points[3 * k + 2]];
    if (tree) out[k] = tree.at(x, y, z);
    else {
      let sum = 0;
      for (let t = 0; t < triangles; t++) sum += solidAngle(mesh, t, x, y, z);
      out[k] = sum / (4 * Math.PI);
    }
  }
  return out;
}

const LEAF = 8;
/** Where a tree node's figures begin after its centre: the radius of a ball about it, its dipole, its area; and how many there are. */
const RADIUS = 3;
const DIPOLE = 4;
const AREA = 7;
const WIDTH = 8;
/** A cluster this many radii away is seen as one dipole. */
const FAR = 3;

export class WindingTree {
  /** `WIDTH` figures per tree node: centre xyz, radius, dipole xyz, area. */
  private readonly data: Float64Array;
  /** Per tree node: first and past-the-last triangle, right child (left is next). */
  private readonly links: Int32Array;
  private readonly order: Uint32Array;
  private nodes = 0;
  private readonly centroid: Float32Array;
  private readonly mesh: TriangleMesh;

  constructor(mesh: TriangleMesh) {
    this.mesh = mesh;
    const count = mesh.triangles.length / 3;
    const bound = Math.max(4, 4 * Math.ceil(count / LEAF) + 4) * 2;
    this.data = new Float64Array(bound * WIDTH);
    this.links = new Int32Array(bound * 3);
    this.order = filledBy(new Uint32Array(count), (k) => k);
    this.centroid = new Float32Array(count * 3);
    const { positions: p, triangles: t } = mesh;
    for (let k = 0; k < count; k++) {
      for (let a = 0; a < 3; a++) {
        this.centroid[3 * k + a] = (p[3 * t[3 * k] + a] + p[3 * t[3 * k + 1] + a] + p[3 * t[3 * k + 2] + a]) / 3;
      }
    }
    this.build(0, count);
  }

  /** Winding number of the mesh about (x, y, z). */
  at(x: number, y: number, z: number): number {
    const stack = [0];
    let sum = 0;
    while (stack.length > 0) {
      const n = stack.pop() as number;
      const d = WIDTH * n;
      const rx = this.data[d] - x;
      const ry = this.data[d + 1] - y;
      const rz = this.data[d + 2] - z;
      const r2 = rx * rx + ry * ry + rz * rz;
      const reach = FAR * this.data[d + RADIUS];
      if (r2 > reach * reach) {
        sum +=
          (rx * this.data[d + DIPOLE] + ry * this.data[d + DIPOLE + 1] + rz * this.data[d + DIPOLE + 2]) /
          (r2 * Math.sqrt(r2));
        continue;
      }
      const right = this.links[3 * n + 2];
      if (right > 0) {
        stack.push(n + 1, right);
        continue;
      }
      for (let k = this.links[3 * n]; k < this.links[3 * n + 1]; k++)
        sum += solidAngle(this.mesh, this.order[k], x, y, z);
    }
    return sum / (4 * Math.PI);
  }

  /** Parts the triangles on the way down; what a cluster is seen as is summed up on the way back. */
  private build(from: number, to: number): number {
    const n = this.nodes++;
    this.links[3 * n] = from;
    this.links[3 * n + 1] = to;
    if (to - from <= LEAF) {
      this.summariseLeaf(n, from, to);
      return n;
    }
    let cut = this.partition(from, to);
    if (cut === from || cut === to) cut = (from + to) >> 1;
    this.build(from, cut);
    const right = this.build(cut, to);
    this.links[3 * n + 2] = right;
    this.summarise(n, n + 1, right);
    return n;
  }

  private summariseLeaf(n: number, from: number, to: number): void {
    const { data, order, centroid } = this;
    const { positions: p, triangles: t } = this.mesh;
    const d = WIDTH * n;
    const normal = new Float64Array(3);
    for (let k = from; k < to; k++) {
      const tri = order[k];
      areaNormal(p, t, tri, normal);
      // A hair more than it is: no cluster is without area.
      const area = Math.hypot(normal[0], normal[1], normal[2]) + 1e-12;
      data[d + AREA] += area;
      for (let a = 0; a < 3; a++) {
        data[d + DIPOLE + a] += normal[a];
        data[d + a] += centroid[3 * tri + a] * area;
      }
    }
    for (let a = 0; a < 3; a++) data[d + a] /= data[d + AREA];
    let radius2 = 0;
    for (let k = from; k < to; k++) {
      for (let c = 0; c < 3; c++) {
        const v = 3 * t[3 * order[k] + c];
        const x = p[v] - data[d];
        const y = p[v + 1] - data[d + 1];
        const z = p[v + 2] - data[d + 2];
        radius2 = Math.max(radius2, x * x + y * y + z * z);
      }
    }
    data[d + RADIUS] = Math.sqrt(radius2);
  }

  /** A cluster of two: its ball holds both of theirs. */
  private summarise(n: number, left: number, right: number): void {
    const { data } = this;
    const d = WIDTH * n;
    const [l, r] = [WIDTH * left, WIDTH * right];
    const area = data[l + AREA] + data[r + AREA];
    const share = data[r + AREA] / area;
    for (let a = 0; a < 3; a++) {
      data[d + a] = data[l + a] + share * (data[r + a] - data[l + a]);
      data[d + DIPOLE + a] = data[l + DIPOLE + a] + data[r + DIPOLE + a];
    }
    data[d + AREA] = area;
    const apart = Math.hypot(data[r] - data[l], data[r + 1] - data[l + 1], data[r + 2] - data[l + 2]);
    data[d + RADIUS] = Math.max(share * apart + data[l + RADIUS], (1 - share) * apart + data[r + RADIUS]);
  }

  /** Parts triangles across the middle of their longest side. @returns the first of the second half */
  private partition(from: number, to: number): number {
    const { centroid, order } = this;
    let [axis, middle, longest] = [0, 0, -1];
    for (let a = 0; a < 3; a++) {
      let low = Infinity;
      let high = -Infinity;
      for (let k = from; k < to; k++) {
        const c = centroid[3 * order[k] + a];
        if (c < low) low = c;
        if (c > high) high = c;
      }
      if (high - low > longest) [axis, middle, longest] = [a, (low + high) / 2, high - low];
    }
    let i = from;
    let j = to - 1;
    while (i <= j) {
      if (centroid[3 * order[i] + axis] < middle) i++;
      else {
        const swap = order[i];
        order[i] = order[j];
        order[j--] = swap;
      }
    }
    return i;
  }
}

/** A triangle's normal, as long as its area. */
function areaNormal(p: Float32Array, t: Uint32Array, k: number, out: Float64Array): void {
  const a = 3 * t[3 * k];
  const b = 3 * t[3 * k + 1];
  const c = 3 * t[3 * k + 2];
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  out[0] = (uy * vz - uz * vy) / 2;
  out[1] = (uz * vx - ux * vz) / 2;
  out[2] = (ux * vy - uy * vx) / 2;
}

/** Signed solid angle of a triangle (Van Oosterom and Strackee 1983). */
export function solidAngle(mesh: TriangleMesh, k: number, x: number, y: number, z: number): number {
  const { positions: p, triangles: t } = mesh;
  const i = 3 * t[3 * k],
    j = 3 * t[3 * k + 1],
    l = 3 * t[3 * k + 2];
  const ax = p[i] - x,
    ay = p[i + 1] - y,
    az = p[i + 2] - z;
  const bx = p[j] - x,
    by = p[j + 1] - y,
    bz = p[j + 2] - z;
  const cx = p[l] - x,
    cy = p[l + 1] - y,
    cz = p[l + 2] - z;
  const la = Math.sqrt(ax * ax + ay * ay + az * az),
    lb = Math.sqrt(bx * bx + by * by + bz * bz),
    lc = Math.sqrt(cx * cx + cy * cy + cz * cz);
  const det = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
  const dots =
    la * lb * lc +
    (ax * bx + ay * by + az * bz) * lc +
    (bx * cx + by * cy + bz * cz) * la +
    (cx * ax + cy * ay + cz * az) * lb;
  return 2 * Math.atan2(det, dots);
}
