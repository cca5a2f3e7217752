/** Thinner copies of meshes for display: quadric simplification by the meshoptimizer package, borders kept. */
import { MeshoptSimplifier } from "meshoptimizer";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { dropUnusedVertices, weld } from "../mesh/weld.ts";

/** Triangles that come of a square of surface as wide as a cell. */
const TRIANGLES_PER_CELL = 2.2;
/** One triangle in so many is measured to tell how much surface there is. */
const SAMPLED = 16;

/**
 * A far thinner copy for a first glance, far sooner than `thinned`: vertex clustering (Rossignac and Borrel 1993), all corners in one cell of a
 * grid are one. Coarser, and not all edges meet two by two.
 * @param mesh may be single triangles, as files hold them
 */
export function thinnedRoughly(mesh: TriangleMesh, triangles: number): TriangleMesh {
  if (mesh.triangles.length / 3 <= triangles) return mesh;
  const areaMm2 = SAMPLED * areaAndVolume({ ...mesh, triangles: everyNth(mesh.triangles, SAMPLED) }).areaMm2;
  const { positions, triangles: joined } = weld(mesh, Math.sqrt((TRIANGLES_PER_CELL * areaMm2) / triangles));
  let kept = 0;
  for (let k = 0; k < joined.length; k += 3) {
    const [a, b, c] = [joined[k], joined[k + 1], joined[k + 2]];
    if (a === b || b === c || c === a) continue;
    joined[kept] = a;
    joined[kept + 1] = b;
    joined[kept + 2] = c;
    kept += 3;
  }
  return { positions, triangles: joined.slice(0, kept) };
}

function everyNth(triangles: Uint32Array, n: number): Uint32Array {
  const out = new Uint32Array(3 * Math.ceil(triangles.length / (3 * n)));
  for (let k = 0; k < out.length; k += 3) out.set(triangles.subarray(n * k, n * k + 3), k);
  return out;
}

/** A mesh with over so many times the triangles wanted is first thinned roughly, to so many times as many. */
const ROUGHLY_FROM = 8;
const ROUGHLY_TO = 4;

/**
 * @param triangles about how many to keep
 * @param errorShare greatest deviation, as a share of the mesh's size
 */
export async function thinned(mesh: TriangleMesh, triangles: number, errorShare = 0.004): Promise<TriangleMesh> {
  if (mesh.triangles.length / 3 <= triangles) return mesh;
  await MeshoptSimplifier.ready;
  const fine = mesh.triangles.length / 3 > ROUGHLY_FROM * triangles;
  const { positions, triangles: from } = fine ? thinnedRoughly(mesh, ROUGHLY_TO * triangles) : mesh;
  const [kept] = MeshoptSimplifier.simplify(from, positions, 3, 3 * triangles, errorShare, ["LockBorder"]);
  return dropUnusedVertices({ positions, triangles: new Uint32Array(kept) });
}
