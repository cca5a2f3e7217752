/** An arrow round the piece that is dragged to point a pull or a lamp. */
import * as THREE from "three";

/** How far out the knob moves, in radii of the piece: over the jacket of the roundest, and within what a named view shows. */
export const KNOB_REACH = 1.14;
/** The same of the shaft behind it. */
const SHAFT_LENGTH = 0.44;

export class DirectionHandle {
  readonly group = new THREE.Group();
  readonly knob: THREE.Mesh;
  private readonly shaft: THREE.Mesh;
  private readonly centre = new THREE.Vector3();
  private reach = 1;
  private readonly direction = new THREE.Vector3(0, -1, 0);

  constructor(
    readonly id: string,
    colour: string,
    kind: "pull" | "lamp",
  ) {
    const material = new THREE.MeshBasicMaterial({ color: colour });
    this.shaft = new THREE.Mesh(new THREE.CylinderGeometry(0.012, 0.012, 1, 12), material);
    this.knob = new THREE.Mesh(
      kind === "pull" ? new THREE.ConeGeometry(0.055, 0.15, 24) : new THREE.SphereGeometry(0.06, 24, 16),
      material,
    );
    this.knob.userData.handle = this;
    this.group.add(this.shaft, this.knob);
  }

  place(centre: THREE.Vector3, reachMm: number): void {
    this.centre.copy(centre);
    this.reach = reachMm;
    this.point(this.direction);
  }

  point(direction: THREE.Vector3): void {
    this.direction.copy(direction).normalize();
    const turn = new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 1, 0), this.direction);
    const r = this.reach;
    this.shaft.scale.set(r, r * SHAFT_LENGTH, r);
    this.shaft.position.copy(this.centre).addScaledVector(this.direction, r * (KNOB_REACH - SHAFT_LENGTH / 2));
    this.shaft.quaternion.copy(turn);
    this.knob.scale.setScalar(r);
    this.knob.position.copy(this.centre).addScaledVector(this.direction, r * KNOB_REACH);
    this.knob.quaternion.copy(turn);
  }

  /** The direction under a pointer's ray: where it meets the sphere the knob moves on, or passes it closest. */
  directionAt(ray: THREE.Ray): THREE.Vector3 {
    const sphere = new THREE.Sphere(this.centre, this.reach * KNOB_REACH);
    const hit =
      ray.intersectSphere(sphere, new THREE.Vector3()) ?? ray.closestPointToPoint(this.centre, new THREE.Vector3());
    return hit.sub(this.centre).normalize();
  }
}
