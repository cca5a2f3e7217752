/** Hands on the stage: dragging a handle, picking a place on the piece, walking round by keys. */
import * as THREE from "three";
import type { Direction } from "../../core/space/directions.ts";
import type { DirectionHandle } from "./handle.ts";
import type { CarriedEvent, InputElement } from "./input.ts";
import type { LineHandles } from "./lineHandles.ts";
import { firstHit } from "./rays.ts";
import type { View } from "./view.ts";

export interface Brush {
  readonly widthMm: number;
  /** What it paints: told back with every dab, for by then another may be chosen. */
  readonly name: string;
}

/** A touch of the brush: the place and the way the surface faces there. */
export interface Dab {
  readonly point: Xyz;
  readonly normal: Xyz;
}

/** What a press does: picks a place, or paints. */
export type Touching = { readonly how: "pick" } | { readonly how: "paint"; readonly brush: Brush };

/** What a press on a surface does. */
export type Touch = Touching & { readonly on: THREE.Object3D };

export type Xyz = [number, number, number];
export type Phase = "begin" | "drag" | "end";

export interface PointerTargets {
  readonly handles: ReadonlyMap<string, DirectionHandle>;
  readonly lineHandles: LineHandles;
  /** What a press may touch; null while nothing is to be picked or painted. */
  touch(): Touch | null;
  /** What the handles of lines are dragged over. */
  surface(): THREE.Object3D;
  onHandle(id: string, direction: Direction, phase: "drag" | "end"): void;
  onLineHandle(id: string, point: Xyz | null, phase: Phase): void;
  onPick(point: Xyz): void;
  /** @param dabs since the last that were told, in order */
  onPaint(dabs: readonly Dab[], phase: Phase, brush: Brush): void;
  draw(): void;
}

/** A press that moves less than this is a click, px. */
const STILL_PX = 5;

/** Dabs of a stroke follow each other at this share of the brush's width, but no nearer than so many px. */
const DAB_SHARE = 0.3;
const LEAST_DAB_PX = 3;
/** A longer jump takes no more dabs. */
const MOST_DABS = 40;

/** A place on the canvas, px. */
type Spot = Pick<CarriedEvent, "clientX" | "clientY">;

const PICK_KEY = "p";

const KEY_TURNS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-10, 0],
  ArrowRight: [10, 0],
  ArrowUp: [0, 8],
  ArrowDown: [0, -8],
};

export class StagePointer {
  /** The handle under the finger. */
  dragged: DirectionHandle | null = null;
  /** The handle of a line under the finger. */
  private lineHandle: string | null = null;
  /** Where the stroke was last, while one is painted. */
  private painted: Spot | null = null;
  private pressed: { readonly x: number; readonly y: number } | null = null;

  constructor(
    private readonly element: InputElement,
    private readonly view: View,
    private readonly targets: PointerTargets,
  ) {
    const on = (type: string, answer: (event: CarriedEvent) => void) =>
      element.addEventListener(type, (event) => answer(event as Event & CarriedEvent));
    on("pointerdown", (event) => this.down(event));
    on("pointermove", (event) => this.move(event));
    on("pointerup", (event) => this.up(event));
    on("keydown", (event) => this.key(event));
  }

  private down(event: CarriedEvent): void {
    this.pressed = { x: event.clientX, y: event.clientY };
    const knobs = [...this.targets.handles.values()].map((handle) => handle.knob);
    const hit = this.rayAt(event).intersectObjects(knobs)[0];
    if (hit) {
      this.dragged = hit.object.userData.handle as DirectionHandle;
      this.hold();
      return;
    }
    const { clientWidth, clientHeight } = this.element;
    const { lineHandles } = this.targets;
    this.lineHandle = lineHandles.at(event.clientX, event.clientY, this.view.camera, clientWidth, clientHeight);
    if (this.lineHandle !== null) {
      this.hold();
      this.targets.onLineHandle(this.lineHandle, null, "begin");
      return;
    }
    const touch = this.targets.touch();
    const dab = touch?.how === "paint" && this.dabAt(event, touch);
    if (!dab) return;
    this.painted = event;
    this.hold();
    this.targets.onPaint([dab], "begin", touch.brush);
  }

  /** Takes the pointer for a drag of our own. */
  private hold(): void {
    this.view.controls.enabled = false;
  }

  private move(event: CarriedEvent): void {
    if (this.dragged) {
      const direction = this.dragged.directionAt(this.rayAt(event).ray);
      this.dragged.point(direction);
      this.targets.draw();
      this.targets.onHandle(this.dragged.id, direction.toArray(), "drag");
    } else if (this.lineHandle !== null) {
      const point = this.still(event) ? null : this.pointOn(event, this.targets.surface());
      if (point) this.targets.onLineHandle(this.lineHandle, point, "drag");
    } else if (this.painted) this.stroke(this.painted, event);
  }

  private up(event: CarriedEvent): void {
    const { dragged, lineHandle, painted } = this;
    [this.dragged, this.lineHandle, this.painted] = [null, null, null];
    this.view.controls.enabled = true;
    if (dragged) {
      this.targets.onHandle(dragged.id, dragged.directionAt(this.rayAt(event).ray).toArray(), "end");
      return;
    }
    if (lineHandle !== null) {
      const point = this.still(event) ? null : this.pointOn(event, this.targets.surface());
      this.targets.onLineHandle(lineHandle, point, "end");
      return;
    }
    if (painted) {
      const touch = this.targets.touch();
      if (touch?.how === "paint") this.targets.onPaint([], "end", touch.brush);
      return;
    }
    const touch = this.targets.touch();
    if (touch?.how !== "pick" || !this.still(event)) return;
    const point = this.pointOn(event, touch.on);
    if (point) this.targets.onPick(point);
  }

  /** Picks what the middle of the stage looks at: the pick of whoever works by keys. */
  private pickMiddle(): void {
    const { clientWidth, clientHeight } = this.element;
    const touch = this.targets.touch();
    const point = touch && this.pointOn({ clientX: clientWidth / 2, clientY: clientHeight / 2 }, touch.on);
    if (point) this.targets.onPick(point);
  }

  private still(event: CarriedEvent): boolean {
    const { pressed } = this;
    return pressed !== null && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < STILL_PX;
  }

  private pointOn(event: Spot, surface: THREE.Object3D): Xyz | null {
    return firstHit(this.rayAt(event), surface)?.point.toArray() ?? null;
  }

  /** Dabs from where the stroke was to where it is: a quick hand skips nothing. */
  private stroke(from: Spot, to: Spot): void {
    const touch = this.targets.touch();
    const last = touch?.how === "paint" && this.dabAt(to, touch);
    if (!last) return;
    const awayMm = this.view.camera.position.distanceTo(new THREE.Vector3(...last.point));
    const pxPerMm = this.element.clientHeight / (2 * awayMm * Math.tan((this.view.camera.fov * Math.PI) / 360));
    const everyPx = Math.max(LEAST_DAB_PX, DAB_SHARE * touch.brush.widthMm * pxPerMm);
    const [x, y] = [to.clientX - from.clientX, to.clientY - from.clientY];
    const steps = Math.min(MOST_DABS, Math.ceil(Math.hypot(x, y) / everyPx));
    const between = Array.from({ length: Math.max(0, steps - 1) }, (_, k) => (k + 1) / steps).flatMap(
      (share) => this.dabAt({ clientX: from.clientX + share * x, clientY: from.clientY + share * y }, touch) ?? [],
    );
    this.painted = to;
    this.targets.onPaint([...between, last], "drag", touch.brush);
  }

  private dabAt(spot: Spot, { on }: Touch): Dab | null {
    const hit = firstHit(this.rayAt(spot), on);
    return hit?.face ? { point: hit.point.toArray(), normal: hit.face.normal.toArray() } : null;
  }

  private key(event: CarriedEvent): void {
    const move = KEY_TURNS[event.key];
    if (move) this.view.turn(...move);
    else if (event.key === "+" || event.key === "=") this.view.zoom(0.88);
    else if (event.key === "-") this.view.zoom(1.14);
    else if (event.key === PICK_KEY && this.targets.touch()?.how === "pick") this.pickMiddle();
  }

  private rayAt(event: Spot): THREE.Raycaster {
    const { clientWidth, clientHeight } = this.element;
    const caster = new THREE.Raycaster();
    caster.setFromCamera(
      new THREE.Vector2((event.clientX / clientWidth) * 2 - 1, 1 - (event.clientY / clientHeight) * 2),
      this.view.camera,
    );
    return caster;
  }
}
