/**
 * A route for the jacket's seam: along the surface where it is least seen, clear of the zones to keep clear, and short.
 * A cheapest path (see `ways.ts`) by a price per mm that rises towards the front and where a zone is; of several
 * bearings the cheapest is taken.
 */
import type { SeamKind } from "../../jacket/seam.ts";
import { type Dabs, withinZone } from "../../survey/zones.ts";
import { tenths } from "./layout.ts";
import { type Surface, vertexAt } from "./surface.ts";
import { pricedPath } from "./ways.ts";

/** How much dearer a mm is that faces the front than one that faces back: everyone looks at the front. */
const SEEN = 3;
const IN_ZONE = 12;
const BEARINGS = 16;

export interface RouteRequest {
  readonly kind: Exclude<SeamKind, "none">;
  /** How far up a slit has to reach, mm. */
  readonly slitMm: number;
  readonly keepClear: Dabs;
  /** How far the surface lies over the piece. */
  readonly overMm: number;
}

/** @returns xyz per point from the foot up (and, for two parts, over the top and down again) */
export function seamRoute(surface: Surface, { kind, slitMm, keepClear, overMm }: RouteRequest): number[] {
  const { mesh, normals, nearest } = surface;
  const p = mesh.positions;
  const within = withinZone(keepClear, p, normals, overMm);
  const price = Float64Array.from(within, (zone, v) => 1 + SEEN * Math.max(0, -normals[3 * v + 1]) + IN_ZONE * zone);
  const { low, high, middle, reach } = extentOf(p);
  const top = highestVertex(p);
  /** The place of the surface that way out from the middle at a height. */
  const placeAt = (bearing: number, z: number): [number, number, number] => {
    const [x, y] = [middle[0] + reach * Math.sin(bearing), middle[1] - reach * Math.cos(bearing)];
    const place = new Float64Array(3);
    nearest.nearest(place, x, y, z);
    return [place[0], place[1], place[2]];
  };
  let best: { points: number[]; cost: number } | null = null;
  for (let k = 0; k < BEARINGS; k++) {
    const bearing = (2 * Math.PI * k) / BEARINGS;
    const foot = placeAt(bearing, low);
    const legs =
      kind === "slit"
        ? [pricedPath(surface, foot, placeAt(bearing, Math.min(high, low + slitMm)), price)]
        : [
            pricedPath(surface, foot, [p[3 * top], p[3 * top + 1], p[3 * top + 2]], price),
            pricedPath(surface, [p[3 * top], p[3 * top + 1], p[3 * top + 2]], placeAt(bearing + Math.PI, low), price),
          ];
    const points = legs.flatMap((leg, n) => Array.from(n === 0 ? leg : leg.subarray(3), tenths));
    const cost = paidFor(surface, points, price);
    if (!best || cost < best.cost) best = { points, cost };
  }
  return best?.points ?? [];
}

function paidFor(surface: Surface, p: readonly number[], price: Float64Array): number {
  let sum = 0;
  for (let k = 3; k < p.length; k += 3) {
    const mm = Math.hypot(p[k] - p[k - 3], p[k + 1] - p[k - 2], p[k + 2] - p[k - 1]);
    sum += mm * price[vertexAt(surface, p[k], p[k + 1], p[k + 2])];
  }
  return sum;
}

function extentOf(p: Float32Array) {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < p.length; k++) {
    min[k % 3] = Math.min(min[k % 3], p[k]);
    max[k % 3] = Math.max(max[k % 3], p[k]);
  }
  const middle = min.map((m, a) => (m + max[a]) / 2);
  return { low: min[2], high: max[2], middle, reach: Math.max(max[0] - min[0], max[1] - min[1]) };
}

function highestVertex(p: Float32Array): number {
  let top = 0;
  for (let v = 1; v < p.length / 3; v++) if (p[3 * v + 2] > p[3 * top + 2]) top = v;
  return top;
}
