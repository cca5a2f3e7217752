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
  const perSlice = SLICES / Math.max(1e-6, highMm - lowMm);
  const slices = Array.from({ length: sections }, () => new Float64Array(SLICES * SLICE_FIGURES));
  const count = (a: Xyz, b: Xyz, c: Xyz) => {
    const at = [0, 1, 2].map((x) => (a[x] + b[x] + c[x]) / 3) as Xyz;
    if (boardMm !== null && at[2] < boardMm + ON_BOARD_MM) return;
    const own = slices[sectionAt(...at)];
    if (!own) return;
    const [u, v] = [b, c].map((q) => [0, 1, 2].map((x) => q[x] - a[x]));
    const half = [(u[1] * v[2] - u[2] * v[1]) / 2, (u[2] * v[0] - u[0] * v[2]) / 2, (u[0] * v[1] - u[1] * v[0]) / 2];
    const slice = SLICE_FIGURES * Math.min(SLICES - 1, Math.floor((at[2] - lowMm) * perSlice));
    for (let x = 0; x < 3; x++) {
      own[slice + x] += half[x];
      own[slice + 3 + x] += half[x] * at[2];
    }
  };
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [0, 1, 2].map((n) => Array.from(p.subarray(3 * t[k + n], 3 * t[k + n] + 3)) as Xyz);
    inSlices(a, b, c, 1 / perSlice, MOST_HALVINGS, count);
  }
  return { lowMm, highMm, slices: slices.map((own) => Array.from(own, (value) => Number(value.toPrecision(6)))) };
}

type Xyz = [number, number, number];

/** A triangle is halved no more often than this: no scan has one so large. */
const MOST_HALVINGS = 14;

/** Halves a triangle across its tallest edge till each part is as low as a slice. */
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
