/** Hands on the stage: dragging a handle, picking a place on the piece, walking round by keys. */
import * as THREE from "three";
import type { Direction } from "../../core/survey/directions.ts";
import type { DirectionHandle } from "./handle.ts";
import type { View } from "./view.ts";

export interface PointerTargets {
  readonly handles: ReadonlyMap<string, DirectionHandle>;
  /** What a click picks a place on; null while nothing is to be picked. */
  pickable(): THREE.Object3D | null;
  onHandle(id: string, direction: Direction, phase: "drag" | "end"): void;
  onPick(point: [number, number, number]): void;
  draw(): void;
}

/** A press that moves less than this is a click, px. */
const STILL_PX = 5;

const KEY_TURNS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-10, 0],
  ArrowRight: [10, 0],
  ArrowUp: [0, 8],
  ArrowDown: [0, -8],
};

export class StagePointer {
  /** The handle under the finger. */
  dragged: DirectionHandle | null = null;
  private pressed: { readonly x: number; readonly y: number } | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly view: View,
    private readonly targets: PointerTargets,
  ) {
    canvas.addEventListener("pointerdown", (event) => this.down(event));
    canvas.addEventListener("pointermove", (event) => this.move(event));
    canvas.addEventListener("pointerup", (event) => this.up(event));
    canvas.addEventListener("keydown", (event) => this.key(event));
  }

  private down(event: PointerEvent): void {
    this.pressed = { x: event.clientX, y: event.clientY };
    const knobs = [...this.targets.handles.values()].map((handle) => handle.knob);
    const hit = this.rayAt(event).intersectObjects(knobs)[0];
    if (!hit) return;
    this.dragged = hit.object.userData.handle as DirectionHandle;
    this.view.controls.enabled = false;
    this.canvas.setPointerCapture(event.pointerId);
  }

  private move(event: PointerEvent): void {
    if (!this.dragged) return;
    const direction = this.dragged.directionAt(this.rayAt(event).ray);
    this.dragged.point(direction);
    this.targets.draw();
    this.targets.onHandle(this.dragged.id, direction.toArray(), "drag");
  }

  private up(event: PointerEvent): void {
    if (this.dragged) {
      const direction = this.dragged.directionAt(this.rayAt(event).ray);
      this.targets.onHandle(this.dragged.id, direction.toArray(), "end");
      this.dragged = null;
      this.view.controls.enabled = true;
      return;
    }
    const { pressed } = this;
    const still = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < STILL_PX;
    const pickable = this.targets.pickable();
    if (!pickable || !still) return;
    const hit = this.rayAt(event).intersectObject(pickable)[0];
    if (hit) this.targets.onPick(hit.point.toArray());
  }

  private key(event: KeyboardEvent): void {
    const move = KEY_TURNS[event.key];
    if (move) this.view.turn(...move);
    else if (event.key === "+" || event.key === "=") this.view.zoom(0.88);
    else if (event.key === "-") this.view.zoom(1.14);
    else return;
    event.preventDefault();
  }

  private rayAt(event: PointerEvent): THREE.Raycaster {
    const { left, top, width, height } = this.canvas.getBoundingClientRect();
    const caster = new THREE.Raycaster();
    caster.setFromCamera(
      new THREE.Vector2(((event.clientX - left) / width) * 2 - 1, 1 - ((event.clientY - top) / height) * 2),
      this.view.camera,
    );
    return caster;
  }
}
