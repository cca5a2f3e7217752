/** Faces of fewer triangles before they are made solid: what is cut and joined many times is so in a fraction of the time. */
import { MeshoptSimplifier } from "meshoptimizer";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";
import { NotASolid, type Solid, type Solids } from "./kernel.ts";

/** A face of fewer triangles, none of which strays by more than so much, mm: quadric simplification by the meshoptimizer package. */
function leaner({ positions, triangles }: TriangleMesh, byMm: number): TriangleMesh {
  const [kept] = MeshoptSimplifier.simplify(triangles, positions, 3, 0, byMm, ["ErrorAbsolute"]);
  return dropUnusedVertices({ positions, triangles: new Uint32Array(kept) });
}

/** `leanSolid` may be called from then on. */
export const leanReady: Promise<void> = MeshoptSimplifier.ready;

/** A closed face as a body of fewer triangles; of all of them where too few would not close any more. */
export function leanSolid(solids: Solids, mesh: TriangleMesh, byMm: number, what: string): Solid {
  try {
    return solids.fromMesh(leaner(mesh, byMm), what);
  } catch (error) {
    if (!(error instanceof NotASolid)) throw error;
    return solids.simpler(solids.fromMesh(mesh, what), byMm);
  }
}
