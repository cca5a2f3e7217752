/**
 * Generalised winding number of a point, by a tree of dipoles (Barill et al., Fast winding numbers for soups and
 * clouds, 2018, first order). Robust where a scan has holes, flipped faces or self-crossings: inside is above a
 * half. Used for the few nodes on which the line votes disagree.
 */
import type { JobContext } from "../job/context.ts";
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
/** A cluster this many radii away is seen as one dipole. */
const FAR = 3;

export class WindingTree {
  /** Per tree node: centre xyz, radius, dipole xyz. */
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
    this.data = new Float64Array(bound * 7);
    this.links = new Int32Array(bound * 3);
    this.order = Uint32Array.from({ length: count }, (_, k) => k);
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
      const d = 7 * n;
      const rx = this.data[d] - x;
      const ry = this.data[d + 1] - y;
      const rz = this.data[d + 2] - z;
      const r2 = rx * rx + ry * ry + rz * rz;
      const reach = FAR * this.data[d + 3];
      if (r2 > reach * reach) {
        sum += (rx * this.data[d + 4] + ry * this.data[d + 5] + rz * this.data[d + 6]) / (r2 * Math.sqrt(r2));
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

  private build(from: number, to: number): number {
    const n = this.nodes++;
    this.links[3 * n] = from;
    this.links[3 * n + 1] = to;
    const { axis, middle } = this.summarise(n, from, to);
    if (to - from <= LEAF) return n;
    let cut = this.partition(from, to, axis, middle);
    if (cut === from || cut === to) cut = (from + to) >> 1;
    this.build(from, cut);
    this.links[3 * n + 2] = this.build(cut, to);
    return n;
  }

  private summarise(n: number, from: number, to: number): { axis: number; middle: number } {
    const { positions: p, triangles: t } = this.mesh;
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    const dipole = [0, 0, 0];
    const centre = [0, 0, 0];
    let weight = 0;
    for (let k = from; k < to; k++) {
      const tri = this.order[k];
      const normal = areaNormal(p, t, tri);
      const area = Math.hypot(normal[0], normal[1], normal[2]) + 1e-12;
      weight += area;
      for (let a = 0; a < 3; a++) {
        const c = this.centroid[3 * tri + a];
        dipole[a] += normal[a];
        centre[a] += c * area;
        if (c < low[a]) low[a] = c;
        if (c > high[a]) high[a] = c;
      }
    }
    let radius2 = 0;
    for (let a = 0; a < 3; a++) centre[a] /= weight;
    for (let k = from; k < to; k++) {
      for (let c = 0; c < 3; c++) {
        const v = 3 * t[3 * this.order[k] + c];
        radius2 = Math.max(
          radius2,
          (p[v] - centre[0]) ** 2 + (p[v + 1] - centre[1]) ** 2 + (p[v + 2] - centre[2]) ** 2,
        );
      }
    }
    this.data.set([...centre, Math.sqrt(radius2), ...dipole], 7 * n);
    const span = [0, 1, 2].map((a) => high[a] - low[a]);
    const axis = span.indexOf(Math.max(...span));
    return { axis, middle: (low[axis] + high[axis]) / 2 };
  }

  private partition(from: number, to: number, axis: number, middle: number): number {
    let i = from;
    let j = to - 1;
    while (i <= j) {
      if (this.centroid[3 * this.order[i] + axis] < middle) i++;
      else {
        const swap = this.order[i];
        this.order[i] = this.order[j];
        this.order[j--] = swap;
      }
    }
    return i;
  }
}

function areaNormal(p: Float32Array, t: Uint32Array, k: number): [number, number, number] {
  const a = 3 * t[3 * k],
    b = 3 * t[3 * k + 1],
    c = 3 * t[3 * k + 2];
  const ux = p[b] - p[a],
    uy = p[b + 1] - p[a + 1],
    uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a],
    vy = p[c + 1] - p[a + 1],
    vz = p[c + 2] - p[a + 2];
  return [(uy * vz - uz * vy) / 2, (uz * vx - ux * vz) / 2, (ux * vy - uy * vx) / 2];
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
