/**
 * How far apart walls stand: the width of the gap in front of every vertex, and the thickness of the piece behind it.
 * Both are the largest ball that touches the surface there and reaches no other part of it, found by shrinking
 * (Ma, Bae and Choi 2012). A ball counts as held between two walls only where they face each other; one held in a
 * crease or by a rounding is not a gap.
 */
import type { NearestField } from "../field/nearest.ts";
import { connectedPieces } from "../mesh/flood.ts";
import { filledBy } from "../mesh/lists.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";

export interface Walls {
  /** Width of the gap in front of each vertex, mm; infinite where none is narrower than asked for. */
  readonly gapMm: Float32Array;
  /** Thickness of the piece behind each vertex, mm; infinite where none is thinner than asked for. */
  readonly thickMm: Float32Array;
}

/** Rounds of shrinking; a few settle it. */
const ROUNDS = 30;
/** A touch at less than this angle from p, seen from the ball's middle, is beside it (cosine). */
const BESIDE = Math.cos((45 * Math.PI) / 180);
/** Two walls face each other when one stands no farther than this from where the ball's far side is, in its radius. */
const FACING = 0.6;

/**
 * @param widestMm gaps and thicknesses up to this are found
 * @param boardMm height of the board: the edge a piece stands on is held by it, and is not thin; null where it floats
 */
export function wallsOf(mesh: TriangleMesh, nearest: NearestField, widestMm: number, boardMm: number | null): Walls {
  const { normals } = vertexNormals(mesh);
  const vertices = mesh.positions.length / 3;
  const gapMm = new Float32Array(vertices);
  const thickMm = new Float32Array(vertices);
  const p = new Float64Array(3);
  const n = new Float64Array(3);
  for (let v = 0; v < vertices; v++) {
    for (let a = 0; a < 3; a++) {
      p[a] = mesh.positions[3 * v + a];
      n[a] = normals[3 * v + a];
    }
    gapMm[v] = ballAt(p, n, 1, nearest, widestMm);
    const onBoard = boardMm !== null && p[2] < boardMm + widestMm / 2;
    thickMm[v] = onBoard ? Infinity : ballAt(p, n, -1, nearest, widestMm);
  }
  return { gapMm, thickMm };
}

const centre = new Float64Array(3);
const touched = new Float64Array(3);

/** Diameter of the ball held between the wall at p and one that faces it; infinite where there is none so near. */
function ballAt(p: Float64Array, n: Float64Array, side: 1 | -1, nearest: NearestField, widestMm: number): number {
  let radius = widestMm / 2;
  let held = false;
  for (let round = 0; round < ROUNDS; round++) {
    for (let a = 0; a < 3; a++) centre[a] = p[a] + side * radius * n[a];
    nearest.nearest(touched, centre[0], centre[1], centre[2]);
    const away = Math.hypot(touched[0] - centre[0], touched[1] - centre[1], touched[2] - centre[2]);
    if (away >= radius * (1 - 1e-3)) break;
    const [dx, dy, dz] = [touched[0] - p[0], touched[1] - p[1], touched[2] - p[2]];
    const along = side * (dx * n[0] + dy * n[1] + dz * n[2]);
    const far2 = dx * dx + dy * dy + dz * dz;
    // The surface beside p itself.
    if (along <= 1e-9 || far2 < 1e-6) break;
    const next = far2 / (2 * along);
    if (next >= radius * (1 - 1e-6)) break;
    // Touched beside p itself: the facets there, not another wall.
    if (1 - far2 / (2 * next * next) > BESIDE) break;
    radius = next;
    held = true;
  }
  if (!held) return Infinity;
  for (let a = 0; a < 3; a++) centre[a] = p[a] + side * 2 * radius * n[a];
  nearest.nearest(touched, centre[0], centre[1], centre[2]);
  const missed = Math.hypot(touched[0] - centre[0], touched[1] - centre[1], touched[2] - centre[2]);
  return missed <= FACING * radius ? 2 * radius : Infinity;
}

/** Parts thinner than this break easily when the mould comes off, mm: typical, and the material of the piece decides. */
export const THIN_PART_MM = 14;
/** Widths up to so many times a limit are near it. */
export const NEAR_LIMIT = 1.5;

/** Class of each vertex by its width: 2 within the limit, 1 near it, 0 else. */
export function narrowClasses(widthMm: Float32Array, limitMm: number): Uint8Array {
  return filledBy(new Uint8Array(widthMm.length), (v) =>
    widthMm[v] < limitMm ? 2 : widthMm[v] < NEAR_LIMIT * limitMm ? 1 : 0,
  );
}

/** A stretch of wall that stands nearer to another than a limit. */
export interface NarrowPlace {
  /** Where it is narrowest. */
  readonly at: readonly [number, number, number];
  readonly narrowestMm: number;
  readonly areaMm2: number;
}

/** Places narrower than a limit, largest first; those smaller than `leastAreaMm2` are left out. */
export function narrowPlaces(
  mesh: TriangleMesh,
  widthMm: Float32Array,
  limitMm: number,
  leastAreaMm2: number,
): NarrowPlace[] {
  const { areasMm2 } = vertexNormals(mesh);
  const narrow = filledBy(new Uint8Array(widthMm.length), (v) => (widthMm[v] < limitMm ? 1 : 0));
  const { of, label } = connectedPieces(narrow, vertexNeighbours(mesh));
  const areas = new Float64Array(label.length);
  const narrowest = new Int32Array(label.length).fill(-1);
  of.forEach((piece, v) => {
    areas[piece] += areasMm2[v];
    if (narrowest[piece] < 0 || widthMm[v] < widthMm[narrowest[piece]]) narrowest[piece] = v;
  });
  const places = label.flatMap((isNarrow, piece): NarrowPlace[] => {
    if (!isNarrow || areas[piece] < leastAreaMm2) return [];
    const p = mesh.positions.subarray(3 * narrowest[piece], 3 * narrowest[piece] + 3);
    return [{ at: [p[0], p[1], p[2]], narrowestMm: widthMm[narrowest[piece]], areaMm2: areas[piece] }];
  });
  return places.sort((a, b) => b.areaMm2 - a.areaMm2);
}
