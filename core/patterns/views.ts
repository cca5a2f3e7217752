/** What is seen of a body from one side: its outline, and where lines and places on it lie in that view. */
import { contours } from "d3-contour";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Point } from "./drawing.ts";

export const SIDES = ["front", "right", "above"] as const;
/** From the front, from the piece's side on the right of that, and from above. */
export type Side = (typeof SIDES)[number];

/** Which axes run to the right and up in a view. */
const AXES: Readonly<Record<Side, readonly [number, number]>> = { front: [0, 2], right: [1, 2], above: [0, 1] };

/** A place in a view, mm. */
export function seenFrom(side: Side, at: ArrayLike<number>, offset = 0): Point {
  const [right, up] = AXES[side];
  return [at[offset + right], at[offset + up]];
}

/** The outline is told to so many parts of the body's larger side. */
const CELLS = 360;
/** Empty cells round it, so that outlines close. */
const ROUND = 2;

export interface Outline {
  /** Rings, each closed; holes among them. */
  readonly rings: readonly (readonly Point[])[];
  readonly min: Point;
  readonly max: Point;
}

/** The outline of a body by what its triangles cover of a raster (marching squares: Maple 2003). */
export function outlineOf({ positions: p, triangles: t }: TriangleMesh, side: Side): Outline {
  const points = Array.from({ length: p.length / 3 }, (_, v) => seenFrom(side, p, 3 * v));
  const [min, max] = boxOf(points);
  const cellMm = Math.max(max[0] - min[0], max[1] - min[1], 1e-6) / CELLS;
  const size = [0, 1].map((a) => Math.ceil((max[a] - min[a]) / cellMm) + 2 * ROUND) as [number, number];
  const covered = new Float64Array(size[0] * size[1]);
  const cells = points.map(([x, y]): Point => [(x - min[0]) / cellMm + ROUND, (y - min[1]) / cellMm + ROUND]);
  for (let k = 0; k < t.length; k += 3) cover(covered, size, cells[t[k]], cells[t[k + 1]], cells[t[k + 2]]);
  const [found] = contours().size(size).thresholds([0.5])(Array.from(covered));
  const rings = found.coordinates.flatMap((polygon) =>
    polygon.map((ring) =>
      withoutSteps(ring.map(([i, j]): Point => [min[0] + (i - ROUND) * cellMm, min[1] + (j - ROUND) * cellMm])),
    ),
  );
  return { rings, min, max };
}

/** Times a ring's points are averaged with their neighbours: the steps of the raster go, the outline stays. */
const ROUNDS = 3;

function withoutSteps(ring: readonly Point[]): Point[] {
  // The first point comes again at the end.
  let points = ring.slice(0, -1);
  const count = points.length;
  for (let round = 0; round < ROUNDS && count > 8; round++) {
    points = points.map(([x, y], k): Point => {
      const [a, b] = [points[(k + count - 1) % count], points[(k + 1) % count]];
      return [x / 2 + (a[0] + b[0]) / 4, y / 2 + (a[1] + b[1]) / 4];
    });
  }
  return points;
}

export function boxOf(points: readonly Point[]): [Point, Point] {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    left = Math.min(left, x);
    right = Math.max(right, x);
    low = Math.min(low, y);
    high = Math.max(high, y);
  }
  return [
    [left, low],
    [right, high],
  ];
}

/** Marks the cells whose middles a triangle covers, and those its corners are in. */
function cover(covered: Float64Array, [nx, ny]: readonly [number, number], a: Point, b: Point, c: Point): void {
  for (const [x, y] of [a, b, c]) covered[Math.min(nx - 1, Math.floor(x)) + nx * Math.min(ny - 1, Math.floor(y))] = 1;
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  if (Math.abs(area) < 1e-9) return;
  const [iFrom, iTo] = [Math.floor(Math.min(a[0], b[0], c[0])), Math.floor(Math.max(a[0], b[0], c[0]))];
  const [jFrom, jTo] = [Math.floor(Math.min(a[1], b[1], c[1])), Math.floor(Math.max(a[1], b[1], c[1]))];
  for (let j = Math.max(0, jFrom); j <= Math.min(ny - 1, jTo); j++) {
    for (let i = Math.max(0, iFrom); i <= Math.min(nx - 1, iTo); i++) {
      const [x, y] = [i + 0.5, j + 0.5];
      const u = ((b[0] - x) * (c[1] - y) - (b[1] - y) * (c[0] - x)) / area;
      const v = ((c[0] - x) * (a[1] - y) - (c[1] - y) * (a[0] - x)) / area;
      if (u >= 0 && v >= 0 && u + v <= 1) covered[i + nx * j] = 1;
    }
  }
}
