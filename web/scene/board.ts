/** The base board with a rule along its front edge, and a person for size. */
import * as THREE from "three";

const STRIPE_MM = 100;

export function boardWithScale(box: THREE.Box3, night: boolean): THREE.Group {
  const group = new THREE.Group();
  const size = box.getSize(new THREE.Vector3());
  const middle = box.getCenter(new THREE.Vector3());
  const margin = 160 + 0.12 * Math.max(size.x, size.y);
  const width = Math.ceil((size.x + 2 * margin) / STRIPE_MM) * STRIPE_MM;
  const depth = Math.ceil((size.y + 2 * margin) / STRIPE_MM) * STRIPE_MM;
  const board = new THREE.Mesh(
    new THREE.BoxGeometry(width, depth, 18),
    new THREE.MeshStandardMaterial({ color: night ? "#4a4339" : "#c8b695", roughness: 0.95 }),
  );
  board.position.set(middle.x, middle.y, -9.5);
  group.add(board);
  // The rule: hundred-millimetre stripes, dark and light, along the front edge.
  for (let k = 0; k < width / STRIPE_MM; k++) {
    const stripe = new THREE.Mesh(
      new THREE.BoxGeometry(STRIPE_MM, 16, 1.5),
      new THREE.MeshStandardMaterial({ color: k % 2 === 0 ? "#22303a" : "#fbf9f5", roughness: 0.9 }),
    );
    stripe.position.set(middle.x - width / 2 + (k + 0.5) * STRIPE_MM, middle.y - depth / 2 + 14, 0.4);
    group.add(stripe);
  }
  return group;
}

/** A standing figure of 1.75 m, plain as a lay figure. */
export function personForSize(box: THREE.Box3): THREE.Group {
  const group = new THREE.Group();
  const cloth = new THREE.MeshStandardMaterial({ color: "#7d8a91", roughness: 1, transparent: true, opacity: 0.6 });
  const add = (shape: THREE.BufferGeometry, x: number, z: number, tilt = 0) => {
    const mesh = new THREE.Mesh(shape, cloth);
    mesh.rotation.set(Math.PI / 2, 0, 0);
    mesh.rotateZ(tilt);
    mesh.position.set(x, 0, z);
    group.add(mesh);
  };
  add(new THREE.SphereGeometry(105, 20, 16), 0, 1640);
  add(new THREE.CapsuleGeometry(150, 380, 6, 16), 0, 1190);
  for (const side of [-1, 1]) {
    add(new THREE.CapsuleGeometry(72, 720, 6, 12), side * 90, 432);
    add(new THREE.CapsuleGeometry(48, 560, 6, 12), side * 232, 1120, side * 0.12);
  }
  group.position.set(box.max.x + 480, (box.min.y + box.max.y) / 2, 0);
  return group;
}
