/** OBJ: vertices and faces; polygons become fans, groups and materials are passed over. */
import type { JobContext } from "../../job/context.ts";
import { FloatList, IndexList, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import { headText, type RawScan, type ScanFormat } from "./format.ts";
import { ByteScanner } from "./scanner.ts";

export const obj: ScanFormat = {
  id: "OBJ",
  extensions: ["obj"],
  sniff: (bytes) => {
    const head = headText(bytes, 65_536);
    return !head.includes("\0") && /(?:^|\n)[ \t]*v[ \t]+[-+.\d]/.test(head);
  },
  read,
};

function read(bytes: Uint8Array, ctx: JobContext): RawScan {
  const scan = new ByteScanner(bytes);
  const vertices = new FloatList(new Recentring());
  const faces = new IndexList();
  for (let line = 1; scan.at < scan.end; line++) {
    if (scan.toNextOnLine()) {
      if (scan.accept("v")) {
        const x = scan.toNextOnLine() ? scan.number() : Number.NaN;
        const y = scan.toNextOnLine() ? scan.number() : Number.NaN;
        const z = scan.toNextOnLine() ? scan.number() : Number.NaN;
        vertices.push3(x, y, z);
      } else if (scan.accept("f")) readFace(scan, vertices.length / 3, faces, line);
    }
    scan.skipLine();
    if ((line & 0xffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("read", scan.at / bytes.length);
    }
  }
  return { mesh: makeMesh(vertices.done(), faces.done()), up: "z", warnings: [] };
}

function readFace(scan: ByteScanner, vertexCount: number, faces: IndexList, line: number): void {
  let first = -1;
  let previous = -1;
  while (scan.toNextOnLine()) {
    const number = scan.number();
    while (scan.at < scan.end && scan.bytes[scan.at] > 32) scan.at++;
    const index = number < 0 ? vertexCount + number : number - 1;
    if (!(Number.isInteger(index) && index >= 0)) {
      throw new ScanProblem(
        "malformed",
        `The face on line ${line} of the OBJ file names a vertex that does not exist.`,
      );
    }
    if (first < 0) first = index;
    else if (previous < 0) previous = index;
    else {
      faces.push3(first, previous, index);
      previous = index;
    }
  }
}
