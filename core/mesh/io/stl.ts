/** STL, ASCII and binary. The format carries no unit. Facet normals are ignored: the winding tells. */
import type { JobContext } from "../../job/context.ts";
import { FloatList, filledBy, Recentring } from "../lists.ts";
import { makeMesh } from "../mesh.ts";
import { ScanProblem } from "../problem.ts";
import { headText, type RawScan, type ScanFormat } from "./format.ts";
import { ByteScanner } from "./scanner.ts";

const HEADER_BYTES = 84;
const FACET_BYTES = 50;

export const stl: ScanFormat = {
  id: "STL",
  extensions: ["stl"],
  sniff: (bytes) => isAscii(bytes) || (bytes.length > HEADER_BYTES && facetsBySize(bytes) === declared(bytes)),
  read: (bytes, ctx) => (isAscii(bytes) ? readAscii(bytes, ctx) : readBinary(bytes, ctx)),
};

function declared(bytes: Uint8Array): number {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(80, true);
}

function facetsBySize(bytes: Uint8Array): number {
  return (bytes.length - HEADER_BYTES) / FACET_BYTES;
}

function isAscii(bytes: Uint8Array): boolean {
  const head = headText(bytes, 1024);
  return /^\s*solid\b/.test(head) && (/\bfacet\b/.test(head) || /\bendsolid\b/.test(head));
}

function readBinary(bytes: Uint8Array, ctx: JobContext): RawScan {
  if (bytes.length < HEADER_BYTES) {
    throw new ScanProblem("truncated", "The file is too short for an STL scan; export or copy it again.");
  }
  const count = declared(bytes);
  const held = facetsBySize(bytes);
  if (count > held) {
    throw new ScanProblem(
      "truncated",
      `The STL file promises ${count} triangles but holds ${Math.floor(held)}: it is cut off or is not an STL scan.`,
    );
  }
  if (held >= count + 1) {
    throw new ScanProblem(
      "count-lies",
      `The STL file says ${count} triangles but holds ${Math.floor(held)}; export it again.`,
    );
  }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const positions = new Float32Array(count * 9);
  const triangles = new Uint32Array(count * 3);
  for (let k = 0; k < count; k++) {
    const at = HEADER_BYTES + k * FACET_BYTES + 12;
    for (let c = 0; c < 9; c++) positions[9 * k + c] = view.getFloat32(at + 4 * c, true);
    triangles[3 * k] = 3 * k;
    triangles[3 * k + 1] = 3 * k + 1;
    triangles[3 * k + 2] = 3 * k + 2;
    if ((k & 0xffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("read", k / count);
    }
  }
  const rest = bytes.length - HEADER_BYTES - count * FACET_BYTES;
  const warnings = rest > 0 ? [`${rest} bytes after the last triangle were ignored.`] : [];
  return { mesh: makeMesh(positions, triangles), up: "z", warnings };
}

function readAscii(bytes: Uint8Array, ctx: JobContext): RawScan {
  const scan = new ByteScanner(bytes);
  const corners = new FloatList(new Recentring());
  let inFacet = 0;
  for (let line = 0; scan.toNext(); line++) {
    if (scan.accept("vertex")) {
      const xyz = [0, 0, 0].map(() => (scan.toNextOnLine() ? scan.number() : Number.NaN));
      corners.push3(xyz[0], xyz[1], xyz[2]);
      inFacet++;
    } else if (scan.accept("endfacet")) {
      if (inFacet !== 3) {
        throw new ScanProblem(
          "malformed",
          `A facet near line ${line + 1} of the STL file has ${inFacet} corners instead of 3.`,
        );
      }
      inFacet = 0;
    }
    scan.skipLine();
    if ((line & 0xffff) === 0) {
      ctx.checkCancelled();
      ctx.progress("read", scan.at / bytes.length);
    }
  }
  if (inFacet !== 0)
    throw new ScanProblem("truncated", "The STL file ends in the middle of a triangle; export or copy it again.");
  const positions = corners.done();
  return {
    mesh: makeMesh(
      positions,
      filledBy(new Uint32Array(positions.length / 3), (k) => k),
    ),
    up: "z",
    warnings: [],
  };
}
