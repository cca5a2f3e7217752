/**
 * The page's hold on the stage. The canvas stands here; it is drawn on a thread of its own (`stage.worker.ts`), which is
 * told what to show and sent what is done on the canvas. What that thread holds already is not sent again.
 */
import * as Comlink from "comlink";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/space/directions.ts";
import type { PieceLook, ShownSection, StageCommands, Touched } from "./drawing.ts";
import type { ShownFastening } from "./fastenings.ts";
import { forwardInput } from "./input.ts";
import type { LineHandle } from "./lineHandles.ts";
import type { Brush, Dab, Phase, Xyz } from "./pointer.ts";
import type { StageApi, StageSize } from "./stage.worker.ts";
import type { NamedView } from "./view.ts";

export type { NamedView } from "./view.ts";

export interface StageListeners {
  onHandle(id: string, direction: Direction, phase: "drag" | "end"): void;
  onPick(point: Xyz): void;
  onLineHandle(id: string, point: Xyz | null, phase: Phase): void;
  onPaint(dabs: readonly Dab[], phase: Phase, brush: Brush): void;
  /** There is no WebGL: nothing will be drawn. */
  onMissing(): void;
}

export class Stage {
  private readonly worker = new Worker(new URL("./stage.worker.ts", import.meta.url), { type: "module" });
  private readonly thread = Comlink.wrap<StageApi>(this.worker);
  private readonly canvas = document.createElement("canvas");
  private readonly observer: ResizeObserver;
  /** What was last sent by each command that sends much. */
  private readonly held = new Map<string, readonly unknown[]>();
  /** Counts what was asked of the thread, so that the last answer is known. */
  private asked = 0;
  private missing = false;
  private started = false;
  private ended = false;

  /** @throws Error where the browser cannot draw on another thread */
  constructor(
    private readonly host: HTMLElement,
    listeners: StageListeners,
  ) {
    const { canvas } = this;
    canvas.className = "block size-full touch-none";
    canvas.tabIndex = 0;
    canvas.setAttribute(
      "aria-label",
      "Stage. Drag to turn, scroll to come nearer, arrow keys to walk round, P to pick what is in the middle.",
    );
    const offscreen = this.offscreen();
    host.append(canvas);
    const emit = Comlink.proxy((name: keyof Omit<StageListeners, "onMissing">, args: unknown[]) => {
      if (!this.ended) (listeners[name] as (...given: unknown[]) => void)(...args);
    });
    this.thread.start(Comlink.transfer(offscreen, [offscreen]), this.size(), emit).then(
      () => {
        this.started = true;
      },
      (error: unknown) => {
        if (this.ended) return;
        console.warn("The stage is not drawn.", error);
        this.missing = true;
        host.removeAttribute("data-drawing");
        listeners.onMissing();
      },
    );
    forwardInput(canvas, async (event) => {
      if (this.missing || this.ended) return;
      const answered = this.thread.input(event);
      this.follow(answered.then(() => this.thread.atRest()));
      await answered;
    });
    this.observer = new ResizeObserver(() => this.resize());
    this.observer.observe(host);
  }

  end(): void {
    this.ended = true;
    this.observer.disconnect();
    this.thread[Comlink.releaseProxy]();
    this.worker.terminate();
    this.canvas.remove();
  }

  setNight(night: boolean): void {
    this.tell("setNight", night);
  }

  setPerson(person: boolean): void {
    this.tell("setPerson", person);
  }

  setPiece(mesh: TriangleMesh, onBoard: boolean): void {
    this.tellOnce("setPiece", [mesh, onBoard], mesh, onBoard);
  }

  /** Clay on the piece, under the jacket. */
  setClay(meshes: readonly TriangleMesh[]): void {
    this.tell("setClay", meshes);
  }

  setPieceLook(look: PieceLook): void {
    this.tell("setPieceLook", look);
  }

  setLamp(direction: Direction): void {
    this.tell("setLamp", direction);
  }

  /** @param open share of the piece laid bare by the cut-away, 0..1 */
  setJacket(mesh: TriangleMesh | null, open: number): void {
    if (mesh) this.tellOnce("setJacket", [mesh], mesh);
    this.tell("showJacket", mesh !== null, open);
  }

  setSections(sections: readonly ShownSection[]): void {
    const parts = sections.flatMap(({ number, skin, pull, fillMm, fillKinds, flanges = [], ribs = [] }) => [
      ...[number, skin, ...pull],
      ...[fillMm, fillKinds],
      ...flanges,
      ...ribs,
    ]);
    if (!this.tellOnce("setSections", parts, sections)) this.tell("putSectionsBack");
  }

  /** Slides a section out along its pull by a share of the piece's size. */
  slideSection(number: number, share: number): void {
    this.tell("slideSection", number, share);
  }

  /** Raises the piece off its board, and the sections that are still on it. */
  raise(byMm: number, numbers: readonly number[]): void {
    this.tell("raise", byMm, numbers);
  }

  setLines(lines: readonly { points: Float32Array; closed: boolean }[]): void {
    const plain = lines.map(({ points, closed }) => ({ points, closed }));
    this.tellOnce(
      "setLines",
      plain.map(({ points }) => points),
      plain,
    );
  }

  /** Small tags that always face the viewer, at places on the piece. */
  setTags(tags: readonly { at: Xyz | readonly [number, number, number]; text: string }[]): void {
    this.tell("setTags", tags);
  }

  /** @param points per section: xyz and depth, 4 per point; a negative depth is a filled lock */
  setLocks(points: readonly Float32Array[]): void {
    this.tellOnce("setLocks", points, points);
  }

  /** The wall that is picked. */
  setWall(face: TriangleMesh | null): void {
    this.tellOnce("setWall", [face], face);
  }

  /** Bolts through the flanges and the dimples of their keys. */
  setFastenings(fastenings: readonly ShownFastening[]): void {
    this.tell("setFastenings", fastenings);
  }

  setHandles(handles: readonly { id: string; direction: Direction; colour: string; kind: "pull" | "lamp" }[]): void {
    this.tell("setHandles", handles);
  }

  /** What a press does, and on what. */
  setTouch(touched: Touched | null): void {
    this.canvas.style.cursor = touched ? "crosshair" : "";
    this.host.toggleAttribute("data-picking", touched?.how === "pick");
    this.tell("setTouch", touched);
  }

  setLineHandles(handles: readonly LineHandle[]): void {
    this.tell("setLineHandles", handles);
  }

  setPicks(points: readonly (readonly [number, number, number])[], stretched = true): void {
    this.tell("setPicks", points, stretched);
  }

  /** The place so far to the right of and above another, as it is looked at; null where nothing is drawn. */
  async beside(at: Xyz, rightMm: number, upMm: number): Promise<Xyz | null> {
    return this.missing ? null : this.thread.beside(at, rightMm, upMm);
  }

  /** Comes near to a place on the piece. */
  comeTo(at: readonly [number, number, number]): void {
    this.tell("comeTo", at);
  }

  look(view: NamedView, along?: Direction): void {
    this.tell("look", view, along);
  }

  private offscreen(): OffscreenCanvas {
    try {
      return this.canvas.transferControlToOffscreen();
    } catch (error) {
      this.worker.terminate();
      throw error;
    }
  }

  private size(): StageSize {
    return {
      width: Math.max(1, this.host.clientWidth),
      height: Math.max(1, this.host.clientHeight),
      pixelRatio: Math.min(2, window.devicePixelRatio),
    };
  }

  private resize(): void {
    if (!this.missing && this.host.clientWidth > 0) this.follow(this.thread.resize(this.size()));
  }

  private tell<K extends keyof StageCommands>(name: K, ...args: Parameters<StageCommands[K]>): void {
    if (!this.missing && !this.ended) this.follow(this.thread.tell(name, args));
  }

  /** @returns whether anything was sent: not where the thread holds the same parts already */
  private tellOnce<K extends keyof StageCommands>(
    name: K,
    parts: readonly unknown[],
    ...args: Parameters<StageCommands[K]>
  ): boolean {
    const held = this.held.get(name);
    if (held?.length === parts.length && parts.every((part, k) => part === held[k])) return false;
    this.held.set(name, parts);
    this.tell(name, ...args);
    return true;
  }

  /** The host is marked as drawing until the last of what was asked is drawn. */
  private follow(answer: Promise<void>): void {
    this.asked++;
    const mine = this.asked;
    this.host.setAttribute("data-drawing", "");
    answer.then(
      () => {
        if (mine === this.asked) this.host.removeAttribute("data-drawing");
      },
      (error: unknown) => {
        // Before the start everything fails with it.
        if (this.started && !this.ended) console.error("The stage could not do what it was told.", error);
      },
    );
  }
}
