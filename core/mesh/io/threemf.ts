/** 3MF: a zip with XML models. Objects, components and build items with their transforms. The unit is declared. */
import { Unzip, UnzipInflate } from "fflate";
import type { JobContext } from "../../job/context.ts";
import type { LengthUnit } from "../../units/index.ts";
import { FloatList, IndexList, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import type { RawScan, ScanFormat } from "./format.ts";
import { scanTags } from "./xml.ts";

/** Unpacked size beyond which a package is refused: a 2 million triangle model is about 300 MB of XML. */
const UNPACKED_LIMIT_BYTES = 600e6;
/** Triangles of all parts as they are placed, each as often as it is: more than any scan this program takes. */
const MOST_TRIANGLES = 30e6;
/** So many parts are placed at most; one without a triangle counts too, for parts of parts of nothing would go on for ever. */
const MOST_PARTS = 200_000;
/** No honest mesh XML packs tighter than this. */
const HONEST_RATIO = 120;

export const threemf: ScanFormat = {
  id: "3MF",
  extensions: ["3mf"],
  sniff: (bytes) => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4,
  read,
};

interface ModelObject {
  readonly vertices: FloatList;
  readonly triangles: IndexList;
  readonly components: { id: string; transform: number[] }[];
}

function read(bytes: Uint8Array, ctx: JobContext): RawScan {
  const objects = new Map<string, ModelObject>();
  const build: { id: string; transform: number[] }[] = [];
  let unit = "millimeter";
  for (const [path, xml] of unpackModels(bytes, ctx)) {
    let current: ModelObject | null = null;
    scanTags(xml, (name, attribute) => {
      if (name === "vertex")
        current?.vertices.push3(attribute.number("x"), attribute.number("y"), attribute.number("z"));
      else if (name === "triangle")
        current?.triangles.push3(attribute.number("v1"), attribute.number("v2"), attribute.number("v3"));
      else if (name === "model") unit = attribute.text("unit") ?? unit;
      else if (name === "object") {
        current = { vertices: new FloatList(), triangles: new IndexList(), components: [] };
        objects.set(`${path}#${attribute.text("id")}`, current);
      } else if (name === "component" || name === "item") {
        const place = attribute.text("path")?.replace(/^\//, "") ?? path;
        const entry = {
          id: `${place}#${attribute.text("objectid")}`,
          transform: transformOf(attribute.text("transform")),
        };
        if (name === "item") build.push(entry);
        else current?.components.push(entry);
      }
    });
    ctx.checkCancelled();
  }
  const positions = new FloatList(new Recentring());
  const triangles = new IndexList();
  let [placed, parts] = [0, 0];
  const count = (triangleCount: number) => {
    placed += triangleCount;
    parts++;
    ctx.checkCancelled();
    if (placed > MOST_TRIANGLES || parts > MOST_PARTS)
      throw new ScanProblem(
        "too-large",
        "The 3MF package repeats its parts far more often than a scan would; it was refused.",
      );
  };
  const items = build.length > 0 ? build : [...objects.keys()].map((id) => ({ id, transform: UNMOVED }));
  for (const item of items) place(objects, item.id, item.transform, { positions, triangles, count }, 0);
  return {
    mesh: makeMesh(positions.done(), triangles.done()),
    unitHint: UNITS[unit] ?? "mm",
    up: "z",
    warnings: unitWarnings(unit),
  };
}

const UNITS: Record<string, LengthUnit> = { millimeter: "mm", centimeter: "cm", meter: "m", inch: "in" };

function unitWarnings(unit: string): string[] {
  return UNITS[unit] ? [] : [`The 3MF file's unit "${unit.slice(0, 20)}" is read as millimetres; check the size.`];
}

const DAMAGED = "The 3MF package is damaged; export or copy it again.";

const UNMOVED = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

function transformOf(text: string | undefined): number[] {
  const values = text?.trim().split(/\s+/).map(Number) ?? [];
  return values.length === 12 && values.every(Number.isFinite) ? values : UNMOVED;
}

/** Where parts are placed, and what counts them. */
interface Placed {
  readonly positions: FloatList;
  readonly triangles: IndexList;
  readonly count: (triangles: number) => void;
}

/** Row-vector convention: p' = p A + shift, A the first nine figures by rows. */
function place(objects: Map<string, ModelObject>, id: string, m: number[], out: Placed, depth: number): void {
  const { positions, triangles, count } = out;
  const object = objects.get(id);
  if (!object || depth > 32) return;
  count(object.triangles.length / 3);
  const base = positions.length / 3;
  const p = object.vertices.data;
  for (let k = 0; k < object.vertices.length; k += 3) {
    positions.push3(
      p[k] * m[0] + p[k + 1] * m[3] + p[k + 2] * m[6] + m[9],
      p[k] * m[1] + p[k + 1] * m[4] + p[k + 2] * m[7] + m[10],
      p[k] * m[2] + p[k + 1] * m[5] + p[k + 2] * m[8] + m[11],
    );
  }
  const t = object.triangles.data;
  for (let k = 0; k < object.triangles.length; k += 3) triangles.push3(base + t[k], base + t[k + 1], base + t[k + 2]);
  for (const part of object.components) place(objects, part.id, compose(part.transform, m), out, depth + 1);
}

function compose(inner: number[], outer: number[]): number[] {
  const out: number[] = [];
  for (let row = 0; row < 4; row++) {
    for (let column = 0; column < 3; column++) {
      let sum = row === 3 ? outer[9 + column] : 0;
      for (let k = 0; k < 3; k++) sum += inner[3 * row + k] * outer[3 * k + column];
      out.push(sum);
    }
  }
  return out;
}

/** Inflates the model parts with a running count, so that a package swollen on purpose is refused early. */
function unpackModels(bytes: Uint8Array, ctx: JobContext): [string, Uint8Array][] {
  const models: [string, Uint8Array][] = [];
  let unpacked = 0;
  // The unpacker turns what is thrown inside it into its own error: the first problem is kept here.
  let problem: ScanProblem | null = null;
  const unzip = new Unzip((file) => {
    if (!/\.model$/i.test(file.name)) return;
    const chunks: Uint8Array[] = [];
    file.ondata = (error, chunk, final) => {
      if (error) throw problem ?? new ScanProblem("malformed", DAMAGED);
      unpacked += chunk.length;
      if (unpacked > UNPACKED_LIMIT_BYTES || (unpacked > 20e6 && unpacked > bytes.length * HONEST_RATIO)) {
        problem = new ScanProblem(
          "too-large",
          "The 3MF package unpacks to far more than a scan would; it was refused.",
        );
        throw problem;
      }
      chunks.push(chunk);
      if (final) models.push([file.name.replace(/^\//, ""), joined(chunks)]);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  const STEP = 1 << 16;
  try {
    for (let at = 0; at < bytes.length; at += STEP) {
      unzip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
      ctx.checkCancelled();
      ctx.progress("read", (0.6 * at) / bytes.length);
    }
  } catch (error) {
    if (problem) throw problem;
    if (error instanceof ScanProblem || (error as Error).name === "Cancelled") throw error;
    throw new ScanProblem("malformed", DAMAGED);
  }
  if (models.length === 0)
    throw new ScanProblem("malformed", "The package holds no 3MF model; it may be some other zip file.");
  return models;
}

function joined(chunks: Uint8Array[]): Uint8Array {
  const out = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}
