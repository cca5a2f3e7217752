/** Where the stage is looked at from: the camera, walking round, and the named views. World space, mm. */
import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Direction } from "../../core/space/directions.ts";

export type NamedView = "front" | "back" | "left" | "right" | "above" | "pull" | "three-quarter";

/** Opening of the camera, degrees: as an eye a few steps away; and so far off that what it sees is seen in parallel. */
const NEAR_FOV = 32;
const PARALLEL_FOV = 1.5;

/** The piece is shown this much smaller than would just fill the stage. */
const MARGIN = 1.24;

export class View {
  readonly camera = new THREE.PerspectiveCamera(NEAR_FOV, 1, 10, 60_000);
  readonly controls: OrbitControls;

  /** @param element what the pointer does happens on this */
  constructor(element: HTMLElement, onChange: () => void) {
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, element);
    this.controls.maxPolarAngle = Math.PI * 0.93;
    this.controls.addEventListener("change", onChange);
  }

  /** On a stage that gets narrow one stands back, so that what was seen across is still seen; and comes near again. */
  resize(width: number, height: number): void {
    const before = this.camera.aspect;
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    const back = Math.min(1, before) / Math.min(1, this.camera.aspect);
    if (back !== 1) this.zoom(back);
  }

  /**
   * Looks at a box from a named side, so that it just fills the stage. Along a pull it is seen in parallel, as the section
   * that leaves that way sees it: what is hidden from the eye is what would lock.
   */
  look(view: NamedView, box: THREE.Box3, along?: Direction): void {
    const from: Record<NamedView, Direction> = {
      front: [0, -1, 0.08],
      back: [0, 1, 0.08],
      left: [-1, 0, 0.08],
      right: [1, 0, 0.08],
      above: [0, -0.02, 1],
      // A relief lying on its board is seen from above.
      "three-quarter": liesFlat(box) ? [0.25, -0.75, 0.95] : [0.45, -1, 0.3],
      pull: along ?? [0, -1, 0],
    };
    this.camera.fov = view === "pull" ? PARALLEL_FOV : NEAR_FOV;
    this.lookAlong(from[view], box);
  }

  /** Looks at a box from a direction. */
  lookAlong(from: Direction, box: THREE.Box3): void {
    const d = new THREE.Vector3(...from).normalize();
    const distance = this.fittingDistance(d, box);
    box.getCenter(this.controls.target);
    this.camera.position.copy(this.controls.target).addScaledVector(d, distance);
    this.camera.near = distance / 100;
    this.camera.far = distance * 20;
    this.camera.updateProjectionMatrix();
    this.controls.update();
  }

  /** Comes near to a place, seen from outside the middle of a box. */
  comeTo(at: THREE.Vector3, box: THREE.Box3, distance: number): void {
    const out = at.clone().sub(box.getCenter(new THREE.Vector3()));
    out.z = 0;
    if (out.length() < 1) out.set(0, -1, 0);
    // From a little above, whatever the place's own height.
    out.normalize().setZ(0.28);
    this.camera.fov = NEAR_FOV;
    this.controls.target.copy(at);
    this.camera.position.copy(at).addScaledVector(out.normalize(), distance);
    this.camera.near = distance / 100;
    this.camera.updateProjectionMatrix();
    this.controls.update();
  }

  /** How far to stand so that a box just fills the stage, seen along -d. */
  private fittingDistance(d: THREE.Vector3, box: THREE.Box3): number {
    const right = new THREE.Vector3().crossVectors(new THREE.Vector3(0, 0, 1), d);
    if (right.lengthSq() < 1e-6) right.set(1, 0, 0);
    right.normalize();
    const up = new THREE.Vector3().crossVectors(d, right);
    const tall = Math.tan((this.camera.fov * Math.PI) / 360);
    const centre = box.getCenter(new THREE.Vector3());
    let distance = 0;
    for (let c = 0; c < 8; c++) {
      const corner = new THREE.Vector3(
        c & 1 ? box.max.x : box.min.x,
        c & 2 ? box.max.y : box.min.y,
        c & 4 ? box.max.z : box.min.z,
      ).sub(centre);
      const near = corner.dot(d);
      distance = Math.max(
        distance,
        near + (Math.abs(corner.dot(up)) * MARGIN) / tall,
        near + (Math.abs(corner.dot(right)) * MARGIN) / (tall * this.camera.aspect),
      );
    }
    return distance;
  }

  /** Turns the view by a key's step, degrees. */
  turn(aroundDeg: number, upDeg: number): void {
    const arm = this.camera.position.clone().sub(this.controls.target);
    const polar = new THREE.Spherical().setFromVector3(new THREE.Vector3(arm.x, arm.z, -arm.y));
    polar.theta += (aroundDeg * Math.PI) / 180;
    polar.phi = Math.min(3, Math.max(0.1, polar.phi - (upDeg * Math.PI) / 180));
    const v = new THREE.Vector3().setFromSpherical(polar);
    this.camera.position.copy(this.controls.target).add(new THREE.Vector3(v.x, -v.z, v.y));
    this.controls.update();
  }

  zoom(factor: number): void {
    this.camera.position.sub(this.controls.target).multiplyScalar(factor).add(this.controls.target);
    this.controls.update();
  }
}

function liesFlat(box: THREE.Box3): boolean {
  const size = box.getSize(new THREE.Vector3());
  return size.z < 0.25 * Math.min(size.x, size.y);
}
