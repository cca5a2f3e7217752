/** Thinner copies of meshes for display: quadric simplification by the meshoptimizer package, borders kept. */
import { MeshoptSimplifier } from "meshoptimizer";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";

/** Beyond so many times the triangles wanted, vertices are first gathered in cells: to thin them singly takes far longer. */
const GATHERED_TIMES = 5;

/** The same for a first glance, some ten times sooner where there is much to thin: coarser, and not all edges meet two by two. */
export async function thinnedRoughly(mesh: TriangleMesh, triangles: number, errorShare: number): Promise<TriangleMesh> {
  const wanted = GATHERED_TIMES * triangles;
  if (mesh.triangles.length / 3 <= wanted) return thinned(mesh, triangles, errorShare);
  await MeshoptSimplifier.ready;
  const [kept] = MeshoptSimplifier.simplifySloppy(mesh.triangles, mesh.positions, 3, null, 3 * wanted, errorShare);
  const gathered = dropUnusedVertices({ positions: mesh.positions, triangles: new Uint32Array(kept) });
  return thinned(gathered, triangles, errorShare);
}

/**
 * @param triangles about how many to keep
 * @param errorShare greatest deviation, as a share of the mesh's size
 */
export async function thinned(mesh: TriangleMesh, triangles: number, errorShare = 0.004): Promise<TriangleMesh> {
  if (mesh.triangles.length / 3 <= triangles) return mesh;
  await MeshoptSimplifier.ready;
  const [kept] = MeshoptSimplifier.simplify(mesh.triangles, mesh.positions, 3, 3 * triangles, errorShare, [
    "LockBorder",
  ]);
  return dropUnusedVertices({ positions: mesh.positions, triangles: new Uint32Array(kept) });
}
