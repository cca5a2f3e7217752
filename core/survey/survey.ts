/**
 * The survey: what each pull would cost each patch of the jacket. For every direction the blocked columns are
 * measured, and each column's volume falls half to the patch it begins at and half to the patch it ends at: just
 * what a section made of either patch would have to fill. A patch that pays nothing is free from that pull.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { visitColumns } from "./columns.ts";
import type { Direction } from "./directions.ts";

export interface SurveyRequest {
  readonly mesh: TriangleMesh;
  readonly directions: readonly Direction[];
  readonly spacingMm: number;
  readonly boardMm: number | null;
  /** Columns longer than this cannot be filled: their volume weighs more. */
  readonly fillDepthMm: number;
}

/** How much more a volume weighs that is too deep to fill. */
export const DEEP_WEIGHT = 6;

/**
 * @returns weighted lock volume (mm3) of each direction (row) and vertex (column): directions x vertices
 */
export function surveyDirections(request: SurveyRequest, tick: (done: number) => void = () => {}): Float32Array {
  const vertices = request.mesh.positions.length / 3;
  const cost = new Float32Array(request.directions.length * vertices);
  request.directions.forEach((direction, k) => {
    surveyOne(request, direction, cost.subarray(k * vertices, (k + 1) * vertices));
    tick((k + 1) / request.directions.length);
  });
  return cost;
}

/** Adds one direction's locks to the vertices (mm3). */
export function surveyOne(request: SurveyRequest, direction: Direction, out: Float32Array): void {
  const { mesh, spacingMm, boardMm, fillDepthMm } = request;
  const t = mesh.triangles;
  const cell = spacingMm * spacingMm;
  visitColumns(mesh, direction, spacingMm, boardMm, (_line, from, to, first, last) => {
    const depth = to - from;
    const volume = cell * (depth <= fillDepthMm ? depth : fillDepthMm + DEEP_WEIGHT * (depth - fillDepthMm));
    const share = first < 0 ? volume / 3 : volume / 6;
    for (let c = 0; c < 3; c++) {
      out[t[3 * last + c]] += share;
      if (first >= 0) out[t[3 * first + c]] += share;
    }
  });
}

/** Area-weighted unit normals of the vertices (3 per vertex) and the area each vertex stands for (mm2). */
export function vertexNormals(mesh: TriangleMesh): { normals: Float32Array; areasMm2: Float32Array } {
  const { positions: p, triangles: t } = mesh;
  const normals = new Float32Array(p.length);
  const areasMm2 = new Float32Array(p.length / 3);
  for (let k = 0; k < t.length; k += 3) {
    const a = 3 * t[k],
      b = 3 * t[k + 1],
      c = 3 * t[k + 2];
    const ux = p[b] - p[a],
      uy = p[b + 1] - p[a + 1],
      uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a],
      vy = p[c + 1] - p[a + 1],
      vz = p[c + 2] - p[a + 2];
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    const area = Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    normals[a] += nx;
    normals[a + 1] += ny;
    normals[a + 2] += nz;
    normals[b] += nx;
    normals[b + 1] += ny;
    normals[b + 2] += nz;
    normals[c] += nx;
    normals[c + 1] += ny;
    normals[c + 2] += nz;
    areasMm2[a / 3] += area / 3;
    areasMm2[b / 3] += area / 3;
    areasMm2[c / 3] += area / 3;
  }
  for (let v = 0; v < normals.length; v += 3) {
    const x = normals[v];
    const y = normals[v + 1];
    const z = normals[v + 2];
    const length = Math.sqrt(x * x + y * y + z * z) || 1;
    normals[v] = x / length;
    normals[v + 1] = y / length;
    normals[v + 2] = z / length;
  }
  return { normals, areasMm2 };
}
