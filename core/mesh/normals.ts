/** Normals of a mesh at its vertices. */
import { type Direction, normalised } from "../space/directions.ts";
import type { TriangleMesh } from "./mesh.ts";
import { perMesh } from "./perMesh.ts";

/** Area-weighted unit normals of the vertices (3 per vertex) and the area each vertex stands for (mm2). */
export const vertexNormals = perMesh(
  (mesh: TriangleMesh): { readonly normals: Float32Array; readonly areasMm2: Float32Array } => {
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
  },
);

/**
 * Where some vertices face on the whole.
 * @param neverDown what faces the board is taken to face level
 * @returns null where they face all ways alike
 */
export function facingOf(
  { normals, areasMm2 }: { readonly normals: Float32Array; readonly areasMm2: Float32Array },
  members: readonly number[],
  neverDown = false,
): Direction | null {
  const sum: [number, number, number] = [0, 0, 0];
  for (const v of members) for (let a = 0; a < 3; a++) sum[a] += areasMm2[v] * normals[3 * v + a];
  if (neverDown) sum[2] = Math.max(0, sum[2]);
  return Math.hypot(...sum) < 1e-6 ? null : normalised(sum);
}
