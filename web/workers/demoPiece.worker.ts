/** Makes the demo piece, for a shelf that is still empty: a relief of gulls over waves, as a scan would come. */
import * as Comlink from "comlink";
import { writeStl } from "../../core/export/stl.ts";
import { makeRelief } from "../../demo/pieces/relief.ts";

const api = {
  make(): Uint8Array {
    const bytes = writeStl(makeRelief());
    return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
};
export type DemoPieceApi = typeof api;

Comlink.expose(api);
