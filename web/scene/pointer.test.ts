import * as THREE from "three";
import { describe, expect, it, vi } from "vitest";
import { DirectionHandle, KNOB_REACH } from "./handle.ts";
import { type CarriedEvent, InputElement } from "./input.ts";
import { LineHandles } from "./lineHandles.ts";
import { type Dab, StagePointer, type Touch } from "./pointer.ts";
import { View } from "./view.ts";

const SIZE = { width: 800, height: 600 };
const R = 100;
const BRUSH_MM = 20;

/** A ball of 100 mm looked at from the front, and hands on it. */
function stage(how: Touch["how"] | null) {
  THREE.Object3D.DEFAULT_UP.set(0, 0, 1);
  const element = new InputElement();
  element.resize(SIZE.width, SIZE.height);
  const view = new View(element as unknown as HTMLElement, () => {});
  view.resize(SIZE.width, SIZE.height);
  const ball = new THREE.Mesh(new THREE.SphereGeometry(R, 64, 48));
  view.lookAlong([0, -1, 0], new THREE.Box3().setFromObject(ball));
  view.camera.updateMatrixWorld();
  const handles = new Map<string, DirectionHandle>();
  const lineHandles = new LineHandles();
  const told = { onHandle: vi.fn(), onLineHandle: vi.fn(), onPick: vi.fn(), onPaint: vi.fn(), draw: vi.fn() };
  new StagePointer(element, view, {
    handles,
    lineHandles,
    touch: () =>
      how && (how === "paint" ? { on: ball, how, brush: { widthMm: BRUSH_MM, name: "fragile" } } : { on: ball, how }),
    surface: () => ball,
    ...told,
  });
  const give = (some: Partial<CarriedEvent> & { type: string }) =>
    element.give({ clientX: 0, clientY: 0, pointerId: 1, key: "", ...some } as CarriedEvent);
  /** The place on the stage, px, where a place of the scene is seen. */
  const spot = (x: number, y: number, z: number) => {
    const seen = new THREE.Vector3(x, y, z).project(view.camera);
    return { clientX: ((seen.x + 1) / 2) * SIZE.width, clientY: ((1 - seen.y) / 2) * SIZE.height };
  };
  const press = (at: { clientX: number; clientY: number }) => give({ type: "pointerdown", ...at });
  const move = (at: { clientX: number; clientY: number }) => give({ type: "pointermove", ...at });
  const lift = (at: { clientX: number; clientY: number }) => give({ type: "pointerup", ...at });
  return { view, handles, lineHandles, told, give, spot, press, move, lift };
}

describe("a press on the piece", () => {
  it("picks the place under it where places are picked", () => {
    const { told, spot, press, lift } = stage("pick");
    const at = spot(30, -Math.sqrt(R * R - 30 * 30 - 20 * 20), 20);
    press(at);
    lift(at);
    const [[point]] = told.onPick.mock.calls;
    expect(Math.hypot(...point)).toBeCloseTo(R, 0);
    expect(point[0]).toBeCloseTo(30, 0);
    expect(point[2]).toBeCloseTo(20, 0);
  });

  it("picks nothing when it turned the view, missed the piece, or nothing is to be picked", () => {
    const picking = stage("pick");
    picking.press(picking.spot(0, -R, 0));
    picking.lift(picking.spot(40, -R, 0));
    picking.press({ clientX: 3, clientY: 3 });
    picking.lift({ clientX: 3, clientY: 3 });
    expect(picking.told.onPick).not.toHaveBeenCalled();
    const idle = stage(null);
    idle.press(idle.spot(0, -R, 0));
    idle.lift(idle.spot(0, -R, 0));
    expect(idle.told.onPick).not.toHaveBeenCalled();
  });

  it("paints a stroke with the way the surface faces, and leaves the view where it is", () => {
    const { view, told, spot, press, move, lift } = stage("paint");
    press(spot(0, -R, 0));
    expect(view.controls.enabled).toBe(false);
    move(spot(25, -Math.sqrt(R * R - 25 * 25), 0));
    lift(spot(25, -Math.sqrt(R * R - 25 * 25), 0));
    expect(told.onPaint.mock.calls.map(([, phase, { name }]) => [phase, name])).toEqual([
      ["begin", "fragile"],
      ["drag", "fragile"],
      ["end", "fragile"],
    ]);
    const { normal } = told.onPaint.mock.calls[1][0].at(-1);
    expect(normal[0]).toBeGreaterThan(0.15);
    expect(normal[1]).toBeLessThan(-0.9);
    expect(view.controls.enabled).toBe(true);
  });

  it("leaves no gap in a quick stroke, and ends one that is led off the piece where it was last", () => {
    const { told, spot, press, move, lift } = stage("paint");
    press(spot(-60, -80, 0));
    move(spot(60, -80, 0));
    move({ clientX: 2, clientY: 2 });
    lift({ clientX: 2, clientY: 2 });
    const dabs = told.onPaint.mock.calls.flatMap(([all]) => (all as Dab[]).map(({ point }) => point));
    for (const [k, dab] of dabs.slice(1).entries()) {
      expect(Math.hypot(...dab.map((value, a) => value - dabs[k][a]))).toBeLessThan(BRUSH_MM / 2);
    }
    expect(dabs.at(-1)?.[0]).toBeCloseTo(60, 0);
    expect(told.onPaint.mock.calls.at(-1)?.[1]).toBe("end");
  });

  it("turns the view where the stroke begins beside the piece", () => {
    const { view, told, press } = stage("paint");
    press({ clientX: 5, clientY: 5 });
    expect(told.onPaint).not.toHaveBeenCalled();
    expect(view.controls.enabled).toBe(true);
  });
});

describe("an arrow", () => {
  it("is taken by its knob and points where the pointer goes", () => {
    const { handles, told, spot, press, move, lift } = stage(null);
    const handle = new DirectionHandle("1", "#743655", "pull");
    handle.place(new THREE.Vector3(), R);
    handle.point(new THREE.Vector3(1, 0, 0));
    handle.group.updateMatrixWorld(true);
    handles.set("1", handle);
    press(spot(KNOB_REACH * R, 0, 0));
    move(spot(0, 0, KNOB_REACH * R));
    lift(spot(0, 0, KNOB_REACH * R));
    expect(told.onHandle.mock.calls.map(([id, , phase]) => [id, phase])).toEqual([
      ["1", "drag"],
      ["1", "end"],
    ]);
    const [, direction] = told.onHandle.mock.calls[1];
    // A little towards the eye: the ray meets the knob's globe in front of its rim.
    expect(direction[2]).toBeGreaterThan(0.9);
  });
});

describe("a dot of a line", () => {
  const at = [20, -Math.sqrt(R * R - 400), 0] as const;

  it("is taken, dragged over the surface and let go", () => {
    const { lineHandles, told, spot, press, move, lift } = stage("pick");
    lineHandles.set([{ id: "0/2", at, chosen: false }], R);
    press(spot(...at));
    move(spot(50, -Math.sqrt(R * R - 2500), 0));
    lift(spot(50, -Math.sqrt(R * R - 2500), 0));
    expect(told.onLineHandle.mock.calls.map(([id, , phase]) => [id, phase])).toEqual([
      ["0/2", "begin"],
      ["0/2", "drag"],
      ["0/2", "end"],
    ]);
    expect(told.onLineHandle.mock.calls[2][1][0]).toBeCloseTo(50, 0);
    expect(told.onPick).not.toHaveBeenCalled();
  });

  it("stays where it is when it is only pressed", () => {
    const { lineHandles, told, spot, press, lift } = stage("pick");
    lineHandles.set([{ id: "0/2", at, chosen: true }], R);
    press(spot(...at));
    lift(spot(...at));
    expect(told.onLineHandle.mock.calls.at(-1)).toEqual(["0/2", null, "end"]);
  });

  it("behind another is not taken before it", () => {
    const { lineHandles, told, spot, press } = stage(null);
    lineHandles.set(
      [
        { id: "behind", at: [0, R, 0], chosen: false },
        { id: "before", at: [0, -R, 0], chosen: false },
      ],
      R,
    );
    press(spot(0, -R, 0));
    expect(told.onLineHandle.mock.calls[0][0]).toBe("before");
  });
});

describe("keys", () => {
  it("walk round, come nearer, and pick what is in the middle", () => {
    const { view, told, give } = stage("pick");
    const before = view.camera.position.clone();
    give({ type: "keydown", key: "ArrowRight" });
    expect(view.camera.position.distanceTo(before)).toBeGreaterThan(10);
    const away = view.camera.position.length();
    give({ type: "keydown", key: "+" });
    expect(view.camera.position.length()).toBeLessThan(away);
    view.camera.updateMatrixWorld();
    give({ type: "keydown", key: "p" });
    const [[point]] = told.onPick.mock.calls;
    expect(Math.hypot(...point)).toBeCloseTo(R, 0);
  });
});
