import * as Comlink from "comlink";
import type { HandApi } from "./hand.worker.ts";

export type { GlanceTerms, HandAnswer } from "./hand.worker.ts";

/** A worker for lines laid by hand. `end` stops it at once. */
export class Hand {
  readonly api: Comlink.Remote<HandApi>;
  private readonly worker = new Worker(new URL("./hand.worker.ts", import.meta.url), { type: "module" });

  constructor() {
    this.api = Comlink.wrap<HandApi>(this.worker);
  }

  end(): void {
    this.api[Comlink.releaseProxy]();
    this.worker.terminate();
  }
}
