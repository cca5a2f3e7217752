/** The handles of lines laid by hand: dots on the lines that are picked and dragged over the surface. */
import * as THREE from "three";

export interface LineHandle {
  readonly id: string;
  readonly at: readonly [number, number, number];
  readonly chosen: boolean;
}

/** A dot is picked within this of its middle, px. */
const PICK_PX = 14;

export class LineHandles {
  readonly group = new THREE.Group();
  private handles: readonly LineHandle[] = [];
  private readonly shape = new THREE.SphereGeometry(1, 14, 10);
  private readonly plain = new THREE.MeshBasicMaterial({ color: "#f7f3e8" });
  private readonly chosen = new THREE.MeshBasicMaterial({
    color: "#b3401f",
    // Drawn after all that is solid: it is seen through whatever stands before it.
    depthTest: false,
    transparent: true,
  });
  private readonly ring = new THREE.MeshBasicMaterial({ color: "#16305c", side: THREE.BackSide });

  set(handles: readonly LineHandle[], radiusMm: number): void {
    this.handles = handles;
    this.group.clear();
    for (const { at, chosen } of handles) {
      const dot = new THREE.Mesh(this.shape, chosen ? this.chosen : this.plain);
      dot.position.set(...at);
      dot.scale.setScalar(radiusMm * (chosen ? 0.013 : 0.0095));
      // A dark rim, so that a dot shows on every pigment.
      const rim = new THREE.Mesh(this.shape, this.ring);
      rim.position.copy(dot.position);
      rim.scale.setScalar(dot.scale.x * 1.3);
      this.group.add(rim, dot);
    }
  }

  /** The handle under a place on the canvas: the nearest to the eye of those within reach. */
  at(x: number, y: number, camera: THREE.Camera, width: number, height: number): string | null {
    const place = new THREE.Vector3();
    let found: string | null = null;
    let nearest = Infinity;
    for (const { id, at } of this.handles) {
      place.set(...at).project(camera);
      const away = Math.hypot(((place.x + 1) / 2) * width - x, ((1 - place.y) / 2) * height - y);
      if (away > PICK_PX || place.z > nearest) continue;
      nearest = place.z;
      found = id;
    }
    return found;
  }

  dispose(): void {
    this.shape.dispose();
    for (const material of [this.plain, this.chosen, this.ring]) material.dispose();
  }
}
