import type { JobContext } from "../../job/context.ts";
import type { LengthUnit } from "../../units/index.ts";
import type { TriangleMesh } from "../mesh.ts";

/** What a reader hands back: triangles in the file's own unit and axes. */
export interface RawScan {
  readonly mesh: TriangleMesh;
  /** The unit the format or the file declares, if any. */
  readonly unitHint?: LengthUnit;
  /** The up axis the format declares; z where it says nothing. */
  readonly up: "y" | "z";
  readonly warnings: readonly string[];
}

/** One scan format. A new one is a new file beside this plus one line in `index.ts`. */
export interface ScanFormat {
  readonly id: string;
  readonly extensions: readonly string[];
  /** Does the content look like this format? Cheap: reads the first bytes only. */
  sniff(bytes: Uint8Array): boolean;
  /** @throws ScanProblem */
  read(bytes: Uint8Array, ctx: JobContext): RawScan | Promise<RawScan>;
}

/** First bytes as text, for sniffing. */
export function headText(bytes: Uint8Array, length: number): string {
  let text = "";
  for (let k = 0; k < Math.min(length, bytes.length); k++) text += String.fromCharCode(bytes[k]);
  return text;
}
