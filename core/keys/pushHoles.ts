/**
 * Push holes: a shell of one section is lifted off its jacket whole, and nothing parts the two at an edge. Through holes in
 * it the jacket is pushed out by hand or with air. They lie where the shell is pulled nearly straight off, spread evenly.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Direction } from "../space/directions.ts";
import { farthestFirst } from "./farthestFirst.ts";

export interface PushHole {
  readonly at: readonly [number, number, number];
  /** Out of the jacket: along it the hole is drilled. */
  readonly normal: readonly [number, number, number];
}

export const PUSH_HOLE_MM = 30;
/** One for so much of a shell, and never fewer or more than these. */
const AREA_MM2 = 120_000;
const [LEAST, MOST] = [2, 6];
/** Where a hole is drilled the shell leaves nearly straight off, as a cosine; so far off its edge, mm. */
const STRAIGHT = 0.7;
const EDGE_MM = 50;
/** So far off the middle of a rib, mm: what is wrapped over it is left whole. */
const RIB_MM = 60;
/** Places that they are chosen among. */
const PLACES = 2500;

/**
 * @param sections of the plan: more than one are parted at their edges, and need no holes
 * @param boardMm height of the board that the shell's edge stands on; null where it floats
 * @param ribs that no hole is drilled through: xyz per point
 */
export function pushHoles(
  sections: readonly { readonly skin: TriangleMesh; readonly pull: Direction }[],
  boardMm: number | null,
  ribs: readonly { readonly points: ArrayLike<number> }[] = [],
): PushHole[] {
  if (sections.length !== 1) return [];
  const [{ skin, pull }] = sections;
  const { normals, areasMm2 } = vertexNormals(skin);
  const p = skin.positions;
  const every = Math.max(1, Math.floor(p.length / 3 / PLACES));
  const edgeMm = boardMm ?? p.reduce((least, z, k) => (k % 3 === 2 ? Math.min(least, z) : least), Infinity);
  const places = Array.from({ length: Math.floor(p.length / 3 / every) }, (_, n) => {
    const v = 3 * n * every;
    const at: [number, number, number] = [p[v], p[v + 1], p[v + 2]];
    const normal: [number, number, number] = [normals[v], normals[v + 1], normals[v + 2]];
    return { at, normal, toLineMm: at[2] - edgeMm, weight: 1 };
  }).filter(
    ({ at, normal, toLineMm }) =>
      toLineMm >= EDGE_MM &&
      normal.reduce((sum, x, a) => sum + x * pull[a], 0) >= STRAIGHT &&
      ribs.every(({ points }) => isClear(points, at)),
  );
  const areaMm2 = areasMm2.reduce((sum, own) => sum + own, 0);
  const wanted = Math.min(MOST, Math.max(LEAST, Math.round(areaMm2 / AREA_MM2)));
  const out: PushHole[] = [];
  for (const { place, worthMm } of farthestFirst(places)) {
    if (out.length === wanted || worthMm < PUSH_HOLE_MM) break;
    out.push({ at: place.at, normal: place.normal });
  }
  return out;
}

function isClear(points: ArrayLike<number>, at: readonly number[]): boolean {
  for (let k = 0; k < points.length; k += 3) {
    if (Math.hypot(points[k] - at[0], points[k + 1] - at[1], points[k + 2] - at[2]) < RIB_MM) return false;
  }
  return true;
}
