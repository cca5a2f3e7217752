/** Thinner copies of meshes for display: quadric simplification by the meshoptimizer package, borders kept. */
import { MeshoptSimplifier } from "meshoptimizer";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";

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
