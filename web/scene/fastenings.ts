/** Bolts and flange keys on the stage: bolts as rods with a nut at either end, keys as low domes. */
import * as THREE from "three";
import { plaster, steel, wanting } from "./materials.ts";
import type { Xyz } from "./pointer.ts";

export interface ShownFastening {
  readonly kind: "bolt" | "key" | "foot";
  readonly at: Xyz;
  /** Square to the wall, of length one. */
  readonly normal: Xyz;
  readonly radiusMm: number;
  /** Of a bolt or a foot, from end to end. */
  readonly lengthMm: number;
  /** Something speaks against it where it stands: it has another shape as well as colour. */
  readonly trouble: boolean;
}

const UP = new THREE.Vector3(0, 1, 0);

export function fasteningMarks(all: readonly ShownFastening[]): THREE.Object3D[] {
  const of = (kind: ShownFastening["kind"], trouble: boolean) =>
    all.filter((one) => one.kind === kind && one.trouble === trouble);
  return [
    scattered(of("bolt", false), new THREE.CylinderGeometry(1, 1, 1, 12), steel()),
    // A nut at either end.
    ...[-0.5, 0.5].map((end) => {
      const nut = new THREE.CylinderGeometry(2, 2, 0.12, 6).translate(0, 0.92 * end, 0);
      return scattered(of("bolt", false), nut, steel());
    }),
    scattered(of("bolt", true), new THREE.BoxGeometry(4, 1.1, 4), wanting()),
    scattered(of("foot", false), new THREE.CylinderGeometry(1, 1, 1, 16), plaster()),
    scattered(of("key", false), new THREE.SphereGeometry(1, 16, 10), steel(), true),
  ];
}

/** @param round as deep as it is wide: a dome, not a rod */
function scattered(
  all: readonly ShownFastening[],
  shape: THREE.BufferGeometry,
  material: THREE.Material,
  round = false,
): THREE.InstancedMesh {
  const mesh = new THREE.InstancedMesh(shape, material, all.length);
  const matrix = new THREE.Matrix4();
  const turn = new THREE.Quaternion();
  all.forEach(({ at, normal, radiusMm, lengthMm }, k) => {
    turn.setFromUnitVectors(UP, new THREE.Vector3(...normal));
    const size = new THREE.Vector3(radiusMm, round ? 0.6 * radiusMm : lengthMm, radiusMm);
    mesh.setMatrixAt(k, matrix.compose(new THREE.Vector3(...at), turn, size));
  });
  mesh.frustumCulled = false;
  return mesh;
}
