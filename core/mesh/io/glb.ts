/** GLB (binary glTF 2.0): all triangle primitives of the scene, placed by their nodes. Metres, Y up, by its standard. */

import { FloatList, IndexList, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import type { RawScan, ScanFormat } from "./format.ts";

const MAGIC = 0x46546c67;
const CHUNK_JSON = 0x4e4f534a;
const CHUNK_BIN = 0x004e4942;

export const glb: ScanFormat = {
  id: "GLB",
  extensions: ["glb"],
  sniff: (bytes) => bytes.length >= 12 && viewOf(bytes).getUint32(0, true) === MAGIC,
  read,
};

interface Accessor {
  bufferView?: number;
  byteOffset?: number;
  componentType: number;
  count: number;
  type: string;
  normalized?: boolean;
  sparse?: unknown;
}
interface GltfNode {
  mesh?: number;
  children?: number[];
  matrix?: number[];
  translation?: number[];
  rotation?: number[];
  scale?: number[];
}
interface Gltf {
  extensionsRequired?: string[];
  scene?: number;
  scenes?: { nodes?: number[] }[];
  nodes?: GltfNode[];
  meshes?: { primitives: { mode?: number; indices?: number; attributes: Record<string, number> }[] }[];
  accessors?: Accessor[];
  bufferViews?: { buffer: number; byteOffset?: number; byteLength: number; byteStride?: number }[];
}

function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

function read(bytes: Uint8Array): RawScan {
  const { json, bin } = readChunks(bytes);
  const needs = (json.extensionsRequired ?? []).filter((name) => /draco|meshopt|quantization/i.test(name));
  if (needs.length > 0) {
    throw new ScanProblem(
      "unsupported",
      `The GLB file is compressed (${needs.join(", ")}); export it without compression.`,
    );
  }
  const positions = new FloatList(new Recentring());
  const triangles = new IndexList();
  const nodes = json.nodes ?? [];
  const roots = json.scenes?.[json.scene ?? 0]?.nodes ?? nodes.map((_, k) => k);
  const visit = (n: number, parent: number[], depth: number) => {
    const node = nodes[n];
    if (!node || depth > 64) return;
    const matrix = multiply(parent, nodeMatrix(node));
    for (const primitive of json.meshes?.[node.mesh ?? -1]?.primitives ?? []) {
      if ((primitive.mode ?? 4) !== 4) continue;
      appendPrimitive(json, bin, primitive, matrix, positions, triangles);
    }
    for (const child of node.children ?? []) visit(child, matrix, depth + 1);
  };
  for (const root of roots) visit(root, IDENTITY, 0);
  return { mesh: makeMesh(positions.done(), triangles.done()), unitHint: "m", up: "y", warnings: [] };
}

function readChunks(bytes: Uint8Array): { json: Gltf; bin: Uint8Array } {
  const view = viewOf(bytes);
  if (bytes.length < 20 || view.getUint32(8, true) > bytes.length) {
    throw new ScanProblem("truncated", "The GLB file is cut off; export or copy it again.");
  }
  let json: Gltf | null = null;
  let bin = new Uint8Array(0);
  for (let at = 12; at + 8 <= bytes.length; ) {
    const length = view.getUint32(at, true);
    const type = view.getUint32(at + 4, true);
    const body = bytes.subarray(at + 8, at + 8 + length);
    if (body.length < length) throw new ScanProblem("truncated", "The GLB file is cut off; export or copy it again.");
    if (type === CHUNK_JSON && !json) json = parseJson(body);
    if (type === CHUNK_BIN && bin.length === 0) bin = body as Uint8Array<ArrayBuffer>;
    at += 8 + length + ((4 - (length % 4)) % 4);
  }
  if (!json) throw new ScanProblem("malformed", "The GLB file has no description chunk; export it again.");
  return { json, bin };
}

function parseJson(body: Uint8Array): Gltf {
  let text = "";
  for (let at = 0; at < body.length; at += 8192) text += String.fromCharCode(...body.subarray(at, at + 8192));
  try {
    return JSON.parse(text) as Gltf;
  } catch {
    throw new ScanProblem("malformed", "The GLB file's description cannot be read; export it again.");
  }
}

function appendPrimitive(
  json: Gltf,
  bin: Uint8Array,
  primitive: { indices?: number; attributes: Record<string, number> },
  m: number[],
  positions: FloatList,
  triangles: IndexList,
): void {
  const place = readAccessor(json, bin, primitive.attributes.POSITION, "VEC3");
  const base = positions.length / 3;
  const count = place.length / 3;
  for (let v = 0; v < count; v++) {
    const [x, y, z] = [place[3 * v], place[3 * v + 1], place[3 * v + 2]];
    positions.push3(
      m[0] * x + m[4] * y + m[8] * z + m[12],
      m[1] * x + m[5] * y + m[9] * z + m[13],
      m[2] * x + m[6] * y + m[10] * z + m[14],
    );
  }
  const index = primitive.indices === undefined ? null : readAccessor(json, bin, primitive.indices, "SCALAR");
  const corners = index ? index.length : count;
  for (let k = 0; k + 2 < corners; k += 3) {
    const corner = (c: number) => base + (index ? index[k + c] : k + c);
    triangles.push3(corner(0), corner(1), corner(2));
  }
}

function readAccessor(
  json: Gltf,
  bin: Uint8Array,
  number: number | undefined,
  type: "VEC3" | "SCALAR",
): ArrayLike<number> {
  const accessor = json.accessors?.[number ?? -1];
  const bufferView = json.bufferViews?.[accessor?.bufferView ?? -1];
  const Array_ = accessor && COMPONENTS[accessor.componentType];
  if (!accessor || !bufferView || !Array_ || accessor.type !== type || accessor.sparse || bufferView.buffer !== 0) {
    throw new ScanProblem(
      "unsupported",
      "The GLB file keeps its triangles in a way that cannot be read here; export it as one plain binary file.",
    );
  }
  const width = type === "VEC3" ? 3 : 1;
  const size = Array_.BYTES_PER_ELEMENT;
  const stride = bufferView.byteStride ?? width * size;
  const start = (bufferView.byteOffset ?? 0) + (accessor.byteOffset ?? 0);
  if (accessor.count > 0 && start + (accessor.count - 1) * stride + width * size > bin.length) {
    throw new ScanProblem("count-lies", "The GLB file promises more triangles than it holds; export it again.");
  }
  const out = new Array_(accessor.count * width);
  const bytes = new Uint8Array(out.buffer);
  for (let k = 0; k < accessor.count; k++) {
    bytes.set(bin.subarray(start + k * stride, start + k * stride + width * size), k * width * size);
  }
  return out;
}

const COMPONENTS: Record<
  number,
  Float32ArrayConstructor | Uint8ArrayConstructor | Uint16ArrayConstructor | Uint32ArrayConstructor
> = {
  5121: Uint8Array,
  5123: Uint16Array,
  5125: Uint32Array,
  5126: Float32Array,
};

const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** Column-major 4x4 product. */
function multiply(a: number[], b: number[]): number[] {
  return IDENTITY.map((_, k) => {
    const row = k % 4;
    const column = k - row;
    return a[row] * b[column] + a[row + 4] * b[column + 1] + a[row + 8] * b[column + 2] + a[row + 12] * b[column + 3];
  });
}

function nodeMatrix(node: GltfNode): number[] {
  if (node.matrix?.length === 16) return node.matrix;
  const [tx, ty, tz] = node.translation ?? [0, 0, 0];
  const [x, y, z, w] = node.rotation ?? [0, 0, 0, 1];
  const [sx, sy, sz] = node.scale ?? [1, 1, 1];
  return [
    (1 - 2 * (y * y + z * z)) * sx,
    2 * (x * y + z * w) * sx,
    2 * (x * z - y * w) * sx,
    0,
    2 * (x * y - z * w) * sy,
    (1 - 2 * (x * x + z * z)) * sy,
    2 * (y * z + x * w) * sy,
    0,
    2 * (x * z + y * w) * sz,
    2 * (y * z - x * w) * sz,
    (1 - 2 * (x * x + y * y)) * sz,
    0,
    tx,
    ty,
    tz,
    1,
  ];
}
