/** The curvature of a surface summed up over it. */
import { adjacencyOf, OPEN } from "./adjacency.ts";
import type { TriangleMesh } from "./mesh.ts";

/** What a surface bends in all; its edges, where it ends, left out. Positive where it is round seen from outside. */
export interface CurvatureSums {
  /** The integral of its mean curvature, mm: 4 pi r of a sphere. */
  readonly meanMm: number;
  /** The integral of its Gaussian curvature: 4 pi of any sphere. */
  readonly gauss: number;
}

/**
 * Of a mesh: half of every edge's length times the angle it bends by, and what is missing at every corner of a whole turn
 * (Steiner 1840; for meshes: Cohen-Steiner and Morvan, Restricted Delaunay triangulations and normal cycle, 2003).
 */
export function curvatureSums(mesh: TriangleMesh): CurvatureSums {
  const { positions: p, triangles: t } = mesh;
  const { across } = adjacencyOf(mesh);
  const normals = faceNormals(mesh);
  const leftOver = new Float64Array(p.length / 3).fill(2 * Math.PI);
  let twiceMeanMm = 0;
  for (let e = 0; e < t.length; e++) {
    const [next, previous] = e % 3 === 2 ? [e - 2, e - 1] : e % 3 === 0 ? [e + 1, e + 2] : [e + 1, e - 1];
    leftOver[t[e]] -= angleAt(p, 3 * t[e], 3 * t[next], 3 * t[previous]);
    const other = across[e];
    if (other === OPEN) {
      // A corner at the surface's end is no corner of a turned one.
      leftOver[t[e]] = Number.NaN;
      leftOver[t[next]] = Number.NaN;
    } else if (other > e) twiceMeanMm += bendMm(p, normals, e, other, 3 * t[e], 3 * t[next]);
  }
  let gauss = 0;
  for (const angle of leftOver) if (!Number.isNaN(angle) && angle < 2 * Math.PI) gauss += angle;
  return { meanMm: twiceMeanMm / 2, gauss };
}

/** Of length one, three a triangle; none of length where a triangle has no area. */
function faceNormals({ positions: p, triangles: t }: TriangleMesh): Float64Array {
  const normals = new Float64Array(t.length);
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [3 * t[k], 3 * t[k + 1], 3 * t[k + 2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.sqrt(x * x + y * y + z * z) || 1;
    normals[k] = x / length;
    normals[k + 1] = y / length;
    normals[k + 2] = z / length;
  }
  return normals;
}

/** The length of an edge from a to b times the angle between the triangles on its sides. @param e,f it, as an edge of each */
function bendMm(p: Float32Array, n: Float64Array, e: number, f: number, a: number, b: number): number {
  const [i, j] = [3 * Math.floor(e / 3), 3 * Math.floor(f / 3)];
  const [x, y, z] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const lengthMm = Math.sqrt(x * x + y * y + z * z);
  const turn =
    x * (n[i + 1] * n[j + 2] - n[i + 2] * n[j + 1]) +
    y * (n[i + 2] * n[j] - n[i] * n[j + 2]) +
    z * (n[i] * n[j + 1] - n[i + 1] * n[j]);
  return Math.atan2(turn, lengthMm * (n[i] * n[j] + n[i + 1] * n[j + 1] + n[i + 2] * n[j + 2])) * lengthMm;
}

function angleAt(p: Float32Array, a: number, b: number, c: number): number {
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  return Math.atan2(Math.sqrt(x * x + y * y + z * z), ux * vx + uy * vy + uz * vz);
}
