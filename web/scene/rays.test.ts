import fc from "fast-check";
import * as THREE from "three";
import { describe, expect, it } from "vitest";
import { evenly } from "../../core/testing/random.ts";
import { firstHit } from "./rays.ts";

describe("what a ray meets first", () => {
  // Two knots in a group that is turned and moved, as sections slid out are.
  const group = new THREE.Group();
  for (const x of [-60, 60]) {
    const knot = new THREE.Mesh(new THREE.TorusKnotGeometry(50, 14, 160, 24), new THREE.MeshBasicMaterial());
    knot.material.side = THREE.DoubleSide;
    knot.position.x = x;
    group.add(knot);
  }
  group.position.set(10, -20, 30);
  group.rotation.set(0.4, 0.2, -0.3);
  group.updateMatrixWorld(true);

  it("is what looking through every triangle finds, and leaves their order alone", () => {
    const orders = group.children.map((knot) => [...((knot as THREE.Mesh).geometry.index?.array ?? [])]);
    const aimed = new THREE.Group();
    aimed.copy(group);
    aimed.updateMatrixWorld(true);
    fc.assert(
      fc.property(evenly(-150, 150), evenly(-100, 100), evenly(-0.3, 0.3), evenly(-0.3, 0.3), (x, y, tx, ty) => {
        const ray = new THREE.Ray(new THREE.Vector3(x, y, 400), new THREE.Vector3(tx, ty, -1).normalize());
        const all = new THREE.Raycaster(ray.origin, ray.direction).intersectObject(group)[0];
        const first = firstHit(new THREE.Raycaster(ray.origin, ray.direction), aimed);
        expect(first === undefined).toBe(all === undefined);
        if (first && all) expect(first.point.distanceTo(all.point)).toBeLessThan(1e-3);
      }),
    );
    group.children.forEach((knot, k) => {
      expect([...((knot as THREE.Mesh).geometry.index?.array ?? [])]).toEqual(orders[k]);
    });
  });
});
