import type { TriangleMesh } from "./mesh.ts";

/**
 * Closest point of triangle `t` to (x, y, z), by Voronoi region (Ericson, Real-Time Collision Detection, 5.1.5).
 * @param out receives the point (3)
 * @returns squared distance
 */
export function closestPointOnTriangle(
  out: Float64Array,
  mesh: TriangleMesh,
  t: number,
  x: number,
  y: number,
  z: number,
): number {
  const p = mesh.positions;
  const a = 3 * mesh.triangles[3 * t];
  const b = 3 * mesh.triangles[3 * t + 1];
  const c = 3 * mesh.triangles[3 * t + 2];
  const ax = p[a],
    ay = p[a + 1],
    az = p[a + 2];
  const abx = p[b] - ax,
    aby = p[b + 1] - ay,
    abz = p[b + 2] - az;
  const acx = p[c] - ax,
    acy = p[c + 1] - ay,
    acz = p[c + 2] - az;
  const apx = x - ax,
    apy = y - ay,
    apz = z - az;
  const d1 = abx * apx + aby * apy + abz * apz;
  const d2 = acx * apx + acy * apy + acz * apz;
  let v = 0;
  let w = 0;
  if (d1 > 0 || d2 > 0) {
    const bb = abx * abx + aby * aby + abz * abz;
    const cc = acx * acx + acy * acy + acz * acz;
    const bc = abx * acx + aby * acy + abz * acz;
    const d3 = d1 - bb;
    const d4 = d2 - bc;
    const d5 = d1 - bc;
    const d6 = d2 - cc;
    const vc = d1 * d4 - d3 * d2;
    const vb = d5 * d2 - d1 * d6;
    const va = d3 * d6 - d5 * d4;
    if (d3 >= 0 && d4 <= d3) v = 1;
    else if (vc <= 0 && d1 >= 0 && d3 <= 0) v = d1 / (d1 - d3 || 1);
    else if (d6 >= 0 && d5 <= d6) w = 1;
    else if (vb <= 0 && d2 >= 0 && d6 <= 0) w = d2 / (d2 - d6 || 1);
    else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
      w = (d4 - d3) / (d4 - d3 + (d5 - d6) || 1);
      v = 1 - w;
    } else {
      // A needle without area has no inside: its longer side from the first corner stands for it.
      const area = va + vb + vc;
      if (area > 1e-12 * bb * cc) {
        v = vb / area;
        w = vc / area;
      } else if (bb >= cc) v = Math.min(1, Math.max(0, d1 / (bb || 1)));
      else w = Math.min(1, Math.max(0, d2 / cc));
    }
  }
  const qx = ax + abx * v + acx * w;
  const qy = ay + aby * v + acy * w;
  const qz = az + abz * v + acz * w;
  out[0] = qx;
  out[1] = qy;
  out[2] = qz;
  return (x - qx) * (x - qx) + (y - qy) * (y - qy) + (z - qz) * (z - qz);
}

/**
 * Walks from triangle `start` over edges, and round vertices, as long as the distance to (x, y, z) falls: from a good
 * seed this ends on the closest triangle after a few steps.
 * @param across adjacency, see `Adjacency.across`
 * @param best receives the closest point
 * @returns the triangle the walk ended on
 */
export function walkToClosest(
  best: Float64Array,
  mesh: TriangleMesh,
  across: Int32Array,
  start: number,
  x: number,
  y: number,
  z: number,
): number {
  let at = start;
  let from = -1;
  let distance2 = closestPointOnTriangle(best, mesh, at, x, y, z);
  for (let steps = 0; steps < 64; steps++) {
    let next = -1;
    for (let e = 3 * at; e < 3 * at + 3; e++) {
      const mate = across[e];
      if (mate < 0) continue;
      const other = (mate / 3) | 0;
      if (other === from) continue;
      const d2 = closestPointOnTriangle(trial, mesh, other, x, y, z);
      if (d2 < distance2) {
        distance2 = d2;
        next = other;
        best.set(trial);
      }
    }
    if (next < 0) {
      // Stuck at a corner, the way down may lead across it: look once round its fan.
      next = betterInFan(best, mesh, across, at, distance2, x, y, z);
      if (next < 0) break;
      distance2 = (x - best[0]) ** 2 + (y - best[1]) ** 2 + (z - best[2]) ** 2;
    }
    from = at;
    at = next;
  }
  return at;
}

/** Triangles about a corner that are looked at, at most: a pole of a lathe has hundreds. */
const LARGEST_FAN = 2000;

/** A triangle round the corner `best` lies on that is nearer, or -1; `best` then receives its point. */
function betterInFan(
  best: Float64Array,
  mesh: TriangleMesh,
  across: Int32Array,
  t: number,
  distance2: number,
  x: number,
  y: number,
  z: number,
): number {
  const { positions: p, triangles } = mesh;
  for (let c = 0; c < 3; c++) {
    const v = 3 * triangles[3 * t + c];
    if (Math.abs(p[v] - best[0]) + Math.abs(p[v + 1] - best[1]) + Math.abs(p[v + 2] - best[2]) > 1e-6) continue;
    let edge = 3 * t + c;
    for (let spins = 0; spins < LARGEST_FAN; spins++) {
      const mate = across[edge];
      if (mate < 0) break;
      const other = (mate / 3) | 0;
      if (other === t) break;
      if (closestPointOnTriangle(trial, mesh, other, x, y, z) < distance2 - 1e-9) {
        best.set(trial);
        return other;
      }
      // The edge of `other` that leaves the same corner on its far side.
      edge = triangles[mate] === v / 3 ? (mate % 3 === 0 ? mate + 2 : mate - 1) : mate % 3 === 2 ? mate - 2 : mate + 1;
    }
  }
  return -1;
}

const trial = new Float64Array(3);
