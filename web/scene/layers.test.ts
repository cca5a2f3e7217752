import * as THREE from "three";
import { describe, expect, it } from "vitest";
import { LAYERS, Layers } from "./layers.ts";

describe("a layer of the stage", () => {
  it("lets go of shapes, materials and textures when it is set again", () => {
    const layers = new Layers(new THREE.Scene());
    const gone: string[] = [];
    const texture = new THREE.Texture();
    const material = new THREE.MeshBasicMaterial({ map: texture });
    const shape = new THREE.BufferGeometry();
    const told = { texture, material, shape };
    for (const [name, part] of Object.entries(told))
      (part as THREE.EventDispatcher<{ dispose: object }>).addEventListener("dispose", () => gone.push(name));
    const group = new THREE.Group();
    group.add(new THREE.Mesh(shape, material));
    layers.set("tags", [group]);
    expect(gone).toEqual([]);
    layers.set("tags", []);
    expect(gone.sort()).toEqual(["material", "shape", "texture"]);
    expect(layers.of("tags").children).toEqual([]);
  });

  it("rises with the piece where it lies on it, and stays on the board where it does not", () => {
    const layers = new Layers(new THREE.Scene());
    layers.raiseWithPiece(120);
    const raised = LAYERS.filter((id) => layers.of(id).position.z === 120);
    expect(raised).toEqual(["clay", "wall", "fastenings", "lines", "locks"]);
  });
});
