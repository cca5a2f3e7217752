import * as Comlink from "comlink";
import type { Answer, GeometryApi, ScanFacts } from "./geometry.worker.ts";
import { ENDS } from "./signals.ts";

export type { Answer, FirstGlance, ShownOffer } from "./geometry.worker.ts";
export type { ShownWalls } from "./lookUps.ts";
export type { PlanFile } from "./planFile.ts";

/** A geometry worker with its flags. `end` stops it at once. */
export class Geometry {
  readonly api: Comlink.Remote<GeometryApi>;
  private readonly worker = new Worker(new URL("./geometry.worker.ts", import.meta.url), { type: "module" });
  private readonly flags =
    typeof SharedArrayBuffer === "undefined" ? null : new SharedArrayBuffer(4 * Object.keys(ENDS).length);

  constructor() {
    this.api = Comlink.wrap<GeometryApi>(this.worker);
    void this.api.connect(this.flags);
  }

  /** Asks what runs to stop; it answers `cancelled` within a few milliseconds. */
  cancel(): void {
    this.flag(ENDS.work, 1);
  }

  /** Lets the next computation run. */
  clear(): void {
    this.flag(ENDS.work, 0);
  }

  /** Has it work for nobody, so that it is quick by the time it is asked for something; where that could not be ended, it does not. */
  practise(): void {
    if (this.flags) void this.api.practise();
  }

  endPractice(): void {
    this.flag(ENDS.practice, 1);
  }

  private flag(place: number, to: 0 | 1): void {
    if (this.flags) Atomics.store(new Int32Array(this.flags), place, to);
  }

  /** Reads a scan. The bytes are given away. */
  async open(
    bytes: Uint8Array,
    name: string,
    report: (stage: string, fraction: number) => void,
  ): Promise<Answer<ScanFacts>> {
    return this.api.open(Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]), name, report);
  }

  /** Leaves a result on the server for the next one who opens the piece. The bytes are given away. */
  async keep(partPath: string, hash: string, bytes: Uint8Array): Promise<void> {
    await this.api.keep(partPath, hash, Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]));
  }

  end(): void {
    this.api[Comlink.releaseProxy]();
    this.worker.terminate();
  }
}

/** A worker that practises until it is wanted. */
let spare: Geometry | null = null;

export function readySpare(): void {
  if (spare) return;
  spare = new Geometry();
  spare.practise();
}

/** The worker that was got ready, if there is one, or a new one. */
export function freshGeometry(): Geometry {
  const geometry = spare ?? new Geometry();
  spare = null;
  geometry.endPractice();
  return geometry;
}

export const proxied = Comlink.proxy;
