import * as Comlink from "comlink";
import type { Answer, GeometryApi, ScanFacts } from "./geometry.worker.ts";

export type { Answer, FirstGlance, PlanFile, ShownOffer, ShownWalls } from "./geometry.worker.ts";

/** A geometry worker with its cancel flag. `end` stops it at once. */
export class Geometry {
  readonly api: Comlink.Remote<GeometryApi>;
  private readonly worker = new Worker(new URL("./geometry.worker.ts", import.meta.url), { type: "module" });
  private readonly flag = typeof SharedArrayBuffer === "undefined" ? null : new SharedArrayBuffer(4);

  constructor() {
    this.api = Comlink.wrap<GeometryApi>(this.worker);
    void this.api.connect(this.flag);
  }

  /** Asks what runs to stop; it answers `cancelled` within a few milliseconds. */
  cancel(): void {
    if (this.flag) Atomics.store(new Int32Array(this.flag), 0, 1);
  }

  /** Lets the next computation run. */
  clear(): void {
    if (this.flag) Atomics.store(new Int32Array(this.flag), 0, 0);
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
  async keep(hash: string, bytes: Uint8Array): Promise<void> {
    await this.api.keep(hash, Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]));
  }

  end(): void {
    this.api[Comlink.releaseProxy]();
    this.worker.terminate();
  }
}

/** A worker that has read a scan just put on the shelf, kept for the course of its piece that opens next. */
let kept: { readonly scanId: string; readonly geometry: Geometry } | null = null;

export function keepFor(scanId: string, geometry: Geometry): void {
  kept?.geometry.end();
  kept = { scanId, geometry };
}

/** The worker that was kept for a scan, if there is one; any other is ended. */
export function takeKept(scanId: string): Geometry | null {
  const held = kept;
  kept = null;
  if (held && held.scanId !== scanId) held.geometry.end();
  return held?.scanId === scanId ? held.geometry : null;
}

export const proxied = Comlink.proxy;
