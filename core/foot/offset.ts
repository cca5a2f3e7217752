/**
 * Rings drawn at a distance outside others: the distance from the nearest of their edges on a raster, and its level lines by
 * marching squares (Maple 2003). Level lines of a distance never cross themselves, however hollow the ring.
 */
import { contours } from "d3-contour";
import { EdgeBuckets, type NearestEdge, type Place, type Ring } from "./edgeBuckets.ts";

export type { Place, Ring } from "./edgeBuckets.ts";

/** A raster's cells, mm at least; a large footprint is told to so many cells of its larger side. */
const LEAST_CELL_MM = 3;
const CELLS = 260;

export interface Raster {
  readonly cellMm: number;
  readonly size: readonly [number, number];
  /** The middle of the first cell, mm. */
  readonly origin: Place;
}

/** A raster over rings and so far beyond them. */
export function rasterOver(rings: readonly Ring[], beyondMm: number): Raster {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const ring of rings) {
    for (const [x, y] of ring) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
  }
  const [wide, deep] = [right - left + 2 * beyondMm, high - low + 2 * beyondMm];
  const cellMm = Math.max(LEAST_CELL_MM, Math.max(wide, deep) / CELLS);
  // Two cells round it: every level line closes.
  const size = [Math.ceil(wide / cellMm) + 5, Math.ceil(deep / cellMm) + 5] as const;
  return { cellMm, size, origin: [left - beyondMm - 2 * cellMm, low - beyondMm - 2 * cellMm] };
}

export function placeOf({ cellMm, size, origin }: Raster, n: number): Place {
  return [origin[0] + (n % size[0]) * cellMm, origin[1] + Math.floor(n / size[0]) * cellMm];
}

/** Where values lie above zero: outer rings against the clock, holes with it. */
export function ringsAbove({ cellMm, size, origin }: Raster, values: ArrayLike<number>): Place[][] {
  const [found] = contours().size([size[0], size[1]]).thresholds([0])(Array.from(values));
  return found.coordinates.flatMap((polygon) =>
    // The first point comes again at the end; a cell's middle lies at half.
    polygon.map((ring) =>
      ring
        .slice(0, -1)
        .reverse()
        .map(([i, j]): Place => [origin[0] + (i - 0.5) * cellMm, origin[1] + (j - 0.5) * cellMm]),
    ),
  );
}

/** Distances about some rings, on a raster, with the edge that each is measured from. */
export interface Surroundings {
  readonly raster: Raster;
  readonly reachMm: number;
  readonly nearest: readonly NearestEdge[];
}

/** Measured before, by the rings: a foot, its rim and its bolts ask for the same. */
const measuredBefore = new WeakMap<readonly Ring[], Surroundings>();

const SPARE_MM = 15;

/** @param reachMm how far beyond the rings, mm */
export function surroundingsOf(rings: readonly Ring[], reachMm: number): Surroundings {
  const held = measuredBefore.get(rings);
  if (held && held.reachMm >= reachMm) return held;
  // Whoever asks next asks for a little more.
  const wideMm = reachMm + SPARE_MM;
  const raster = rasterOver(rings, wideMm);
  const count = raster.size[0] * raster.size[1];
  const edges = new EdgeBuckets(rings);
  const nearest: NearestEdge[] = [];
  // The edge nearest to one place is near to the next.
  for (let n = 0; n < count; n++) nearest.push(edges.nearest(placeOf(raster, n), nearest.at(-1)?.edge));
  const made = { raster, reachMm: wideMm, nearest };
  measuredBefore.set(rings, made);
  return made;
}

/** Rings so far outside others, mm; where two grow together they are one. */
export function ringsOutside(rings: readonly Ring[], byMm: number): Place[][] {
  if (rings.length === 0) return [];
  const { raster, nearest } = surroundingsOf(rings, byMm);
  return ringsAbove(
    raster,
    nearest.map(({ mm }) => byMm - mm),
  );
}

export function lengthOf(ring: Ring): number {
  return ring.reduce((sum, [x, y], k) => {
    const [px, py] = ring[(k + 1) % ring.length];
    return sum + Math.hypot(px - x, py - y);
  }, 0);
}

/** Above 0 against the clock, mm2. */
export function areaOf(ring: Ring): number {
  return ring.reduce((sum, [x, y], k) => {
    const [px, py] = ring[(k + 1) % ring.length];
    return sum + (x * py - px * y) / 2;
  }, 0);
}
