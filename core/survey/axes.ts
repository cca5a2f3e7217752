/**
 * A body's own axes: the directions its form suggests as pulls, which an even set of directions only comes near. Where
 * walls run straight, a pull a few degrees off them locks all of them.
 *
 * They are the principal axes of its surface, by place and by facing (Jacobi's rotations), and the facings that much of
 * the surface shares (mean shift on the sphere of normals: Fukunaga and Hostetler 1975).
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Direction, dot, normalised } from "../space/directions.ts";

/** The commonest facings are looked at. */
const SEEDS = 60;
/** Cubes that directions are gathered in, to a unit. */
const BINS_PER_UNIT = 16;
/** A facing counts with those this near, degrees. */
const WITHIN_DEG = 6;
/** Share of the surface that makes a facing one of the body's own. */
const LEAST_SHARE = 0.03;
const MOST_FACINGS = 6;
/** Axes nearer than this are one, degrees. */
const APART_DEG = 1;
/** A level axis is told as level when it is this near, as a cosine. */
const LEVEL = 0.01;

/** Axes without sign, each once: at most 6 principal ones and `MOST_FACINGS` shared facings. */
export function bodyAxes(mesh: TriangleMesh): Direction[] {
  const { normals, middles, areasMm2 } = facets(mesh);
  const found = [
    ...eigenvectors(spread(normals, areasMm2, [0, 0, 0])),
    ...eigenvectors(spread(middles, areasMm2, centroid(middles, areasMm2))),
    ...sharedFacings(normals, areasMm2),
  ];
  const near = Math.cos((APART_DEG * Math.PI) / 180);
  const axes: Direction[] = [];
  for (const axis of found.map(level)) if (axes.every((other) => Math.abs(dot(axis, other)) < near)) axes.push(axis);
  return axes;
}

/** Normal, middle and area of every triangle. */
function facets(mesh: TriangleMesh) {
  const { positions: p, triangles: t } = mesh;
  const normals = new Float32Array(t.length);
  const middles = new Float32Array(t.length);
  const areasMm2 = new Float32Array(t.length / 3);
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [3 * t[k], 3 * t[k + 1], 3 * t[k + 2]];
    const u = [0, 1, 2].map((x) => p[b + x] - p[a + x]);
    const v = [0, 1, 2].map((x) => p[c + x] - p[a + x]);
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
    areasMm2[k / 3] = length / 2;
    for (let x = 0; x < 3; x++) {
      normals[k + x] = length > 0 ? n[x] / length : 0;
      middles[k + x] = (p[a + x] + p[b + x] + p[c + x]) / 3;
    }
  }
  return { normals, middles, areasMm2 };
}

function level(axis: Direction): Direction {
  return Math.abs(axis[2]) < LEVEL ? normalised([axis[0], axis[1], 0]) : axis;
}

/** The weighted middle of points, xyz each. */
export function centroid(points: Float32Array, weights: Float32Array): number[] {
  const sum = [0, 0, 0];
  let total = 0;
  for (let v = 0; v < weights.length; v++) {
    total += weights[v];
    for (let a = 0; a < 3; a++) sum[a] += weights[v] * points[3 * v + a];
  }
  return sum.map((value) => value / (total || 1));
}

/** Weighted second moments about a centre: a symmetric 3 x 3 matrix by rows. */
export function spread(points: Float32Array, weights: Float32Array, about: readonly number[]): number[] {
  const m = new Array<number>(9).fill(0);
  for (let v = 0; v < weights.length; v++) {
    for (let a = 0; a < 3; a++) {
      for (let b = 0; b < 3; b++) {
        m[3 * a + b] += weights[v] * (points[3 * v + a] - about[a]) * (points[3 * v + b] - about[b]);
      }
    }
  }
  return m;
}

/** Eigenvectors of a symmetric 3 x 3 matrix, by Jacobi's rotations. */
export function eigenvectors(matrix: readonly number[]): Direction[] {
  const m = [...matrix];
  const e = [1, 0, 0, 0, 1, 0, 0, 0, 1];
  for (let sweep = 0; sweep < 24; sweep++) {
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ]) {
      if (Math.abs(m[3 * p + q]) < 1e-14 * (Math.abs(m[4 * p]) + Math.abs(m[4 * q]))) continue;
      const angle = 0.5 * Math.atan2(2 * m[3 * p + q], m[4 * q] - m[4 * p]);
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      for (let k = 0; k < 3; k++) turn(m, 3 * k + p, 3 * k + q, c, s);
      for (let k = 0; k < 3; k++) turn(m, 3 * p + k, 3 * q + k, c, s);
      for (let k = 0; k < 3; k++) turn(e, 3 * k + p, 3 * k + q, c, s);
    }
  }
  return [0, 1, 2].map((k) => normalised([e[k], e[3 + k], e[6 + k]]));
}

function turn(m: number[], i: number, j: number, c: number, s: number): void {
  const [x, y] = [m[i], m[j]];
  m[i] = c * x - s * y;
  m[j] = s * x + c * y;
}

function sharedFacings(normals: Float32Array, areasMm2: Float32Array): Direction[] {
  const total = areasMm2.reduce((sum, area) => sum + area, 0);
  const binned = bins(normals, areasMm2);
  const seeds = [...binned.areasMm2.keys()].sort((a, b) => binned.areasMm2[b] - binned.areasMm2[a]).slice(0, SEEDS);
  const facings = seeds
    .map((k) => binned.normals.subarray(3 * k, 3 * k + 3))
    .map(([x, y, z]) => meanFacing(binned.normals, binned.areasMm2, normalised([x, y, z])))
    .filter(({ areaMm2 }) => areaMm2 > LEAST_SHARE * total)
    .sort((a, b) => b.areaMm2 - a.areaMm2);
  const near = Math.cos((2 * WITHIN_DEG * Math.PI) / 180);
  const found: Direction[] = [];
  for (const { facing } of facings) {
    if (found.length === MOST_FACINGS) break;
    const settled = settle(binned.normals, binned.areasMm2, facing);
    if (found.every((other) => Math.abs(dot(settled, other)) < near)) found.push(settled);
  }
  return found;
}

/** The normals gathered in small cubes of directions: their mean and area. */
function bins(normals: Float32Array, areasMm2: Float32Array): { normals: Float32Array; areasMm2: Float32Array } {
  const cube = (value: number) => Math.floor((value + 1) * BINS_PER_UNIT);
  const sums = new Map<number, [number, number, number, number]>();
  for (let k = 0; k < areasMm2.length; k++) {
    const [x, y, z] = normals.subarray(3 * k, 3 * k + 3);
    const key = cube(x) + 64 * (cube(y) + 64 * cube(z));
    const sum = sums.get(key) ?? [0, 0, 0, 0];
    sums.set(key, sum);
    sum[0] += areasMm2[k] * x;
    sum[1] += areasMm2[k] * y;
    sum[2] += areasMm2[k] * z;
    sum[3] += areasMm2[k];
  }
  const held = [...sums.values()].filter((sum) => sum[3] > 0);
  return {
    normals: Float32Array.from(held.flatMap(([x, y, z]) => [...normalised([x, y, z])])),
    areasMm2: Float32Array.from(held, (sum) => sum[3]),
  };
}

function settle(normals: Float32Array, areasMm2: Float32Array, from: Direction): Direction {
  let at = from;
  for (let round = 0; round < 8; round++) at = meanFacing(normals, areasMm2, at).facing;
  return at;
}

/** The mean normal of the surface that faces about a direction, and its area. */
function meanFacing(normals: Float32Array, areasMm2: Float32Array, about: Direction) {
  const within = Math.cos((WITHIN_DEG * Math.PI) / 180);
  let [x, y, z, areaMm2] = [0, 0, 0, 0];
  for (let v = 0; v < areasMm2.length; v++) {
    const [nx, ny, nz] = [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]];
    if (nx * about[0] + ny * about[1] + nz * about[2] < within) continue;
    x += areasMm2[v] * nx;
    y += areasMm2[v] * ny;
    z += areasMm2[v] * nz;
    areaMm2 += areasMm2[v];
  }
  return { areaMm2, facing: areaMm2 > 0 ? normalised([x, y, z]) : about };
}

/** The directions with the body's own axes, both ways. */
export function withBodyAxes(directions: readonly Direction[], axes: readonly Direction[]): Direction[] {
  const out = [...directions];
  for (const axis of axes) {
    for (const sign of [1, -1]) {
      const d: Direction = [sign * axis[0], sign * axis[1], sign * axis[2]];
      if (out.every((other) => dot(other, d) < 1 - 1e-7)) out.push(d);
    }
  }
  return out;
}
