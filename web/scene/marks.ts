/** Small marks scattered in space: where locks are. */
import * as THREE from "three";
import { filledLock, openLock } from "./materials.ts";

/**
 * Open and filled locks, told apart by shape and size as well as by colour.
 * @param clouds per section: xyz and depth, 4 per point; a negative depth is a filled lock
 */
export function lockMarks(clouds: readonly Float32Array[], radiusMm: number): THREE.InstancedMesh[] {
  const open = clouds.flatMap((cloud) => chosenPoints(cloud, (depth) => depth > 0));
  const filled = clouds.flatMap((cloud) => chosenPoints(cloud, (depth) => depth < 0));
  const side = radiusMm * 0.006;
  return [
    scatter(open, new THREE.OctahedronGeometry(radiusMm * 0.011), openLock()),
    scatter(filled, new THREE.BoxGeometry(side, side, side), filledLock()),
  ];
}

function chosenPoints(cloud: Float32Array, wanted: (depth: number) => boolean): THREE.Vector3[] {
  const out: THREE.Vector3[] = [];
  for (let k = 0; k < cloud.length; k += 4)
    if (wanted(cloud[k + 3])) out.push(new THREE.Vector3(cloud[k], cloud[k + 1], cloud[k + 2]));
  return out;
}

function scatter(
  places: readonly THREE.Vector3[],
  shape: THREE.BufferGeometry,
  material: THREE.Material,
): THREE.InstancedMesh {
  const marks = new THREE.InstancedMesh(shape, material, places.length);
  const matrix = new THREE.Matrix4();
  places.forEach((place, k) => {
    marks.setMatrixAt(k, matrix.makeTranslation(place));
  });
  marks.frustumCulled = false;
  marks.renderOrder = 2;
  return marks;
}
