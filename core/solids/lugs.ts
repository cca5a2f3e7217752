/**
 * Lugs that a heavy section is lifted by: two loops built into its shell, over its centre of mass and to either side of it, so
 * that it hangs level. Of all pairs of places the one farthest apart whose middle line passes over the centre.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";

type Xyz = readonly [number, number, number];

export interface Lugs {
  readonly at: readonly [Xyz, Xyz];
  /** How far its centre of mass lies off the line between them, seen from above, mm. */
  readonly offMm: number;
}

/** Places that pairs are made of. */
const PLACES = 140;
/** So far off its edges, mm. */
const EDGE_MM = 60;
/** A pair may be so much shorter for each mm that it passes nearer to the centre. */
const OFF_WORTH = 3;

/**
 * @param skin the section's inner face
 * @param clear of its edges, xyz per point each
 * @param centreMm its centre of mass
 * @returns null where it has no room for two above its centre of mass
 */
export function lugsFor(skin: TriangleMesh, clear: readonly ArrayLike<number>[], centreMm: Xyz): Lugs | null {
  const p = skin.positions;
  const able: Xyz[] = [];
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / 2000));
  for (let v = 0; v + 2 < p.length; v += every) {
    const at: Xyz = [p[v], p[v + 1], p[v + 2]];
    if (at[2] > centreMm[2] && clear.every((points) => isClear(points, at))) able.push(at);
  }
  const places = able.filter((_, k) => k % Math.max(1, Math.floor(able.length / PLACES)) === 0);
  let best: Lugs | null = null;
  let most = 0;
  places.forEach((a, k) => {
    for (const b of places.slice(k + 1)) {
      const [x, y] = [b[0] - a[0], b[1] - a[1]];
      const apart = Math.hypot(x, y);
      if (apart < 2 * EDGE_MM) continue;
      const [cx, cy] = [centreMm[0] - a[0], centreMm[1] - a[1]];
      const along = (cx * x + cy * y) / apart;
      if (along < 0.25 * apart || along > 0.75 * apart) continue;
      const offMm = Math.abs(cx * y - cy * x) / apart;
      const worth = apart - OFF_WORTH * offMm - Math.abs(a[2] - b[2]);
      if (worth <= most) continue;
      most = worth;
      best = { at: [a, b], offMm };
    }
  });
  return best;
}

function isClear(points: ArrayLike<number>, [x, y, z]: Xyz): boolean {
  for (let k = 0; k < points.length; k += 3)
    if ((points[k] - x) ** 2 + (points[k + 1] - y) ** 2 + (points[k + 2] - z) ** 2 < EDGE_MM ** 2) return false;
  return true;
}
