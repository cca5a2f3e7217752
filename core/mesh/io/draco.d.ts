declare module "draco3dgltf/draco_decoder_gltf_nodejs.js" {
  /** @param options the decoder's WebAssembly */
  export default function createDecoderModule(options: { wasmBinary: ArrayBuffer | Uint8Array }): Promise<unknown>;
}
declare module "draco3dgltf/draco_encoder_gltf_nodejs.js" {
  export default function createEncoderModule(options?: { wasmBinary: ArrayBuffer | Uint8Array }): Promise<unknown>;
}
