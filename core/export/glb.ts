/** GLB (binary glTF 2.0) of named, coloured parts. Written in metres, Y up, as the format asks. */
import { type Accessor, Document, WebIO } from "@gltf-transform/core";
import type { TriangleMesh } from "../mesh/mesh.ts";

export interface NamedPart {
  readonly name: string;
  readonly mesh: TriangleMesh;
  /** Linear red, green, blue and opacity, 0..1. */
  readonly colour: readonly [number, number, number, number];
}

export async function writeGlb(parts: readonly NamedPart[]): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = "Rimefell";
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const accessor = (type: "VEC3" | "SCALAR", values: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>): Accessor =>
    document.createAccessor().setType(type).setArray(values).setBuffer(buffer);
  for (const { name, mesh, colour } of parts) {
    const [red, green, blue, opacity] = colour;
    const material = document
      .createMaterial(name)
      .setBaseColorFactor([red, green, blue, opacity])
      .setAlphaMode(opacity < 1 ? "BLEND" : "OPAQUE")
      .setDoubleSided(true)
      .setMetallicFactor(0)
      .setRoughnessFactor(0.9);
    const primitive = document
      .createPrimitive()
      .setAttribute("POSITION", accessor("VEC3", yUpMetres(mesh.positions)))
      .setIndices(accessor("SCALAR", Uint32Array.from(mesh.triangles)))
      .setMaterial(material);
    scene.addChild(document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive)));
  }
  return new WebIO().writeBinary(document);
}

function yUpMetres(positions: Float32Array): Float32Array<ArrayBuffer> {
  const out = new Float32Array(positions.length);
  for (let v = 0; v < out.length; v += 3) {
    out[v] = positions[v] / 1000;
    out[v + 1] = positions[v + 2] / 1000;
    out[v + 2] = -positions[v + 1] / 1000;
  }
  return out;
}
