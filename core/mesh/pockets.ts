/** Pockets: closed parts of a surface that face inwards. Nothing outside can reach them, and they belong to no section. */
import { labelParts } from "./adjacency.ts";
import type { TriangleMesh } from "./mesh.ts";
import { dropUnusedVertices } from "./weld.ts";

/** Parts of a surface that enclose less than a fingertip are specks, mm3. */
export const SPECK_MM3 = 500;

/** Signed volume of every part, mm3: less than nothing for a pocket. Parts may be open on z = 0. */
export function partVolumes({ positions: p, triangles: t }: TriangleMesh, part: Uint32Array, parts: number) {
  const volumes = new Float64Array(parts);
  for (let k = 0; k < part.length; k++) {
    const [a, b, c] = [3 * t[3 * k], 3 * t[3 * k + 1], 3 * t[3 * k + 2]];
    volumes[part[k]] +=
      (p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) -
        p[a + 1] * (p[b] * p[c + 2] - p[b + 2] * p[c]) +
        p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c])) /
      6;
  }
  return volumes;
}

/**
 * The surface without its pockets, and without specks.
 * @param speckMm3 parts that enclose no more than this are left out too
 * @returns the mesh, and the triangles left out
 */
export function withoutPockets(
  mesh: TriangleMesh,
  speckMm3: number,
): { readonly mesh: TriangleMesh; readonly dropped: TriangleMesh | null } {
  const { part, parts } = labelParts(mesh);
  if (parts === 1) return { mesh, dropped: null };
  const volumes = partVolumes(mesh, part, parts);
  const most = volumes.reduce((best, volume) => Math.max(best, volume), 0);
  const [kept, dropped]: [number[], number[]] = [[], []];
  for (let k = 0; k < part.length; k++) {
    const stays = volumes[part[k]] > speckMm3 || volumes[part[k]] === most;
    (stays ? kept : dropped).push(mesh.triangles[3 * k], mesh.triangles[3 * k + 1], mesh.triangles[3 * k + 2]);
  }
  if (dropped.length === 0) return { mesh, dropped: null };
  const { positions } = mesh;
  return {
    mesh: dropUnusedVertices({ positions, triangles: Uint32Array.from(kept) }),
    dropped: { positions, triangles: Uint32Array.from(dropped) },
  };
}
