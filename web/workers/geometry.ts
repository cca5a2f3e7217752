import * as Comlink from "comlink";
import type { GeometryApi } from "./geometry.worker.ts";

export type { Answer, PlanFile, ShownOffer } from "./geometry.worker.ts";

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

  end(): void {
    this.api[Comlink.releaseProxy]();
    this.worker.terminate();
  }
}

export const proxied = Comlink.proxy;
