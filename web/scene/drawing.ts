/**
 * The stage's picture: the piece on its board in 3-D. It owns the renderer and draws only when something changed.
 * Everything it shows is set from outside as plain core meshes; it knows nothing of plans, and nothing of the page: it
 * runs on a thread of its own.
 */
import * as THREE from "three";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/space/directions.ts";
import { boardWithScale, personForSize } from "./board.ts";
import { fasteningMarks, type ShownFastening } from "./fastenings.ts";
import { geometryOf, markerLine, paint } from "./geometry.ts";
import { DirectionHandle } from "./handle.ts";
import type { InputElement } from "./input.ts";
import { Layers } from "./layers.ts";
import { type LineHandle, LineHandles } from "./lineHandles.ts";
import { lockMarks } from "./marks.ts";
import {
  clay,
  countColour,
  marker,
  pickDot,
  pickedWall,
  plaster,
  raking,
  rubber,
  SURVEY_COLOURS,
  tape,
  vertexPainted,
} from "./materials.ts";
import { drawn, keepPrograms } from "./pace.ts";
import { StagePointer, type Touching, type Xyz } from "./pointer.ts";
import { type SectionBody, type ShownSection, sectionBodies } from "./sectionBodies.ts";
import { tag } from "./tag.ts";
import { type NamedView, View } from "./view.ts";

export type PieceLook =
  | { kind: "plaster" }
  | { kind: "lamp" }
  | { kind: "classes"; classes: Uint8Array; palette?: readonly string[] }
  | { kind: "counts"; counts: Uint8Array; pulls: number }
  | { kind: "hidden" };

export type { ShownSection } from "./sectionBodies.ts";

/** What can be pressed on. */
export type Touchable = "piece" | "jacket" | "sections";
/** What a press does, and on what. */
export type Touched = Touching & { readonly on: Touchable };

/** What happens on the stage, told to the page. */
export interface StageEvents {
  emit(name: "onHandle" | "onPick" | "onLineHandle" | "onPaint", args: unknown[]): void;
}

/** What the page may tell the stage. */
export type StageCommands = Omit<StageDrawing, "resize" | "atRest" | "beside">;

/** Draws 3-D when the browser can; throws when there is no WebGL. */
export class StageDrawing {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly view: View;
  private readonly pointer: StagePointer;
  private readonly piece = new THREE.Mesh<THREE.BufferGeometry, THREE.Material>(new THREE.BufferGeometry(), plaster());
  private readonly jacket = new THREE.Mesh<THREE.BufferGeometry, THREE.MeshStandardMaterial>(
    new THREE.BufferGeometry(),
    rubber(),
  );
  private readonly layers = new Layers(this.scene);
  private bodies: readonly SectionBody[] = [];
  private readonly lineHandles = new LineHandles();
  private readonly handles = new Map<string, DirectionHandle>();
  private readonly cut = new THREE.Plane(new THREE.Vector3(-1, 0, 0), 1e6);
  private readonly lampMaterial = raking();
  private readonly centre = new THREE.Vector3(0, 0, 500);
  private radius = 1000;
  private night = false;
  private onBoard = true;
  private person = false;
  private framed = false;
  private touched: Touched | null = null;
  /** Something changed since the last frame was begun. */
  private stale = false;
  private drawing = false;
  /** Who waits for the last change to be drawn. */
  private waiting: (() => void)[] = [];

  /** @param element what is done on the canvas happens on this */
  constructor(canvas: OffscreenCanvas, element: InputElement, { emit }: StageEvents) {
    THREE.Object3D.DEFAULT_UP.set(0, 0, 1);
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.localClippingEnabled = true;
    this.view = new View(element as unknown as HTMLElement, () => this.draw());
    this.pointer = new StagePointer(element, this.view, {
      handles: this.handles,
      lineHandles: this.lineHandles,
      touch: () => this.touched && { ...this.touched, on: this.surfaceOf(this.touched.on) },
      surface: () => this.layers.of("sections"),
      onHandle: (...args) => emit("onHandle", args),
      onPick: (...args) => emit("onPick", args),
      onLineHandle: (...args) => emit("onLineHandle", args),
      onPaint: (...args) => emit("onPaint", args),
      draw: () => this.draw(),
    });
    this.light();
    this.jacket.material.clippingPlanes = [this.cut];
    this.jacket.visible = false;
    this.scene.add(this.piece, this.jacket, this.lineHandles.group);
  }

  setNight(night: boolean): void {
    this.night = night;
    this.dress();
  }

  setPerson(person: boolean): void {
    this.person = person;
    this.dress();
  }

  setPiece(mesh: TriangleMesh, onBoard: boolean): void {
    this.piece.geometry.dispose();
    this.piece.geometry = geometryOf(mesh);
    // What was painted on was the piece before.
    if (this.piece.material.vertexColors) this.setPieceLook({ kind: "plaster" });
    const sphere = this.piece.geometry.boundingSphere as THREE.Sphere;
    const moved =
      this.centre.distanceTo(sphere.center) > 0.25 * this.radius ||
      Math.abs(this.radius - sphere.radius) > 0.25 * this.radius;
    (this.piece.geometry.boundingBox as THREE.Box3).getCenter(this.centre);
    this.radius = sphere.radius;
    this.onBoard = onBoard;
    for (const handle of this.handles.values()) handle.place(this.centre, this.radius);
    this.dress();
    if (!this.framed || moved) this.look("three-quarter");
    this.framed = true;
    this.draw();
  }

  /** Clay on the piece, under the jacket. */
  setClay(meshes: readonly TriangleMesh[]): void {
    this.layers.set(
      "clay",
      meshes.map((mesh) => new THREE.Mesh(geometryOf(mesh), clay())),
    );
    this.draw();
  }

  setPieceLook(look: PieceLook): void {
    this.piece.visible = look.kind !== "hidden";
    this.layers.of("clay").visible = this.piece.visible;
    if (look.kind === "classes") {
      const palette = (look.palette ?? SURVEY_COLOURS).map((css) => new THREE.Color(css));
      paint(this.piece.geometry, (v) => palette[look.classes[v] ?? 0]);
    }
    if (look.kind === "counts") {
      const shades = Array.from({ length: look.pulls + 1 }, (_, k) => countColour(k / look.pulls));
      paint(this.piece.geometry, (v) => shades[Math.min(look.pulls, look.counts[v] ?? 0)]);
    }
    if (this.piece.material !== this.lampMaterial) this.piece.material.dispose();
    this.piece.material =
      look.kind === "lamp"
        ? this.lampMaterial
        : look.kind === "plaster" || look.kind === "hidden"
          ? plaster()
          : vertexPainted();
    this.draw();
  }

  setLamp(direction: Direction): void {
    (this.lampMaterial.uniforms.lamp.value as THREE.Vector3).set(...direction);
    this.draw();
  }

  setJacket(mesh: TriangleMesh): void {
    this.jacket.geometry.dispose();
    this.jacket.geometry = geometryOf(mesh);
    this.draw();
  }

  /** @param open share of the piece laid bare by the cut-away, 0..1 */
  showJacket(shown: boolean, open: number): void {
    this.jacket.visible = shown;
    const box = this.jacket.geometry.boundingBox ?? new THREE.Box3();
    // The plane keeps what lies on its negative-x side: the knife comes in from the right.
    this.cut.constant = box.max.x + 1 - open * (box.max.x - box.min.x + 2);
    this.draw();
  }

  setSections(sections: readonly ShownSection[]): void {
    this.bodies = sectionBodies(sections, this.radius);
    this.layers.set(
      "sections",
      this.bodies.map(({ group }) => group),
    );
    this.draw();
  }

  putSectionsBack(): void {
    for (const body of this.bodies) body.putBack();
    this.raise(0, []);
  }

  /** Raises the piece off its board, and the sections that are still on it. */
  raise(byMm: number, numbers: readonly number[]): void {
    for (const part of [this.piece, this.jacket]) part.position.z = byMm;
    this.layers.raiseWithPiece(byMm);
    for (const body of this.bodies) body.raise(numbers.includes(body.number) ? byMm : 0);
    this.draw();
  }

  /** Slides a section out along its pull by a share of the piece's size. */
  slideSection(number: number, share: number): void {
    for (const body of this.bodies) if (body.number === number) body.slide(share, this.radius);
    this.draw();
  }

  setLines(lines: readonly { points: Float32Array; closed: boolean }[]): void {
    const widthMm = this.radius * 0.0045;
    this.layers.set(
      "lines",
      lines.map(({ points, closed }) => new THREE.Mesh(markerLine(points, closed, widthMm), marker())),
    );
    this.draw();
  }

  /** Small tags that always face the viewer, at places on the piece. */
  setTags(tags: readonly { at: readonly [number, number, number]; text: string }[]): void {
    this.layers.set(
      "tags",
      tags.map(({ at, text }, k) => tag(text, new THREE.Vector3(...at), this.radius * 0.07, k)),
    );
    this.draw();
  }

  /** @param points per section: xyz and depth, 4 per point; a negative depth is a filled lock */
  setLocks(points: readonly Float32Array[]): void {
    this.layers.set("locks", lockMarks(points, this.radius));
    this.draw();
  }

  /** The wall that is picked, in the signal's colour. */
  setWall(face: TriangleMesh | null): void {
    this.layers.set("wall", face ? [new THREE.Mesh(geometryOf(face), pickedWall())] : []);
    this.draw();
  }

  /** Bolts through the flanges and the dimples of their keys. */
  setFastenings(fastenings: readonly ShownFastening[]): void {
    this.layers.set("fastenings", fasteningMarks(fastenings));
    this.draw();
  }

  setHandles(handles: readonly { id: string; direction: Direction; colour: string; kind: "pull" | "lamp" }[]): void {
    for (const [id, handle] of this.handles) {
      if (handles.some((wanted) => wanted.id === id)) continue;
      this.scene.remove(handle.group);
      this.handles.delete(id);
    }
    for (const wanted of handles) {
      let handle = this.handles.get(wanted.id);
      if (!handle) {
        handle = new DirectionHandle(wanted.id, wanted.colour, wanted.kind);
        this.handles.set(wanted.id, handle);
        this.scene.add(handle.group);
        handle.place(this.centre, this.radius);
      }
      if (handle !== this.pointer.dragged) handle.point(new THREE.Vector3(...wanted.direction));
    }
    this.draw();
  }

  /** What a press does, and on what. */
  setTouch(touched: Touched | null): void {
    this.touched = touched;
  }

  private surfaceOf(on: Touchable): THREE.Object3D {
    return { piece: this.piece, jacket: this.jacket, sections: this.layers.of("sections") }[on];
  }

  setLineHandles(handles: readonly LineHandle[]): void {
    this.lineHandles.set(handles, this.radius);
    this.draw();
  }

  setPicks(points: readonly (readonly [number, number, number])[], stretched = true): void {
    const marks: THREE.Object3D[] = points.map((point) => {
      const dot = new THREE.Mesh(new THREE.SphereGeometry(this.radius * 0.012, 20, 14), pickDot());
      dot.position.set(...point);
      return dot;
    });
    if (stretched && points.length === 2) {
      const stretch = new THREE.BufferGeometry().setFromPoints(points.map((p) => new THREE.Vector3(...p)));
      marks.push(new THREE.Line(stretch, tape()));
    }
    this.layers.set("picks", marks);
    this.draw();
  }

  /** The place so far to the right of and above another, as it is looked at. */
  beside(at: Xyz, rightMm: number, upMm: number): Xyz {
    const across = new THREE.Vector3().setFromMatrixColumn(this.view.camera.matrixWorld, 0);
    const up = new THREE.Vector3().setFromMatrixColumn(this.view.camera.matrixWorld, 1);
    return new THREE.Vector3(...at).addScaledVector(across, rightMm).addScaledVector(up, upMm).toArray();
  }

  /** Comes near to a place on the piece. */
  comeTo(at: readonly [number, number, number]): void {
    const box = this.piece.geometry.boundingBox;
    if (!box) return;
    this.view.comeTo(new THREE.Vector3(...at), box, this.radius * 1.1);
    this.draw();
  }

  look(view: NamedView, along?: Direction): void {
    const box = this.piece.geometry.boundingBox;
    if (!box) return;
    this.view.look(view, box, along);
    this.draw();
  }

  /** Resolves when everything that has changed is drawn. */
  atRest(): Promise<void> {
    if (!this.drawing) return Promise.resolve();
    return new Promise((resolve) => {
      this.waiting.push(resolve);
    });
  }

  resize(width: number, height: number, pixelRatio: number): void {
    this.renderer.setPixelRatio(pixelRatio);
    this.renderer.setSize(width, height, false);
    this.view.resize(width, height);
    this.draw();
  }

  private draw(): void {
    this.stale = true;
    if (this.drawing) return;
    this.drawing = true;
    requestAnimationFrame(async () => {
      this.stale = false;
      this.renderer.render(this.scene, this.view.camera);
      keepPrograms(this.renderer);
      // One frame at a time: on a slow machine frames would pile up.
      await drawn(this.renderer);
      this.drawing = false;
      if (this.stale) {
        this.draw();
        return;
      }
      const { waiting } = this;
      this.waiting = [];
      for (const answer of waiting) answer();
    });
  }

  private light(): void {
    const key = new THREE.DirectionalLight("#fff6e6", 2.3);
    key.position.set(-0.7, -0.9, 1.1);
    const fill = new THREE.DirectionalLight("#cfe0ee", 0.7);
    fill.position.set(1, 0.4, 0.3);
    const back = new THREE.DirectionalLight("#ffffff", 0.55);
    back.position.set(0.1, 1, 0.6);
    this.scene.add(key, fill, back, new THREE.HemisphereLight("#ffffff", "#8d8578", 0.75));
  }

  private dress(): void {
    const box = this.piece.geometry.boundingBox;
    if (!box) return;
    const board = this.onBoard ? [boardWithScale(box, this.night)] : [];
    this.layers.set("surroundings", this.person ? [...board, personForSize(box)] : board);
    this.draw();
  }
}
