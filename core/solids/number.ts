/** The number of a section and an arrow up, raised on the outside of its shell. */
import { farthestFirst } from "../keys/farthestFirst.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Solid, Solids } from "./kernel.ts";

export interface NumberPlace {
  /** On the section's inner face, and out of it. */
  readonly at: readonly [number, number, number];
  readonly normal: readonly [number, number, number];
  /** How high its figures are, mm. */
  readonly heightMm: number;
}

export type Xyz = [number, number, number];
type Corner = readonly [number, number];

/** Figures are no higher and no lower than these, mm, and stay this share of the way off every edge. */
const [HIGHEST_MM, LOWEST_MM] = [40, 18];
const SHARE = 0.45;
/** They stand out of the shell by so much, and go into it by this share of its thickness. */
const RAISED_MM = 4;
const SUNK_SHARE = 0.7;
/** Places that are chosen among. */
const PLACES = 1500;

/**
 * The place of a section that is farthest from its edges and from what lies over it.
 * @param clear of lines and ribs, xyz per point each
 * @param lowMm what lies lower is the foot, or below the board; null where it floats
 * @returns null where it is too small for a number
 */
export function numberPlace(
  skin: TriangleMesh,
  clear: readonly ArrayLike<number>[],
  lowMm: number | null,
): NumberPlace | null {
  const { normals } = vertexNormals(skin);
  const p = skin.positions;
  const every = Math.max(1, Math.floor(p.length / 3 / PLACES));
  const places = Array.from({ length: Math.floor(p.length / 3 / every) }, (_, n) => {
    const v = 3 * n * every;
    const at: Xyz = [p[v], p[v + 1], p[v + 2]];
    const normal: Xyz = [normals[v], normals[v + 1], normals[v + 2]];
    const overFootMm = lowMm === null ? Number.POSITIVE_INFINITY : at[2] - lowMm;
    const toLineMm = Math.min(overFootMm, ...clear.map((points) => awayMm(points, at)));
    return { at, normal, toLineMm, weight: 1 };
  });
  const [first] = farthestFirst(places);
  if (!first) return null;
  const heightMm = Math.min(HIGHEST_MM, SHARE * first.worthMm);
  return heightMm < LOWEST_MM ? null : { at: first.place.at, normal: first.place.normal, heightMm };
}

/** How far a place is from the nearest of some points, mm. */
export function awayMm(points: ArrayLike<number>, [x, y, z]: Xyz): number {
  let least = Number.POSITIVE_INFINITY;
  for (let k = 0; k < points.length; k += 3)
    least = Math.min(least, (points[k] - x) ** 2 + (points[k + 1] - y) ** 2 + (points[k + 2] - z) ** 2);
  return Math.sqrt(least);
}

/** Width and stroke of a figure, in heights. */
const WIDE = 0.55;
const STROKE = 0.16;
/** Strokes of a figure, as on a display of seven: two corners each, in heights. */
const STROKES: readonly (readonly [Corner, Corner])[] = [
  [
    [0, 1 - STROKE],
    [WIDE, 1],
  ],
  [
    [WIDE - STROKE, 0.5],
    [WIDE, 1],
  ],
  [
    [WIDE - STROKE, 0],
    [WIDE, 0.5],
  ],
  [
    [0, 0],
    [WIDE, STROKE],
  ],
  [
    [0, 0],
    [STROKE, 0.5],
  ],
  [
    [0, 0.5],
    [STROKE, 1],
  ],
  [
    [0, (1 - STROKE) / 2],
    [WIDE, (1 + STROKE) / 2],
  ],
];
/** Which of them make each figure, from zero to nine. */
const FIGURES = ["012345", "12", "01346", "01236", "1256", "02356", "023456", "012", "0123456", "012356"];

/** The number with an arrow over it, as one body that stands in the shell. */
export function numberSolid(solids: Solids, number: number, place: NumberPlace, shellMm: number): Solid {
  const { at, normal, heightMm } = place;
  const [right, up] = uprightOn(normal);
  const slab = (outline: readonly Corner[]): Solid =>
    solids.hull(
      [shellMm * (1 - SUNK_SHARE), shellMm + RAISED_MM].flatMap((out) =>
        outline.map(
          ([x, y]) => [0, 1, 2].map((a) => at[a] + heightMm * (x * right[a] + y * up[a]) + out * normal[a]) as Xyz,
        ),
      ),
    );
  const digits = String(number);
  const wide = digits.length * (WIDE + STROKE) - STROKE;
  const strokes = Array.from(digits).flatMap((digit, n) =>
    Array.from(FIGURES[Number(digit)]).map((stroke) => {
      const [[x0, y0], [x1, y1]] = STROKES[Number(stroke)];
      const left = n * (WIDE + STROKE) - wide / 2;
      const [a, b, c, d] = [left + x0, left + x1, y0 - 0.75, y1 - 0.75];
      return slab([
        [a, c],
        [b, c],
        [b, d],
        [a, d],
      ]);
    }),
  );
  const arrow = [
    slab([
      [-STROKE / 2, 0.35],
      [STROKE / 2, 0.35],
      [STROKE / 2, 0.75],
      [-STROKE / 2, 0.75],
    ]),
    slab([
      [-0.28, 0.62],
      [0.28, 0.62],
      [0, 0.95],
    ]),
  ];
  return solids.union([...strokes, ...arrow]);
}

/** To the right and up on a face, as one sees it from outside; on a level face up is towards the back. */
export function uprightOn(n: readonly number[]): [Xyz, Xyz] {
  const towards: Xyz = Math.abs(n[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0];
  const along = towards[0] * n[0] + towards[1] * n[1] + towards[2] * n[2];
  const raw = towards.map((value, a) => value - along * n[a]);
  const length = Math.hypot(...raw);
  const up = raw.map((value) => value / length) as Xyz;
  return [[up[1] * n[2] - up[2] * n[1], up[2] * n[0] - up[0] * n[2], up[0] * n[1] - up[1] * n[0]], up];
}
