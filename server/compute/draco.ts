/** The decoder of compressed scans, read from where it is installed. */
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { provideDraco } from "../../core/mesh/io/glbReader.ts";

export function provideInstalledDraco(): void {
  const path = createRequire(import.meta.url).resolve("draco3dgltf/draco_decoder_gltf.wasm");
  provideDraco(() => readFile(path));
}
