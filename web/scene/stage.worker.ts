/**
 * Draws the stage on a thread of its own: neither a frame, nor the making of shaders, nor a ray through a large mesh
 * holds the page up.
 */
import * as Comlink from "comlink";
import { type StageCommands, StageDrawing, type StageEvents } from "./drawing.ts";
import { loadFaces } from "./faces.ts";
import { type CarriedEvent, InputElement } from "./input.ts";
import type { Xyz } from "./pointer.ts";

export interface StageSize {
  readonly width: number;
  readonly height: number;
  readonly pixelRatio: number;
}

class StageThread {
  private readonly element = new InputElement();
  private readonly began: Promise<StageDrawing>;
  private begin: (drawing: Promise<StageDrawing>) => void = () => {};

  constructor() {
    this.began = new Promise((resolve) => {
      this.begin = resolve;
    });
  }

  /** @throws Error where there is no WebGL; everything asked after that fails the same way */
  async start(canvas: OffscreenCanvas, size: StageSize, emit: StageEvents["emit"]): Promise<void> {
    const make = async () => {
      await loadFaces();
      return new StageDrawing(canvas, this.element, { emit });
    };
    this.begin(make());
    await this.resize(size);
  }

  /** Carries out a command; resolves when all that was told so far is drawn. */
  async tell<K extends keyof StageCommands>(name: K, args: Parameters<StageCommands[K]>): Promise<void> {
    const drawing = await this.began;
    (drawing[name] as (...given: Parameters<StageCommands[K]>) => void)(...args);
    await drawing.atRest();
  }

  async resize({ width, height, pixelRatio }: StageSize): Promise<void> {
    const drawing = await this.began;
    this.element.resize(width, height);
    drawing.resize(width, height, pixelRatio);
    await drawing.atRest();
  }

  /** Answers an event; what it changes is drawn later. */
  async input(event: CarriedEvent): Promise<void> {
    await this.began;
    this.element.give(event);
  }

  async atRest(): Promise<void> {
    await (await this.began).atRest();
  }

  async beside(at: Xyz, rightMm: number, upMm: number): Promise<Xyz> {
    return (await this.began).beside(at, rightMm, upMm);
  }
}

export type StageApi = StageThread;
Comlink.expose(new StageThread());
