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

/** A standing figure of 1.75 m, plain as a lay figure, behind the piece and to its left. */
export function personForSize(box: THREE.Box3): THREE.Group {
  const group = new THREE.Group();
  const cloth = new THREE.MeshStandardMaterial({ color: "#8a979e", roughness: 1, transparent: true, opacity: 0.7 });
  const add = (shape: THREE.BufferGeometry, x: number, z: number, lean = 0) => {
    const mesh = new THREE.Mesh(shape.rotateX(Math.PI / 2).rotateY(lean), cloth);
    mesh.position.set(x, 0, z);
    group.add(mesh);
  };
  add(new THREE.SphereGeometry(98, 24, 18).scale(0.82, 1.15, 1), 0, 1636);
  add(new THREE.CylinderGeometry(46, 52, 90, 16), 0, 1500);
  // Shoulders to waist, and waist to hips.
  add(new THREE.CylinderGeometry(205, 140, 420, 28), 0, 1255);
  add(new THREE.CylinderGeometry(140, 168, 210, 28), 0, 940);
  for (const side of [-1, 1]) {
    add(new THREE.CylinderGeometry(86, 46, 800, 18), side * 84, 440);
    add(new THREE.SphereGeometry(58, 16, 12), side * 84, 42);
    add(new THREE.CylinderGeometry(54, 32, 640, 14), side * 246, 1130, side * -0.09);
  }
  group.scale.y = 0.62;
  group.position.set(box.min.x - 420, box.max.y + 150, 0);
  return group;
}
