/**
 * Parts of a piece that lie inside it: inner skins of hollow scans, cores, what was left behind when a figure was put
 * together. The piece is what the outside of all parts encloses; what is inside is left out.
 */
import type { JobContext } from "../job/context.ts";
import { labelParts } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";
import { windingNumbers } from "./winding.ts";

/** Vertices of a part that are looked at. */
const SAMPLES = 200;
/** More parts than this are not looked at one by one. */
const MOST_PARTS = 60;

export interface Outside {
  readonly mesh: TriangleMesh;
  /** Parts left out since they lie inside the others. */
  readonly inner: number;
  /** Parts that run into others: what they share counts once. */
  readonly overlapping: number;
}

/** @param mesh of closed parts that face outwards, each by itself */
export function outsideOfParts(mesh: TriangleMesh, ctx: JobContext): Outside {
  const { part, parts } = labelParts(mesh);
  if (parts === 1 || parts > MOST_PARTS) return { mesh, inner: 0, overlapping: 0 };
  const { positions: p, triangles: t } = mesh;
  const corners = Array.from({ length: parts }, () => [] as number[]);
  for (let k = 0; k < part.length; k++) corners[part[k]].push(t[3 * k], t[3 * k + 1], t[3 * k + 2]);
  const dropped = new Set<number>();
  let overlapping = 0;
  for (let k = 0; k < parts; k++) {
    ctx.checkCancelled();
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
  if (dropped.size === 0) return { mesh, inner: 0, overlapping };
  const kept = corners.flatMap((list, k) => (dropped.has(k) ? [] : list));
  return {
    mesh: dropUnusedVertices({ positions: p, triangles: Uint32Array.from(kept) }),
    inner: dropped.size,
    overlapping,
  };
}
