/** PLY: ASCII and both binary byte orders. Only vertex x, y, z and the face lists are read. */
import type { JobContext } from "../../job/context.ts";
import { IndexList, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import { headText, type RawScan, type ScanFormat } from "./format.ts";
import { ByteScanner } from "./scanner.ts";

interface Property {
  readonly name: string;
  readonly type: string;
  /** Type of the count before a list. */
  readonly countType?: string;
}
interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}

const BYTES: Record<string, number> = {
  char: 1,
  int8: 1,
  uchar: 1,
  uint8: 1,
  short: 2,
  int16: 2,
  ushort: 2,
  uint16: 2,
  int: 4,
  int32: 4,
  uint: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

export const ply: ScanFormat = {
  id: "PLY",
  extensions: ["ply"],
  sniff: (bytes) => /^ply\r?\n/.test(headText(bytes, 8)),
  read,
};

/** Pulls the next value of a type out of the body, whatever its encoding. */
type Source = (type: string) => number;

function read(bytes: Uint8Array, ctx: JobContext): RawScan {
  const { format, elements, bodyStart } = readHeader(bytes);
  const next =
    format === "ascii"
      ? asciiSource(bytes, bodyStart)
      : binarySource(bytes, bodyStart, format === "binary_little_endian");
  let positions = new Float32Array(0);
  const faces = new IndexList();
  for (const element of elements) {
    guardCount(element, bytes.length - bodyStart);
    if (element.name === "vertex") positions = readVertices(element, next, ctx);
    else if (element.name === "face") readFaces(element, next, faces, ctx);
    else for (let k = 0; k < element.count; k++) for (const property of element.properties) skip(property, next);
  }
  return { mesh: makeMesh(positions, faces.done()), up: "z", warnings: [] };
}

function readHeader(bytes: Uint8Array) {
  const head = headText(bytes, 65_536);
  const endMark = /\nend_header\r?\n/.exec(head);
  const format = /\nformat (ascii|binary_little_endian|binary_big_endian) /.exec(head)?.[1];
  if (!endMark || !format) throw new ScanProblem("malformed", "The PLY header is incomplete; export the scan again.");
  const elements: Element[] = [];
  for (const line of head.slice(0, endMark.index + 1).split(/\r?\n/)) {
    const words = line.trim().split(/\s+/);
    if (words[0] === "element") elements.push({ name: words[1], count: Number(words[2]), properties: [] });
    if (words[0] !== "property") continue;
    const list = words[1] === "list";
    const property: Property = list
      ? { name: words[4], type: words[3], countType: words[2] }
      : { name: words[2], type: words[1] };
    if (!BYTES[property.type] || (list && !BYTES[words[2]])) {
      throw new ScanProblem("malformed", `The PLY header has a property of unknown type: ${line.trim().slice(0, 60)}.`);
    }
    elements.at(-1)?.properties.push(property);
  }
  return { format, elements, bodyStart: endMark.index + endMark[0].length };
}

/** A count the file cannot possibly hold is refused before anything is sized by it. */
function guardCount(element: Element, bodyBytes: number): void {
  if (!Number.isInteger(element.count) || element.count < 0 || element.count > bodyBytes) {
    throw new ScanProblem(
      "count-lies",
      `The PLY file promises ${element.count} of "${element.name}" but is too small to hold them.`,
    );
  }
}

function readVertices(element: Element, next: Source, ctx: JobContext): Float32Array<ArrayBuffer> {
  const column = ["x", "y", "z"].map((name) => element.properties.findIndex((property) => property.name === name));
  if (column.includes(-1)) throw new ScanProblem("malformed", "The PLY file's vertices have no x, y and z.");
  const positions = new Float32Array(element.count * 3);
  const centre = new Recentring();
  const point = [0, 0, 0];
  for (let k = 0; k < element.count; k++) {
    for (let c = 0; c < element.properties.length; c++) {
      const property = element.properties[c];
      if (property.countType) skip(property, next);
      else {
        const value = next(property.type);
        const axis = column.indexOf(c);
        if (axis >= 0) point[axis] = value;
      }
    }
    centre.begin(point[0], point[1], point[2]);
    for (let axis = 0; axis < 3; axis++) positions[3 * k + axis] = centre.along(axis, point[axis]);
    if ((k & 0xffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("read", (0.5 * k) / element.count);
    }
  }
  return positions;
}

function readFaces(element: Element, next: Source, faces: IndexList, ctx: JobContext): void {
  for (let k = 0; k < element.count; k++) {
    for (const property of element.properties) {
      if (!property.countType || !property.name.startsWith("vertex_ind")) {
        skip(property, next);
        continue;
      }
      const corners = next(property.countType);
      let first = -1;
      let previous = -1;
      for (let c = 0; c < corners; c++) {
        const v = next(property.type);
        if (c === 0) first = v;
        else {
          if (c > 1) faces.push3(first, previous, v);
          previous = v;
        }
      }
    }
    if ((k & 0xffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("read", 0.5 + (0.5 * k) / element.count);
    }
  }
}

function skip(property: Property, next: Source): void {
  const count = property.countType ? next(property.countType) : 1;
  for (let k = 0; k < count; k++) next(property.type);
}

const CUT_OFF = "The PLY file ends before its last triangle; export or copy it again.";

function asciiSource(bytes: Uint8Array, start: number): Source {
  const scan = new ByteScanner(bytes, start);
  return () => {
    if (!scan.toNext()) throw new ScanProblem("truncated", CUT_OFF);
    return scan.number();
  };
}

function binarySource(bytes: Uint8Array, start: number, little: boolean): Source {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = start;
  return (type) => {
    const here = at;
    at += BYTES[type];
    if (at > view.byteLength) throw new ScanProblem("truncated", CUT_OFF);
    switch (type) {
      case "float":
      case "float32":
        return view.getFloat32(here, little);
      case "int":
      case "int32":
        return view.getInt32(here, little);
      case "uchar":
      case "uint8":
        return view.getUint8(here);
      case "uint":
      case "uint32":
        return view.getUint32(here, little);
      case "double":
      case "float64":
        return view.getFloat64(here, little);
      case "short":
      case "int16":
        return view.getInt16(here, little);
      case "ushort":
      case "uint16":
        return view.getUint16(here, little);
      default:
        return view.getInt8(here);
    }
  };
}
