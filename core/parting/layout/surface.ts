/** The surface that lines are laid on, with what the tools for them look up. */
import { NearestField } from "../../field/nearest.ts";
import type { JobContext } from "../../job/context.ts";
import { areaAndVolume, type TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";

export interface Surface {
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
  readonly near: { readonly start: Uint32Array; readonly list: Uint32Array };
  readonly normals: Float32Array;
  readonly areasMm2: Float32Array;
  /** Typical edge. */
  readonly edgeMm: number;
  readonly boardMm: number | null;
}

export function surfaceOf(mesh: TriangleMesh, boardMm: number | null, ctx: JobContext): Surface {
  const edgeMm = typicalEdgeMm(areaAndVolume(mesh).areaMm2, mesh);
  return surfaceOn(mesh, NearestField.about(mesh, 2 * edgeMm, ctx), boardMm);
}

/** A surface whose nearest places are known already. */
export function surfaceOn(mesh: TriangleMesh, nearest: NearestField, boardMm: number | null): Surface {
  const { normals, areasMm2 } = vertexNormals(mesh);
  const area = areasMm2.reduce((sum, own) => sum + own, 0);
  return { mesh, nearest, near: vertexNeighbours(mesh), normals, areasMm2, edgeMm: typicalEdgeMm(area, mesh), boardMm };
}

/** The edge of triangles of one size and shape that would cover as much. */
function typicalEdgeMm(areaMm2: number, mesh: TriangleMesh): number {
  return Math.sqrt((2.3 * areaMm2) / Math.max(1, mesh.triangles.length / 3));
}

/** The vertex nearest a place, mm. */
export function vertexAt(
  { mesh, nearest }: Pick<Surface, "mesh" | "nearest">,
  x: number,
  y: number,
  z: number,
): number {
  return cornerAt(mesh, nearest.nearest(scratch, x, y, z), x, y, z);
}

/** The corner of a triangle nearest a place, mm: a vertex. */
export function cornerAt(
  { positions: p, triangles }: TriangleMesh,
  triangle: number,
  x: number,
  y: number,
  z: number,
): number {
  let best = 0;
  let least = Infinity;
  for (let c = 0; c < 3; c++) {
    const v = triangles[3 * triangle + c];
    const d = (p[3 * v] - x) ** 2 + (p[3 * v + 1] - y) ** 2 + (p[3 * v + 2] - z) ** 2;
    if (d >= least) continue;
    least = d;
    best = v;
  }
  return best;
}

const scratch = new Float64Array(3);
