/** Survey maps: what each vertex of a mesh looks like from a pull, and from how many pulls it is free. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { type Direction, dot } from "../space/directions.ts";
import { columnFrame, visitColumns } from "./columns.ts";

/** Classes of a survey map. */
export const FREE = 0;
export const LOW_DRAFT = 1;
export const LOCKED = 2;

/** Columns shorter than this share of the spacing are the mesh's own roughness. */
const ROUGHNESS = 0.75;

/**
 * Class of each vertex for a pull: locked when something stands on its way out or its face has turned past the
 * draft the other way, low draft within the draft of the horizon, else free.
 */
export function surveyMap(
  mesh: TriangleMesh,
  pull: Direction,
  draftDeg: number,
  spacingMm: number,
  boardMm: number | null,
): Uint8Array {
  const { normals } = vertexNormals(mesh);
  const least = Math.sin((draftDeg * Math.PI) / 180);
  const out = new Uint8Array(normals.length / 3);
  for (let v = 0; v < out.length; v++) {
    const facing = dot(pull, [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]]);
    out[v] = facing < -least ? LOCKED : facing < least ? LOW_DRAFT : FREE;
  }
  const t = mesh.triangles;
  visitColumns(mesh, columnFrame(mesh, pull, spacingMm), boardMm, (_line, from, to, first) => {
    if (first < 0 || to - from < ROUGHNESS * spacingMm) return;
    for (let c = 0; c < 3; c++) if (out[t[3 * first + c]] !== LOW_DRAFT) out[t[3 * first + c]] = LOCKED;
  });
  return out;
}

/** From how many of the pulls each vertex is free (at most 255). */
export function freeCounts(
  mesh: TriangleMesh,
  pulls: readonly Direction[],
  draftDeg: number,
  spacingMm: number,
  boardMm: number | null,
  tick: (done: number) => void,
): Uint8Array {
  const out = new Uint8Array(mesh.positions.length / 3);
  pulls.forEach((pull, k) => {
    const map = surveyMap(mesh, pull, draftDeg, spacingMm, boardMm);
    for (let v = 0; v < out.length; v++) if (map[v] === FREE && out[v] < 255) out[v]++;
    tick((k + 1) / pulls.length);
  });
  return out;
}
