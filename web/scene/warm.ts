/**
 * Compiling a shader holds the page up when the first thing that wears it is drawn. So the stage compiles them all at
 * its start, in the background, and draws nothing before they are there.
 */
import * as THREE from "three";
import {
  filledLock,
  openLock,
  paper,
  pickDot,
  plaster,
  rubber,
  sectionSkin,
  tape,
  vertexPainted,
} from "./materials.ts";
import { drawn } from "./pace.ts";

/** One small unseen thing of every material that the stage will use. */
export function oneOfEach(cut: THREE.Plane, lamp: THREE.Material): THREE.Group {
  const group = new THREE.Group();
  const shape = new THREE.PlaneGeometry(1, 1);
  shape.setAttribute("color", new THREE.BufferAttribute(new Float32Array(12), 3));
  const clipped = rubber();
  clipped.clippingPlanes = [cut];
  const pixel = new THREE.DataTexture(new Uint8Array(4), 1, 1);
  pixel.needsUpdate = true;
  const figures = new THREE.MeshBasicMaterial({ map: pixel, transparent: true, depthWrite: false });
  const solids = [plaster(), vertexPainted(), clipped, sectionSkin(1), lamp, figures, pickDot()];
  // Board, marker and person are plain solids seen from outside.
  solids.push(new THREE.MeshStandardMaterial());
  for (const material of solids) group.add(new THREE.Mesh(shape, material));
  for (const material of [openLock(), filledLock()]) group.add(new THREE.InstancedMesh(shape, material, 1));
  group.add(new THREE.Sprite(paper(pixel)), new THREE.Line(shape, tape()));
  for (const thing of group.children) thing.frustumCulled = false;
  return group;
}

/**
 * Draws each thing of a group alone, one a frame, so that what the renderer asks of each shader at its first use is
 * asked a little at a time and while nothing else is drawn.
 */
export async function warmUp(
  renderer: THREE.WebGLRenderer,
  scene: THREE.Scene,
  camera: THREE.Camera,
  group: THREE.Group,
): Promise<void> {
  renderer.compile(scene, camera);
  await drawn(renderer);
  for (const thing of group.children) {
    const hidden = [...scene.children, ...group.children].filter(
      (other) => other.visible && other !== group && other !== thing && !(other instanceof THREE.Light),
    );
    for (const other of hidden) other.visible = false;
    renderer.render(scene, camera);
    for (const other of hidden) other.visible = true;
    await drawn(renderer);
  }
  group.visible = false;
}
