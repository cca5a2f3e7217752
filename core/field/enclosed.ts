/**
 * Parts of a piece that lie inside it: inner skins of hollow scans, cores, what was left behind when a figure was put
 * together. The piece is what the outside of all parts encloses; what is inside is left out.
 */
import type { JobContext } from "../job/context.ts";
import { labelParts } from "../mesh/adjacency.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";
import { windingNumbers } from "./winding.ts";

/** Vertices of a part that are looked at. */
const SAMPLES = 200;
/** A part thinner than this, by its volume over half its area, is a sheet, mm. */
const THIN_MM = 0.05;
/** More parts than this are not looked at one by one. */
const MOST_PARTS = 60;

export interface Outside {
  readonly mesh: TriangleMesh;
  /** Parts left out since they lie inside the others. */
  readonly inner: number;
  /** Parts that run into others: what they share counts once. */
  readonly overlapping: number;
  /** Parts left out since they have no thickness: sheets that enclose nothing. */
  readonly thin: number;
}

/** @param mesh of closed parts that face outwards, each by itself */
export function outsideOfParts(mesh: TriangleMesh, ctx: JobContext): Outside {
  const { part, parts } = labelParts(mesh);
  if (parts === 1 || parts > MOST_PARTS) return { mesh, inner: 0, overlapping: 0, thin: 0 };
  const { positions: p, triangles: t } = mesh;
  const corners = Array.from({ length: parts }, () => [] as number[]);
  for (let k = 0; k < part.length; k++) corners[part[k]].push(t[3 * k], t[3 * k + 1], t[3 * k + 2]);
  const dropped = new Set<number>();
  const isThin = corners.map((own) => {
    const { areaMm2, volumeMm3 } = areaAndVolume({ positions: p, triangles: Uint32Array.from(own) });
    return Math.abs(volumeMm3) < (THIN_MM * areaMm2) / 2;
  });
  if (isThin.includes(false)) for (const [k, thin] of isThin.entries()) if (thin) dropped.add(k);
  const thin = dropped.size;
  let overlapping = 0;
  for (let k = 0; k < parts; k++) {
    ctx.checkCancelled();
    if (dropped.has(k)) continue;
    const own = corners[k];
    const points = Float64Array.from({ length: 3 * SAMPLES }, (_, n) => {
      const corner = own[Math.floor((Math.floor(n / 3) * own.length) / SAMPLES)];
      return p[3 * corner + (n % 3)];
    });
    const others = corners.flatMap((list, other) => (other === k || dropped.has(other) ? [] : list));
    if (others.length === 0) continue;
    const rest = dropUnusedVertices({ positions: p, triangles: Uint32Array.from(others) });
    const inside = windingNumbers(rest, points, ctx).filter((winding) => winding > 0.5).length;
    if (inside === SAMPLES) dropped.add(k);
    else if (inside > 0) overlapping++;
  }
  if (dropped.size === 0) return { mesh, inner: 0, overlapping, thin };
  const kept = corners.flatMap((list, k) => (dropped.has(k) ? [] : list));
  return {
    mesh: dropUnusedVertices({ positions: p, triangles: Uint32Array.from(kept) }),
    inner: dropped.size - thin,
    overlapping,
    thin,
  };
}
