import * as Comlink from "comlink";
import type { Answer, GeometryApi, ScanFacts } from "./geometry.worker.ts";
import { ENDS } from "./signals.ts";

export type { BuiltSection } from "../../core/plan/builtSections.ts";
export type { Answer, FirstGlance, ShownOffer, ShownSolids } from "./geometry.worker.ts";
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

  /** Number of the last piece of work that was asked for. */
  private issued = 0;

  /** A number for a piece of work: goes with the question, so that it can be ended. */
  ticket(): number {
    return ++this.issued;
  }

  /**
   * Asks all that has been asked for up to now to stop; it answers `cancelled` within a few milliseconds. What is asked
   * later runs, and brings nothing back that was ended.
   */
  cancel(): void {
    this.flag(ENDS.work, this.issued);
  }

  /** Has it work for nobody, so that it is quick by the time it is asked for something; where that could not be ended, it does not. */
  practise(): void {
    if (this.flags) void this.api.practise();
  }

  endPractice(): void {
    this.flag(ENDS.practice, 1);
  }

  private flag(place: number, to: number): void {
    if (this.flags) Atomics.store(new Int32Array(this.flags), place, to);
  }

  /** Reads a scan. The bytes are given away. */
  async open(
    bytes: Uint8Array,
    name: string,
    report: (stage: string, fraction: number) => void,
  ): Promise<Answer<ScanFacts>> {
    return this.api.open(this.ticket(), Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]), name, report);
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
