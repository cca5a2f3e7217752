/**
 * The stage: the piece on its board in 3-D. It owns the renderer and draws only when something changed. Everything
 * it shows is set from outside as plain core meshes; it knows nothing of plans.
 */
import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/survey/directions.ts";
import { boardWithScale, personForSize } from "./board.ts";
import { geometryOf, markerLine, paint, stencilPlace } from "./geometry.ts";
import { DirectionHandle } from "./handle.ts";
import {
  countColour,
  marker,
  plaster,
  raking,
  rubber,
  SURVEY_COLOURS,
  sectionSkin,
  vertexPainted,
} from "./materials.ts";
import { stencil } from "./stencil.ts";
import { tag } from "./tag.ts";

export type NamedView = "front" | "back" | "left" | "right" | "above" | "pull" | "three-quarter";
export type PieceLook =
  | { kind: "plaster" }
  | { kind: "lamp" }
  | { kind: "classes"; classes: Uint8Array }
  | { kind: "counts"; counts: Uint8Array; pulls: number }
  | { kind: "hidden" };

export interface ShownSection {
  readonly number: number;
  readonly skin: TriangleMesh;
  readonly pull: Direction;
}

export interface StageEvents {
  onHandle(id: string, direction: Direction, phase: "drag" | "end"): void;
  onPick(point: [number, number, number]): void;
}

/** Draws 3-D when the browser can; throws when there is no WebGL. */
export class Stage {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(32, 1, 10, 60_000);
  private readonly controls: OrbitControls;
  private readonly piece = new THREE.Mesh<THREE.BufferGeometry, THREE.Material>(new THREE.BufferGeometry(), plaster());
  private readonly jacket = new THREE.Mesh<THREE.BufferGeometry, THREE.MeshStandardMaterial>(
    new THREE.BufferGeometry(),
    rubber(),
  );
  private readonly sections = new THREE.Group();
  private readonly lines = new THREE.Group();
  private readonly locks = new THREE.Group();
  private readonly picks = new THREE.Group();
  private readonly tags = new THREE.Group();
  private readonly surroundings = new THREE.Group();
  private readonly handles = new Map<string, DirectionHandle>();
  private readonly cut = new THREE.Plane(new THREE.Vector3(-1, 0, 0), 1e6);
  private readonly lampMaterial = raking();
  private readonly centre = new THREE.Vector3(0, 0, 500);
  private radius = 1000;
  private night = false;
  private onBoard = true;
  private person = false;
  private framed = false;
  private pickable = false;
  private queued = false;
  private dragged: DirectionHandle | null = null;
  private readonly observer: ResizeObserver;

  constructor(
    private readonly host: HTMLElement,
    private readonly events: StageEvents,
  ) {
    THREE.Object3D.DEFAULT_UP.set(0, 0, 1);
    this.renderer = new THREE.WebGLRenderer({ antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.localClippingEnabled = true;
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    host.append(this.renderer.domElement);
    this.renderer.domElement.style.display = "block";
    this.renderer.domElement.tabIndex = 0;
    this.renderer.domElement.setAttribute(
      "aria-label",
      "Stage. Drag to turn, scroll to come nearer, arrow keys to walk round.",
    );
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, this.renderer.domElement);
    this.controls.addEventListener("change", () => this.draw());
    this.controls.maxPolarAngle = Math.PI * 0.93;
    this.light();
    this.jacket.material.clippingPlanes = [this.cut];
    this.jacket.visible = false;
    this.scene.add(
      this.piece,
      this.jacket,
      this.sections,
      this.lines,
      this.locks,
      this.picks,
      this.tags,
      this.surroundings,
    );
    this.observer = new ResizeObserver(() => this.resize());
    this.observer.observe(host);
    this.listen();
    this.resize();
  }

  end(): void {
    this.observer.disconnect();
    this.controls.dispose();
    this.scene.traverse((object) => {
      if (object instanceof THREE.Mesh) object.geometry.dispose();
    });
    this.renderer.dispose();
    this.renderer.forceContextLoss();
    this.renderer.domElement.remove();
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

  setPieceLook(look: PieceLook): void {
    this.piece.visible = look.kind !== "hidden";
    if (look.kind === "classes") {
      const palette = SURVEY_COLOURS.map((css) => new THREE.Color(css));
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

  /** @param open share of the piece laid bare by the cut-away, 0..1 */
  setJacket(mesh: TriangleMesh | null, open: number): void {
    this.jacket.visible = mesh !== null;
    if (mesh && this.jacket.geometry.userData.mesh !== mesh) {
      this.jacket.geometry.dispose();
      this.jacket.geometry = geometryOf(mesh);
      this.jacket.geometry.userData.mesh = mesh;
    }
    const box = this.jacket.geometry.boundingBox ?? new THREE.Box3();
    // The plane keeps what lies on its negative-x side: the knife comes in from the right.
    this.cut.constant = box.max.x + 1 - open * (box.max.x - box.min.x + 2);
    this.draw();
  }

  setSections(sections: readonly ShownSection[]): void {
    this.empty(this.sections);
    for (const section of sections) {
      const group = new THREE.Group();
      group.userData.pull = new THREE.Vector3(...section.pull);
      group.userData.number = section.number;
      group.add(new THREE.Mesh(geometryOf(section.skin), sectionSkin(section.number)));
      const { at, facing } = stencilPlace(section.skin);
      group.add(stencil(section.number, at, facing, this.radius * 0.3));
      this.sections.add(group);
    }
    this.draw();
  }

  /** Slides a section out along its pull by a share of the piece's size. */
  slideSection(number: number, share: number): void {
    for (const group of this.sections.children) {
      if (group.userData.number !== number) continue;
      group.position.copy(group.userData.pull as THREE.Vector3).multiplyScalar(share * this.radius * 1.6);
    }
    this.draw();
  }

  setLines(lines: readonly { points: Float32Array; closed: boolean }[]): void {
    this.empty(this.lines);
    for (const line of lines)
      this.lines.add(new THREE.Mesh(markerLine(line.points, line.closed, this.radius * 0.0045), marker()));
    this.draw();
  }

  /** Small tags that always face the viewer, at places on the piece. */
  setTags(tags: readonly { at: readonly [number, number, number]; text: string }[]): void {
    this.empty(this.tags);
    tags.forEach(({ at, text }, k) => {
      this.tags.add(tag(text, new THREE.Vector3(...at), this.radius * 0.07, k));
    });
    this.draw();
  }

  /** @param points per section: xyz and depth, 4 per point; a negative depth is a filled lock */
  setLocks(points: readonly Float32Array[]): void {
    this.empty(this.locks);
    const open = points.flatMap((cloud) => chosenPoints(cloud, (depth) => depth > 0));
    const filled = points.flatMap((cloud) => chosenPoints(cloud, (depth) => depth < 0));
    // Told apart by shape and size as well as by colour.
    this.locks.add(
      scatter(
        open,
        new THREE.OctahedronGeometry(this.radius * 0.011),
        new THREE.MeshBasicMaterial({ color: "#ff4a12", depthTest: false, transparent: true, opacity: 0.85 }),
      ),
    );
    this.locks.add(
      scatter(
        filled,
        new THREE.BoxGeometry(1, 1, 1).scale(this.radius * 0.006, this.radius * 0.006, this.radius * 0.006),
        new THREE.MeshBasicMaterial({ color: "#f3dfae" }),
      ),
    );
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
      if (handle !== this.dragged) handle.point(new THREE.Vector3(...wanted.direction));
    }
    this.draw();
  }

  setPicks(points: readonly (readonly [number, number, number])[], picking: boolean): void {
    this.pickable = picking;
    this.renderer.domElement.style.cursor = picking ? "crosshair" : "";
    this.empty(this.picks);
    for (const point of points) {
      const dot = new THREE.Mesh(
        new THREE.SphereGeometry(this.radius * 0.012, 20, 14),
        new THREE.MeshBasicMaterial({ color: "#b3401f" }),
      );
      dot.position.set(...point);
      this.picks.add(dot);
    }
    if (points.length === 2) {
      const tape = new THREE.BufferGeometry().setFromPoints(points.map((p) => new THREE.Vector3(...p)));
      this.picks.add(new THREE.Line(tape, new THREE.LineBasicMaterial({ color: "#b3401f", depthTest: false })));
    }
    this.draw();
  }

  look(view: NamedView, along?: Direction): void {
    const from: Record<NamedView, [number, number, number]> = {
      front: [0, -1, 0.08],
      back: [0, 1, 0.08],
      left: [-1, 0, 0.08],
      right: [1, 0, 0.08],
      above: [0, -0.02, 1],
      // A relief lying on its board is looked down upon.
      "three-quarter": this.liesFlat() ? [0.25, -0.75, 0.95] : [0.45, -1, 0.3],
      pull: along ? [along[0], along[1], along[2]] : [0, -1, 0],
    };
    const d = new THREE.Vector3(...from[view]).normalize();
    const distance = this.fittingDistance(d);
    this.controls.target.copy(this.centre);
    this.camera.position.copy(this.centre).addScaledVector(d, distance);
    this.camera.near = distance / 100;
    this.camera.far = distance * 20;
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  private liesFlat(): boolean {
    const size = this.piece.geometry.boundingBox?.getSize(new THREE.Vector3());
    return size !== undefined && size.z < 0.25 * Math.min(size.x, size.y);
  }

  /** How far to stand so that the piece's box just fills the stage, seen along -d. */
  private fittingDistance(d: THREE.Vector3): number {
    const box = this.piece.geometry.boundingBox ?? new THREE.Box3();
    const right = new THREE.Vector3()
      .crossVectors(Math.abs(d.z) > 0.99 ? new THREE.Vector3(0, 1, 0) : new THREE.Vector3(0, 0, 1), d)
      .normalize();
    const up = new THREE.Vector3().crossVectors(d, right);
    const tall = Math.tan((this.camera.fov * Math.PI) / 360);
    let distance = this.radius;
    for (let c = 0; c < 8; c++) {
      const corner = new THREE.Vector3(
        c & 1 ? box.max.x : box.min.x,
        c & 2 ? box.max.y : box.min.y,
        c & 4 ? box.max.z : box.min.z,
      ).sub(this.centre);
      const near = corner.dot(d);
      distance = Math.max(
        distance,
        near + (Math.abs(corner.dot(up)) * 1.24) / tall,
        near + (Math.abs(corner.dot(right)) * 1.24) / (tall * this.camera.aspect),
      );
    }
    return distance;
  }

  /** Turns the view by a key's step, degrees. */
  turn(aroundDeg: number, upDeg: number): void {
    const arm = this.camera.position.clone().sub(this.controls.target);
    const polar = new THREE.Spherical().setFromVector3(new THREE.Vector3(arm.x, arm.z, -arm.y));
    polar.theta += (aroundDeg * Math.PI) / 180;
    polar.phi = Math.min(3, Math.max(0.1, polar.phi - (upDeg * Math.PI) / 180));
    const v = new THREE.Vector3().setFromSpherical(polar);
    this.camera.position.copy(this.controls.target).add(new THREE.Vector3(v.x, -v.z, v.y));
    this.controls.update();
    this.draw();
  }

  zoom(factor: number): void {
    this.camera.position.sub(this.controls.target).multiplyScalar(factor).add(this.controls.target);
    this.controls.update();
    this.draw();
  }

  /** The stage as a small PNG for the shelf. */
  async picture(width: number, height: number): Promise<Blob | null> {
    this.renderer.render(this.scene, this.camera);
    const small = document.createElement("canvas");
    small.width = width;
    small.height = height;
    const from = this.renderer.domElement;
    const scale = Math.max(width / from.width, height / from.height);
    const w = from.width * scale;
    const h = from.height * scale;
    small.getContext("2d")?.drawImage(from, (width - w) / 2, (height - h) / 2, w, h);
    return new Promise((resolve) => small.toBlob(resolve, "image/png"));
  }

  private draw(): void {
    if (this.queued) return;
    this.queued = true;
    requestAnimationFrame(() => {
      this.queued = false;
      this.renderer.render(this.scene, this.camera);
    });
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.host;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.renderer.setSize(clientWidth, clientHeight);
    this.camera.aspect = clientWidth / clientHeight;
    this.camera.updateProjectionMatrix();
    this.draw();
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
    this.empty(this.surroundings);
    const box = this.piece.geometry.boundingBox;
    if (!box) return;
    if (this.onBoard) this.surroundings.add(boardWithScale(box, this.night));
    if (this.person) this.surroundings.add(personForSize(box));
    this.draw();
  }

  private empty(group: THREE.Group): void {
    group.traverse((object) => {
      if (object instanceof THREE.Mesh || object instanceof THREE.Line) object.geometry.dispose();
    });
    group.clear();
  }

  private rayAt(event: PointerEvent): THREE.Raycaster {
    const { left, top, width, height } = this.renderer.domElement.getBoundingClientRect();
    const caster = new THREE.Raycaster();
    caster.setFromCamera(
      new THREE.Vector2(((event.clientX - left) / width) * 2 - 1, 1 - ((event.clientY - top) / height) * 2),
      this.camera,
    );
    return caster;
  }

  private listen(): void {
    const canvas = this.renderer.domElement;
    let pressed: { x: number; y: number } | null = null;
    canvas.addEventListener("pointerdown", (event) => {
      pressed = { x: event.clientX, y: event.clientY };
      const knobs = [...this.handles.values()].map((handle) => handle.group.children[1]);
      const hit = this.rayAt(event).intersectObjects(knobs)[0];
      if (!hit) return;
      this.dragged = hit.object.userData.handle as DirectionHandle;
      this.controls.enabled = false;
      canvas.setPointerCapture(event.pointerId);
    });
    canvas.addEventListener("pointermove", (event) => {
      if (!this.dragged) return;
      const direction = this.dragged.directionAt(this.rayAt(event).ray);
      this.dragged.point(direction);
      this.draw();
      this.events.onHandle(this.dragged.id, direction.toArray(), "drag");
    });
    canvas.addEventListener("pointerup", (event) => {
      if (this.dragged) {
        const direction = this.dragged.directionAt(this.rayAt(event).ray);
        this.events.onHandle(this.dragged.id, direction.toArray(), "end");
        this.dragged = null;
        this.controls.enabled = true;
        return;
      }
      const still = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < 5;
      if (!this.pickable || !still) return;
      const hit = this.rayAt(event).intersectObject(this.piece)[0];
      if (hit) this.events.onPick(hit.point.toArray());
    });
    canvas.addEventListener("keydown", (event) => {
      const step: Record<string, [number, number]> = {
        ArrowLeft: [-10, 0],
        ArrowRight: [10, 0],
        ArrowUp: [0, 8],
        ArrowDown: [0, -8],
      };
      const move = step[event.key];
      if (move) this.turn(...move);
      else if (event.key === "+" || event.key === "=") this.zoom(0.88);
      else if (event.key === "-") this.zoom(1.14);
      else return;
      event.preventDefault();
    });
  }
}

function chosenPoints(cloud: Float32Array, wanted: (depth: number) => boolean): THREE.Vector3[] {
  const out: THREE.Vector3[] = [];
  for (let k = 0; k < cloud.length; k += 4)
    if (wanted(cloud[k + 3])) out.push(new THREE.Vector3(cloud[k], cloud[k + 1], cloud[k + 2]));
  return out;
}

function scatter(
  places: readonly THREE.Vector3[],
  shape: THREE.BufferGeometry,
  material: THREE.Material,
): THREE.InstancedMesh {
  const marks = new THREE.InstancedMesh(shape, material, places.length);
  const matrix = new THREE.Matrix4();
  places.forEach((place, k) => {
    marks.setMatrixAt(k, matrix.makeTranslation(place));
  });
  marks.frustumCulled = false;
  marks.renderOrder = 2;
  return marks;
}
