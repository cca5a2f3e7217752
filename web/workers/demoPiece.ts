import * as Comlink from "comlink";
import type { DemoPieceApi } from "./demoPiece.worker.ts";

/** The demo piece as a scan file; takes a few seconds, on a thread of its own. */
export async function makeDemoScan(): Promise<File> {
  const worker = new Worker(new URL("./demoPiece.worker.ts", import.meta.url), { type: "module" });
  try {
    const bytes = await Comlink.wrap<DemoPieceApi>(worker).make();
    return new File([bytes as Uint8Array<ArrayBuffer>], "Dozing walrus.stl");
  } finally {
    worker.terminate();
  }
}
