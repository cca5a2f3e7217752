import * as THREE from "three";
import { describe, expect, it, vi } from "vitest";
import { InputElement } from "./input.ts";
import { View } from "./view.ts";

/** A standing piece of 600 x 500 x 1900 mm. */
const standing = new THREE.Box3(new THREE.Vector3(-300, -250, 0), new THREE.Vector3(300, 250, 1900));
const lying = new THREE.Box3(new THREE.Vector3(-450, -300, 0), new THREE.Vector3(450, 300, 90));

function viewOf(onChange = vi.fn()) {
  THREE.Object3D.DEFAULT_UP.set(0, 0, 1);
  const element = new InputElement();
  element.resize(730, 680);
  const view = new View(element as unknown as HTMLElement, onChange);
  view.resize(730, 680);
  return { view, element, onChange };
}

/** Where a place is seen, in shares of half the stage. */
function seen({ camera }: View, x: number, y: number, z: number): THREE.Vector3 {
  camera.updateMatrixWorld();
  return new THREE.Vector3(x, y, z).project(camera);
}

function corners(box: THREE.Box3): THREE.Vector3[] {
  return [0, 1, 2, 3, 4, 5, 6, 7].map(
    (c) =>
      new THREE.Vector3(c & 1 ? box.max.x : box.min.x, c & 2 ? box.max.y : box.min.y, c & 4 ? box.max.z : box.min.z),
  );
}

describe("a named view", () => {
  for (const name of ["front", "back", "left", "right", "above", "three-quarter", "pull"] as const) {
    it(`holds the whole piece, and not much more: ${name}`, () => {
      const { view } = viewOf();
      for (const box of [standing, lying]) {
        view.look(name, box, [0.6, -0.64, 0.48]);
        const places = corners(box).map((p) => seen(view, p.x, p.y, p.z));
        const widest = Math.max(...places.flatMap((p) => [Math.abs(p.x), Math.abs(p.y)]));
        expect(widest).toBeLessThan(1);
        expect(widest).toBeGreaterThan(0.6);
        for (const p of places) expect(Math.abs(p.z)).toBeLessThan(1);
      }
    });
  }

  it("stands where its name says", () => {
    const { view } = viewOf();
    view.look("front", standing);
    expect(view.camera.position.y).toBeLessThan(-1000);
    view.look("right", standing);
    expect(view.camera.position.x).toBeGreaterThan(1000);
    view.look("above", standing);
    expect(view.camera.position.z).toBeGreaterThan(3000);
  });

  it("tells that it changed, so that it is drawn", () => {
    const { view, onChange } = viewOf();
    view.look("back", standing);
    expect(onChange).toHaveBeenCalled();
  });
});

describe("the view along a pull", () => {
  const pull = [0.6, -0.64, 0.48] as const;
  /** How far apart two places one behind the other along the pull are seen, in shares of half the stage. */
  const apart = (view: View) => {
    const one = seen(view, 200, -100, 1700);
    const other = seen(view, 200 - 500 * pull[0], -100 - 500 * pull[1], 1700 - 500 * pull[2]);
    return Math.hypot(one.x - other.x, one.y - other.y);
  };

  it("is parallel: what lies behind something along the pull is hidden by it", () => {
    const { view } = viewOf();
    view.look("pull", standing, pull);
    expect(apart(view)).toBeLessThan(0.01);
  });

  it("gives way to an eye near by in any other view, and when a place is gone to", () => {
    const { view } = viewOf();
    view.look("pull", standing, pull);
    view.look("front", standing);
    view.lookAlong(pull, standing);
    expect(apart(view)).toBeGreaterThan(0.05);
    view.look("pull", standing, pull);
    view.comeTo(new THREE.Vector3(100, -200, 1500), standing, 900);
    expect(view.camera.position.distanceTo(new THREE.Vector3(100, -200, 1500))).toBeCloseTo(900, 3);
    const place = seen(view, 100, -200, 1500);
    expect([place.x, place.y].map((x) => Math.abs(x) < 1e-6)).toEqual([true, true]);
  });
});

describe("by keys", () => {
  it("the view is walked round and comes nearer, the same place in its middle", () => {
    const { view } = viewOf();
    view.look("front", standing);
    const before = view.camera.position.clone();
    const middle = view.controls.target.clone();
    view.turn(90, 0);
    expect(view.camera.position.x - middle.x).toBeGreaterThan(0.9 * (middle.y - before.y));
    expect(view.camera.position.distanceTo(middle)).toBeCloseTo(before.distanceTo(middle), 3);
    view.zoom(0.5);
    expect(view.camera.position.distanceTo(middle)).toBeCloseTo(before.distanceTo(middle) / 2, 3);
  });

  it("stands back on a stage that gets narrow, and comes near again when it is wide", () => {
    const { view } = viewOf();
    view.resize(1000, 500);
    view.look("front", standing);
    const away = () => view.camera.position.distanceTo(view.controls.target);
    const before = away();
    view.resize(300, 600);
    expect(away()).toBeCloseTo(2 * before, 3);
    view.resize(900, 600);
    expect(away()).toBeCloseTo(before, 3);
  });
});
