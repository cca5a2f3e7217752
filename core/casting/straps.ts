/**
 * Straps round a closed mould where sections are not bolted. A strap that goes all round holds with both its sides:
 *
 *   straps = force / (2 load)
 *
 * and there are never fewer than two. A liquid pushes the more the deeper it is, so that they lie closer to each other low down:
 * each at the middle of an equal share of the load, at depths of D sqrt((k - 1/2) / n) under the liquid's level.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { hullOf } from "./hull.ts";
import type { PourPosition } from "./settings.ts";

export interface Strap {
  /** Over the board as the piece stands, mm. */
  readonly heightMm: number;
  /** To buy: round the mould, and what the buckle takes, mm. */
  readonly lengthMm: number;
  /** Where it lies, xyz per point, closed. */
  readonly ring: Float32Array;
}

export interface StrapsRequest {
  /** The jacket's outside. */
  readonly mesh: TriangleMesh;
  readonly shellMm: number;
  /** The outer edges of the flanges, xyz each. */
  readonly edges: readonly ArrayLike<number>[];
  /** What parts the sections that are strapped: the greatest of them, N. */
  readonly forceN: number;
  /** What one strap is let bear, N. */
  readonly loadN: number;
  /** How deep the liquid stands, mm. */
  readonly depthMm: number;
  readonly position: PourPosition;
}

const LEAST_STRAPS = 2;
/** What the buckle takes, mm. */
const BUCKLE_MM = 400;
/** A strap is so wide, and lies on what stands out within it, mm. */
const WIDE_MM = 40;
/** No strap lies nearer to the mould's ends, as a share of its height. */
const ENDS_SHARE = 0.06;

export function strapsRound({ mesh, shellMm, edges, forceN, loadN, depthMm, position }: StrapsRequest): Strap[] {
  const { normals } = vertexNormals(mesh);
  const p = mesh.positions;
  const places: [number, number, number][] = [];
  for (let v = 0; v < p.length; v += 3)
    places.push([
      p[v] + shellMm * normals[v],
      p[v + 1] + shellMm * normals[v + 1],
      p[v + 2] + shellMm * normals[v + 2],
    ]);
  for (const edge of edges) for (let k = 0; k < edge.length; k += 3) places.push([edge[k], edge[k + 1], edge[k + 2]]);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const [, , z] of places) {
    low = Math.min(low, z);
    high = Math.max(high, z);
  }
  const count = Math.max(LEAST_STRAPS, Math.ceil(forceN / (2 * loadN)));
  const [least, most] = [low + ENDS_SHARE * (high - low), high - ENDS_SHARE * (high - low)];
  return Array.from({ length: count }, (_, k): Strap => {
    const down = depthMm * Math.sqrt((k + 0.5) / count);
    // Filled foot up, the deepest of the liquid is the top of the piece.
    const wanted = position === "as-it-stands" ? low + depthMm - down : high - depthMm + down;
    const at = Math.min(most, Math.max(least, wanted));
    const near = places.filter(([, , z]) => Math.abs(z - at) <= WIDE_MM / 2 + shellMm);
    const hull = hullOf(near.map(([x, y]) => ({ x, y })));
    const ring = Float32Array.from(hull.flatMap(({ x, y }) => [x, y, at]));
    return { heightMm: at, lengthMm: perimeterMm(hull) + BUCKLE_MM, ring };
  }).sort((a, b) => a.heightMm - b.heightMm);
}

/** Round a hull, mm. */
function perimeterMm(hull: readonly { readonly x: number; readonly y: number }[]): number {
  return hull.reduce((sum, a, k) => {
    const b = hull[(k + 1) % hull.length];
    return sum + Math.hypot(b.x - a.x, b.y - a.y);
  }, 0);
}
