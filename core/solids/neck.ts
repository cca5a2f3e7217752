/**
 * Where a section that is too heavy is parted best: across its longest axis, where its face is narrowest, with enough of it on
 * either side. The axis is the first principal one of its face (Pearson 1901).
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { type CutPlane, inSpace, profileOf } from "../patterns/profile.ts";
import { cross, type Direction, normalised } from "../space/directions.ts";
import { centroid, eigenvectors, spread } from "../survey/axes.ts";

export interface Neck {
  /** Across the section's face from one edge to the other, xyz per point. */
  readonly points: Float32Array;
  readonly lengthMm: number;
  /** In the middle of it. */
  readonly at: readonly [number, number, number];
  /** Of the face, on either side; together they are one. */
  readonly shares: readonly [number, number];
}

/** Either side keeps at least this share of the face. */
const LEAST_SHARE = 0.28;
/** Planes that are tried. */
const PLANES = 21;
/** What else a plane cuts of the face is no longer than this share of the line across it: else it is no neck. */
const OTHERS = 0.08;
/** By how much a line is held to be longer where its sides are as unequal as they may be. */
const UNEQUAL = 0.35;

/** @returns null where no single line leads across */
export function neckOf(skin: TriangleMesh): Neck | null {
  const { areasMm2 } = vertexNormals(skin);
  const across = longestAxis(skin, areasMm2);
  const plane = squareTo(across);
  const p = skin.positions;
  const heights = Array.from(
    areasMm2,
    (_, v) => across[0] * p[3 * v] + across[1] * p[3 * v + 1] + across[2] * p[3 * v + 2],
  );
  const order = [...heights.keys()].sort((a, b) => heights[a] - heights[b]);
  const whole = areasMm2.reduce((sum, mm2) => sum + mm2, 0);
  let [best, least]: [Neck | null, number] = [null, Number.POSITIVE_INFINITY];
  let [n, below] = [0, 0];
  for (let k = 0; k < PLANES; k++) {
    const share = LEAST_SHARE + ((1 - 2 * LEAST_SHARE) * k) / (PLANES - 1);
    while (n < order.length && below < share * whole) below += areasMm2[order[n++]];
    const found = lineAcross(skin, plane, heights[order[Math.min(n, order.length - 1)]]);
    if (!found) continue;
    const worth = found.lengthMm * (1 + UNEQUAL * ((share - 0.5) / (0.5 - LEAST_SHARE)) ** 2);
    if (worth >= least) continue;
    least = worth;
    best = { ...found, shares: [share, 1 - share] };
  }
  return best;
}

function longestAxis(skin: TriangleMesh, areasMm2: Float32Array): Direction {
  const moments = spread(skin.positions, areasMm2, centroid(skin.positions, areasMm2));
  const along = (axis: Direction) =>
    [0, 1, 2].reduce(
      (sum, a) => sum + [0, 1, 2].reduce((row, b) => row + axis[a] * moments[3 * a + b] * axis[b], 0),
      0,
    );
  return eigenvectors(moments).reduce((longest, axis) => (along(axis) > along(longest) ? axis : longest));
}

function squareTo(across: Direction): CutPlane {
  const helper: Direction = Math.abs(across[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0];
  const right = normalised(cross(helper, across));
  return { across, right, up: cross(across, right) };
}

/** The one open line that a plane cuts across a face; null where there are several, or none. */
function lineAcross(skin: TriangleMesh, plane: CutPlane, atMm: number): Omit<Neck, "shares"> | null {
  const lines = profileOf([skin], plane, atMm).map((line) => {
    const points = inSpace(line, plane, atMm);
    return { points, closed: line.closed, lengthMm: lengthOf(points) };
  });
  const [main] = [...lines].sort((a, b) => b.lengthMm - a.lengthMm);
  if (!main || main.closed) return null;
  const others = lines.reduce((sum, { lengthMm }) => sum + lengthMm, 0) - main.lengthMm;
  if (others > OTHERS * main.lengthMm) return null;
  const m = 3 * Math.floor(main.points.length / 6);
  const at = [main.points[m], main.points[m + 1], main.points[m + 2]] as const;
  return { points: main.points, lengthMm: main.lengthMm, at };
}

function lengthOf(points: ArrayLike<number>): number {
  let mm = 0;
  for (let k = 3; k < points.length; k += 3)
    mm += Math.hypot(points[k] - points[k - 3], points[k + 1] - points[k - 2], points[k + 2] - points[k - 1]);
  return mm;
}

/** Places along a neck to draw a line through, its ends among them, about so far apart, mm. */
export function placesAcross({ points, lengthMm }: Neck, apartMm = 120): [number, number, number][] {
  const count = Math.max(1, Math.round(lengthMm / apartMm));
  const last = points.length / 3 - 1;
  return Array.from({ length: count + 1 }, (_, k) => {
    const n = 3 * Math.round((last * k) / count);
    return [points[n], points[n + 1], points[n + 2]];
  });
}
