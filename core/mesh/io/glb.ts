/**
 * GLB (binary glTF 2.0): all triangles of the scene, placed by their nodes. Metres, Y up, by its standard. Compressed and
 * quantised files are read too.
 */
import { type Document, type GLTF, type Node, Primitive, type WebIO } from "@gltf-transform/core";
import { FloatList, IndexList, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import type { RawScan, ScanFormat } from "./format.ts";
import { glbReader, unreadableExtensions } from "./glbReader.ts";

const MAGIC = 0x46546c67;

export const glb: ScanFormat = {
  id: "GLB",
  extensions: ["glb"],
  sniff: (bytes) => bytes.length >= 12 && viewOf(bytes).getUint32(0, true) === MAGIC,
  read,
};

function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

async function read(bytes: Uint8Array): Promise<RawScan> {
  if (bytes.length < 20 || viewOf(bytes).getUint32(8, true) > bytes.length) {
    throw new ScanProblem("truncated", "The GLB file is cut off; export or copy it again.");
  }
  const document = await documentOf(await glbReader(), bytes);
  const positions = new FloatList(new Recentring());
  const triangles = new IndexList();
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const append = (node: Node) => appendNode(node, positions, triangles);
  if (scene) scene.traverse(append);
  else root.listNodes().forEach(append);
  return { mesh: makeMesh(positions.done(), triangles.done()), unitHint: "m", up: "y", warnings: [] };
}

async function documentOf(reader: WebIO, bytes: Uint8Array): Promise<Document> {
  try {
    const packed = await reader.binaryToJSON(bytes);
    const unknown = unreadableExtensions(packed.json.extensionsRequired ?? []);
    if (unknown.length > 0) {
      throw new ScanProblem(
        "unsupported",
        `The GLB file keeps its triangles in a way that cannot be read here (${unknown.join(", ")}); export it as plain glTF 2.0.`,
      );
    }
    if (!holdsWhatItPromises(packed.json)) {
      throw new ScanProblem("count-lies", "The GLB file promises more than it holds; export it again.");
    }
    // Pictures are not looked at, so they need not be there.
    const { images: _images, textures: _textures, materials: _materials, ...shapes } = packed.json;
    for (const mesh of shapes.meshes ?? []) for (const primitive of mesh.primitives) delete primitive.material;
    return await reader.readJSON({ ...packed, json: shapes });
  } catch (error) {
    if (error instanceof ScanProblem) throw error;
    throw new ScanProblem("malformed", "The GLB file is damaged inside and cannot be read; export it again.");
  }
}

/** Bytes of a number by its kind, and numbers of an element by its type. */
const NUMBER_BYTES: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const ELEMENT_NUMBERS: Readonly<Record<string, number>> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT4: 16 };

/** Does every list of numbers lie within its stretch of the file? The reader would cut it short without a word. */
function holdsWhatItPromises({ accessors = [], bufferViews = [] }: GLTF.IGLTF): boolean {
  return accessors.every(({ bufferView, byteOffset = 0, componentType, count, type }) => {
    if (bufferView === undefined) return true;
    const view = bufferViews[bufferView];
    if (!view) return false;
    const size = (NUMBER_BYTES[componentType] ?? 0) * (ELEMENT_NUMBERS[type] ?? 0);
    const stride = view.byteStride ?? size;
    return count === 0 || byteOffset + (count - 1) * stride + size <= view.byteLength;
  });
}

/** Adds the triangles of one node. @throws ScanProblem where they speak of corners that the file does not hold */
function appendNode(node: Node, positions: FloatList, triangles: IndexList): void {
  const m = node.getWorldMatrix();
  for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
    const place = primitive.getAttribute("POSITION");
    if (!place) continue;
    const base = positions.length / 3;
    const count = place.getCount();
    const at: number[] = [0, 0, 0];
    for (let v = 0; v < count; v++) {
      const [x, y, z] = place.getElement(v, at);
      positions.push3(
        m[0] * x + m[4] * y + m[8] * z + m[12],
        m[1] * x + m[5] * y + m[9] * z + m[13],
        m[2] * x + m[6] * y + m[10] * z + m[14],
      );
    }
    const index = primitive.getIndices();
    const corners = index ? index.getCount() : count;
    const corner = (k: number) => {
      const c = index ? index.getScalar(k) : k;
      if (c >= count) throw new ScanProblem("count-lies", "The GLB file promises more than it holds; export it again.");
      return base + c;
    };
    eachTriangle(primitive.getMode(), corners, (a, b, c) => triangles.push3(corner(a), corner(b), corner(c)));
  }
}

/** Visits the corners of each triangle by how they are strung together; points and lines have none. */
function eachTriangle(mode: number, corners: number, visit: (a: number, b: number, c: number) => void): void {
  if (mode === Primitive.Mode.TRIANGLES) for (let k = 0; k + 2 < corners; k += 3) visit(k, k + 1, k + 2);
  if (mode === Primitive.Mode.TRIANGLE_FAN) for (let k = 1; k + 1 < corners; k++) visit(0, k, k + 1);
  if (mode === Primitive.Mode.TRIANGLE_STRIP)
    for (let k = 0; k + 2 < corners; k++) visit(k, k + 1 + (k % 2), k + 2 - (k % 2));
}
