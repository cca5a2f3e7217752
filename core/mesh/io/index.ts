/**
 * Scan formats. To add one: a file beside this exporting a `ScanFormat`, and its line in `formats`. Order matters
 * only for sniffing: the surest marks first.
 */
import { type JobContext, plainContext } from "../../job/context.ts";
import { boxSize, meshBox } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import { JOINED_SHARE, weld } from "../weld.ts";
import type { RawScan, ScanFormat } from "./format.ts";
import { glb } from "./glb.ts";
import { obj } from "./obj.ts";
import { ply } from "./ply.ts";
import { stl } from "./stl.ts";
import { threemf } from "./threemf.ts";

export type { RawScan, ScanFormat } from "./format.ts";

export const formats: readonly ScanFormat[] = [glb, threemf, ply, stl, obj];

/** Endings a scan may have, for file pickers. */
export const scanExtensions: readonly string[] = formats.flatMap((format) => format.extensions);

/** More triangles than this are refused: the working arrays would not fit beside the fields. */
export const GREATEST_TRIANGLE_COUNT = 12_000_000;

/**
 * Reads a scan, its corners joined where they are at one place: most files hold every vertex six times. The content
 * decides the format; the name settles only what the content leaves open.
 * @param bytes the whole file
 * @param name the file's name, for its ending
 * @throws ScanProblem
 */
export async function readScan(bytes: Uint8Array, name: string, ctx: JobContext = plainContext): Promise<RawScan> {
  if (bytes.length === 0) throw new ScanProblem("empty-file", "The file is empty.");
  const ending = name.toLowerCase().split(".").pop() ?? "";
  const byContent = formats.find((format) => format.sniff(bytes));
  const format =
    byContent ?? formats.find((candidate) => candidate.extensions.includes(ending) && candidate.id === "STL");
  if (!format) {
    throw new ScanProblem(
      "unknown-format",
      "This is not a scan Rimefell can read. It reads STL, OBJ, PLY, GLB and 3MF.",
    );
  }
  ctx.progress("read", 0);
  const scan = await format.read(bytes, ctx);
  if (scan.mesh.triangles.length / 3 > GREATEST_TRIANGLE_COUNT) {
    throw new ScanProblem(
      "too-fine",
      `The scan has more than ${GREATEST_TRIANGLE_COUNT / 1e6} million triangles; thin it out first.`,
    );
  }
  ctx.progress("read", 1);
  return { ...scan, mesh: weld(scan.mesh, JOINED_SHARE * Math.hypot(...boxSize(meshBox(scan.mesh)))) };
}
