/** GLB (binary glTF 2.0) of named, coloured parts. Written in metres, Y up, as the format asks. */
import type { TriangleMesh } from "../mesh/mesh.ts";

export interface NamedPart {
  readonly name: string;
  readonly mesh: TriangleMesh;
  /** Linear red, green, blue and opacity, 0..1. */
  readonly colour: readonly [number, number, number, number];
}

export function writeGlb(parts: readonly NamedPart[]): Uint8Array {
  const views: { buffer: 0; byteOffset: number; byteLength: number; target: number }[] = [];
  const chunks: Uint8Array[] = [];
  let length = 0;
  const addView = (data: Float32Array | Uint32Array, target: number): number => {
    views.push({ buffer: 0, byteOffset: length, byteLength: data.byteLength, target });
    chunks.push(new Uint8Array(data.buffer, data.byteOffset, data.byteLength));
    length += data.byteLength;
    return views.length - 1;
  };
  const accessors: object[] = [];
  parts.forEach(({ mesh }) => {
    const placed = yUpMetres(mesh.positions);
    const [min, max] = extent(placed);
    accessors.push({
      bufferView: addView(placed, 34962),
      componentType: 5126,
      count: placed.length / 3,
      type: "VEC3",
      min,
      max,
    });
    accessors.push({
      bufferView: addView(mesh.triangles, 34963),
      componentType: 5125,
      count: mesh.triangles.length,
      type: "SCALAR",
    });
  });
  const json = {
    asset: { version: "2.0", generator: "Rimefell" },
    scene: 0,
    scenes: [{ nodes: parts.map((_, k) => k) }],
    nodes: parts.map((part, k) => ({ name: part.name, mesh: k })),
    meshes: parts.map((part, k) => ({
      name: part.name,
      primitives: [{ attributes: { POSITION: 2 * k }, indices: 2 * k + 1, material: k }],
    })),
    materials: parts.map((part) => ({
      name: part.name,
      alphaMode: part.colour[3] < 1 ? "BLEND" : "OPAQUE",
      doubleSided: true,
      pbrMetallicRoughness: { baseColorFactor: part.colour, metallicFactor: 0, roughnessFactor: 0.9 },
    })),
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: length }],
  };
  return assemble(JSON.stringify(json), chunks, length);
}

function yUpMetres(positions: Float32Array): Float32Array {
  const out = new Float32Array(positions.length);
  for (let v = 0; v < out.length; v += 3) {
    out[v] = positions[v] / 1000;
    out[v + 1] = positions[v + 2] / 1000;
    out[v + 2] = -positions[v + 1] / 1000;
  }
  return out;
}

function extent(positions: Float32Array): [number[], number[]] {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let v = 0; v < positions.length; v++) {
    min[v % 3] = Math.min(min[v % 3], positions[v]);
    max[v % 3] = Math.max(max[v % 3], positions[v]);
  }
  return [min, max];
}

function assemble(json: string, chunks: readonly Uint8Array[], length: number): Uint8Array {
  const text = json.padEnd(Math.ceil(json.length / 4) * 4, " ");
  const out = new Uint8Array(12 + 8 + text.length + 8 + length);
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, out.length, true);
  view.setUint32(12, text.length, true);
  view.setUint32(16, 0x4e4f534a, true);
  for (let k = 0; k < text.length; k++) out[20 + k] = text.charCodeAt(k) & 0x7f;
  let at = 20 + text.length;
  view.setUint32(at, length, true);
  view.setUint32(at + 4, 0x004e4942, true);
  at += 8;
  for (const chunk of chunks) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}
