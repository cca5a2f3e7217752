/**
 * The wall of the cavity by section and height: what a liquid in it pushes on. Sums over slices, so that the push of any
 * level, either way up, follows without the mesh.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";

/** The wall is summed up in so many slices. */
export const SLICES = 60;
/** Figures of a slice: the sum of n dA, and of z n dA, by axis. */
export const SLICE_FIGURES = 6;

export interface Wetted {
  readonly lowMm: number;
  readonly highMm: number;
  /** Of each section, slice by slice from the lowest: mm2 by axis, then mm3 by axis. */
  readonly slices: readonly (readonly number[])[];
}

/**
 * @param piece closed, its normals outwards: the cavity is where it stood
 * @param sectionAt number of the section, from 0, that a place of it lies under
 * @param boardMm what lies on the board is open, or the pour opening; null where the piece floats
 */
export function wettedWall(
  piece: TriangleMesh,
  sections: number,
  sectionAt: (x: number, y: number, z: number) => number,
  boardMm: number | null,
): Wetted {
  const { positions: p, triangles: t } = piece;
  let [lowMm, highMm] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let k = 2; k < p.length; k += 3) {
    lowMm = Math.min(lowMm, p[k]);
    highMm = Math.max(highMm, p[k]);
  }
  const sliceMm = Math.max(1e-6, highMm - lowMm) / SLICES;
  const slices = Array.from({ length: sections }, () => new Float64Array(SLICES * SLICE_FIGURES));
  const leastZ = boardMm === null ? Number.NEGATIVE_INFINITY : boardMm + ON_BOARD_MM;
  const count = (
    ax: number,
    ay: number,
    az: number,
    bx: number,
    by: number,
    bz: number,
    cx: number,
    cy: number,
    cz: number,
  ) => {
    const z = (az + bz + cz) / 3;
    if (z < leastZ) return;
    const own = slices[sectionAt((ax + bx + cx) / 3, (ay + by + cy) / 3, z)];
    if (!own) return;
    const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
    const nx = (uy * vz - uz * vy) / 2;
    const ny = (uz * vx - ux * vz) / 2;
    const nz = (ux * vy - uy * vx) / 2;
    const slice = SLICE_FIGURES * Math.min(SLICES - 1, Math.floor((z - lowMm) / sliceMm));
    own[slice] += nx;
    own[slice + 1] += ny;
    own[slice + 2] += nz;
    own[slice + 3] += nx * z;
    own[slice + 4] += ny * z;
    own[slice + 5] += nz * z;
  };
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [3 * t[k], 3 * t[k + 1], 3 * t[k + 2]];
    const tall = Math.max(p[a + 2], p[b + 2], p[c + 2]) - Math.min(p[a + 2], p[b + 2], p[c + 2]);
    if (tall <= sliceMm) {
      count(p[a], p[a + 1], p[a + 2], p[b], p[b + 1], p[b + 2], p[c], p[c + 1], p[c + 2]);
      continue;
    }
    const corner = (v: number): Xyz => [p[v], p[v + 1], p[v + 2]];
    inSlices(corner(a), corner(b), corner(c), sliceMm, MOST_HALVINGS, (u, v, w) => count(...u, ...v, ...w));
  }
  return { lowMm, highMm, slices: slices.map((own) => Array.from(own, (value) => Number(value.toPrecision(6)))) };
}

type Xyz = [number, number, number];

/** A triangle is halved no more often than this: no scan has one so large. */
const MOST_HALVINGS = 14;

/** Halves a triangle across its tallest edge until each part is as low as a slice. */
function inSlices(
  a: Xyz,
  b: Xyz,
  c: Xyz,
  sliceMm: number,
  halvings: number,
  count: (a: Xyz, b: Xyz, c: Xyz) => void,
): void {
  const tall = Math.max(a[2], b[2], c[2]) - Math.min(a[2], b[2], c[2]);
  if (tall <= sliceMm || halvings === 0) {
    count(a, b, c);
    return;
  }
  const edges = [
    [a, b, c],
    [b, c, a],
    [c, a, b],
  ] as const;
  const [from, to, other] = edges.reduce((longest, edge) => (tallOf(edge) > tallOf(longest) ? edge : longest));
  const middle = [0, 1, 2].map((x) => (from[x] + to[x]) / 2) as Xyz;
  inSlices(from, middle, other, sliceMm, halvings - 1, count);
  inSlices(middle, to, other, sliceMm, halvings - 1, count);
}

function tallOf([from, to]: readonly [Xyz, Xyz, Xyz]): number {
  return Math.abs(from[2] - to[2]);
}

/** What lies no higher over the board is its foot, mm. */
const ON_BOARD_MM = 0.5;
