/** Makes the demo piece, for a shelf that is still empty: a dozing walrus, as a scan would come. */
import * as Comlink from "comlink";
import { writeStl } from "../../core/export/stl.ts";
import { makeWalrus } from "../../demo/pieces/walrus.ts";

/** Coarser than the demo workshop's own: it is waited for. */
const STEP_MM = 11;

const api = {
  make(): Uint8Array {
    const bytes = writeStl(makeWalrus(STEP_MM));
    return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
};
export type DemoPieceApi = typeof api;

Comlink.expose(api);
