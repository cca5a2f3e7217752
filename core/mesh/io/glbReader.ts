/** The reader of GLB files, with the decoders of the common compressions. */
import { WebIO } from "@gltf-transform/core";
import { EXTMeshoptCompression, KHRDracoMeshCompression, KHRMeshQuantization } from "@gltf-transform/extensions";
import { MeshoptDecoder } from "meshoptimizer";

/** Compressions and encodings of triangles that are read. */
const EXTENSIONS = [KHRMeshQuantization, EXTMeshoptCompression, KHRDracoMeshCompression];
/** Extensions that say what a surface looks like, where it stands or who made it: its triangles are read without them. */
const NO_SHAPE = /^(KHR_materials|KHR_texture|KHR_lights|KHR_xmp|EXT_texture|EXT_lights|MSFT_)/;

/** Brings the bytes of the Draco decoder, where they are kept. */
type DracoLoader = () => Promise<ArrayBuffer | Uint8Array>;

let loadDraco: DracoLoader | null = null;
let reader: Promise<WebIO> | null = null;

/** Tells where the Draco decoder's WebAssembly is to be had: the page fetches it, the server reads it from disk. */
export function provideDraco(load: DracoLoader): void {
  loadDraco = load;
  reader = null;
}

/** Of the extensions that a file needs, those that cannot be done without here. */
export function unreadableExtensions(required: readonly string[]): string[] {
  const known = EXTENSIONS.map(({ EXTENSION_NAME }) => EXTENSION_NAME as string).filter(
    (name) => loadDraco || name !== KHRDracoMeshCompression.EXTENSION_NAME,
  );
  return required.filter((name) => !known.includes(name) && !NO_SHAPE.test(name));
}

/** The reader, made when it is first wanted. */
export function glbReader(): Promise<WebIO> {
  reader ??= makeReader();
  return reader;
}

async function makeReader(): Promise<WebIO> {
  await MeshoptDecoder.ready;
  const io = new WebIO().registerExtensions(EXTENSIONS).registerDependencies({ "meshopt.decoder": MeshoptDecoder });
  if (loadDraco) {
    const { default: createDecoderModule } = await import("draco3dgltf/draco_decoder_gltf_nodejs.js");
    const wasmBinary = await loadDraco();
    io.registerDependencies({ "draco3d.decoder": await createDecoderModule({ wasmBinary }) });
  }
  return io;
}
