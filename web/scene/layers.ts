/** The layers of the stage: groups with a name each, set again as a whole. What a layer held goes with all it took up. */
import * as THREE from "three";

/** From the first that is drawn to the last. */
export const LAYERS = [
  "clay",
  "sections",
  "wall",
  "fastenings",
  "lines",
  "locks",
  "picks",
  "tags",
  "surroundings",
] as const;
export type LayerId = (typeof LAYERS)[number];

/** Layers that rise with the piece off its board; the sections rise by themselves. */
const WITH_PIECE: readonly LayerId[] = ["clay", "wall", "fastenings", "lines", "locks"];

export class Layers {
  private readonly groups: Readonly<Record<LayerId, THREE.Group>>;

  constructor(scene: THREE.Scene) {
    this.groups = Object.fromEntries(LAYERS.map((id) => [id, new THREE.Group()])) as Record<LayerId, THREE.Group>;
    for (const id of LAYERS) {
      this.groups[id].name = id;
      scene.add(this.groups[id]);
    }
  }

  of(id: LayerId): THREE.Group {
    return this.groups[id];
  }

  /** Shows these objects on a layer in place of what it held. */
  set(id: LayerId, objects: readonly THREE.Object3D[]): void {
    const group = this.groups[id];
    for (const child of group.children) disposeOf(child);
    group.clear();
    if (objects.length > 0) group.add(...objects);
  }

  /** @param byMm over where they stand without a lift */
  raiseWithPiece(byMm: number): void {
    for (const id of WITH_PIECE) this.groups[id].position.z = byMm;
  }
}

/** Lets go of the shapes, materials and textures of an object and of all in it. */
export function disposeOf(object: THREE.Object3D): void {
  object.traverse((part) => {
    const { geometry, material } = part as Partial<THREE.Mesh>;
    geometry?.dispose();
    for (const own of [material ?? []].flat()) {
      for (const value of Object.values(own)) if (value instanceof THREE.Texture) value.dispose();
      own.dispose();
    }
    if (part instanceof THREE.InstancedMesh) part.dispose();
  });
}
