/** Thinner copies of meshes for display: quadric simplification by the meshoptimizer package, borders kept. */
import { MeshoptSimplifier } from "meshoptimizer";
import type { Kernel, Team } from "../job/team.ts";
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

/** What is to be thinned, and to about how many triangles. */
export interface Thinning {
  readonly mesh: TriangleMesh;
  readonly triangles: number;
}

interface ThinShare extends Thinning {
  /** Out: the thinner mesh, in arrays that would hold the whole; and how many figures of each there are. */
  readonly positions: Float32Array;
  readonly corners: Uint32Array;
  readonly used: Int32Array;
}

export const thinKernel: Kernel<ThinShare> = {
  name: "thin",
  run({ mesh, triangles, positions, corners, used }) {
    const thin = simplified(mesh, triangles);
    positions.set(thin.positions);
    corners.set(thin.triangles);
    used[0] = thin.positions.length;
    used[1] = thin.triangles.length;
  },
};

/** A thread can run `thinKernel` once this is kept. */
export const thinKernelReady: Promise<void> = MeshoptSimplifier.ready;

/** Greatest deviation of a thinner mesh, as a share of the mesh's size. */
const ERROR_SHARE = 0.004;

/** Thinner copies of some meshes, worked out side by side; a mesh that has no more triangles than that is itself. */
export async function thinned(wanted: readonly Thinning[], team: Team): Promise<TriangleMesh[]> {
  await thinKernelReady;
  const tooFine = wanted.filter(({ mesh, triangles }) => mesh.triangles.length / 3 > triangles);
  const shares = tooFine.map(
    ({ mesh, triangles }): ThinShare => ({
      ...{ mesh, triangles },
      positions: new Float32Array(team.buffer(mesh.positions.byteLength)),
      corners: new Uint32Array(team.buffer(mesh.triangles.byteLength)),
      used: new Int32Array(team.buffer(8)),
    }),
  );
  // The largest first, so that the threads end together.
  const bySize = [...shares].sort((a, b) => b.mesh.triangles.length - a.mesh.triangles.length);
  team.run(thinKernel, bySize);
  return wanted.map((one) => {
    const share = shares[tooFine.indexOf(one)];
    if (!share) return one.mesh;
    const [coordinates, corners] = share.used;
    return { positions: ownCopy(share.positions, coordinates), triangles: ownCopy(share.corners, corners) };
  });
}

/** The first figures of an array, in memory of their own: they may be handed to another thread for good. */
function ownCopy<T extends Float32Array | Uint32Array>(array: T, length: number): T {
  const Kind = array.constructor as new (length: number) => T;
  const out = new Kind(length);
  out.set(array.subarray(0, length));
  return out;
}

function simplified(mesh: TriangleMesh, triangles: number): TriangleMesh {
  const fine = mesh.triangles.length / 3 > ROUGHLY_FROM * triangles;
  const { positions, triangles: from } = fine ? thinnedRoughly(mesh, ROUGHLY_TO * triangles) : mesh;
  const [kept] = MeshoptSimplifier.simplify(from, positions, 3, 3 * triangles, ERROR_SHARE, ["LockBorder"]);
  return dropUnusedVertices({ positions, triangles: new Uint32Array(kept) });
}
