/** What a ray meets first. Large meshes are searched by a tree of boxes, built when they are first aimed at. */
import * as THREE from "three";
import { acceleratedRaycast, MeshBVH } from "three-mesh-bvh";

/** Fewer triangles than this are looked through sooner than a tree of them is built. */
const FEW_TRIANGLES = 2000;

export function firstHit(caster: THREE.Raycaster, object: THREE.Object3D): THREE.Intersection | undefined {
  object.traverse((part) => {
    if (!(part instanceof THREE.Mesh)) return;
    const geometry = part.geometry as THREE.BufferGeometry;
    if (geometry.boundsTree || (geometry.index?.count ?? 0) < 3 * FEW_TRIANGLES) return;
    // Indirect: the triangles' order is the core's, and stays.
    geometry.boundsTree = new MeshBVH(geometry, { indirect: true });
    part.raycast = acceleratedRaycast;
  });
  caster.firstHitOnly = true;
  return caster.intersectObject(object)[0];
}
