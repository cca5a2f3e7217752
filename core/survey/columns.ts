/**
 * Columns of space along a pull: for every line of an even bundle along the direction, where it leaves the body and
 * where it meets it again. They are exact rays at the bundle's spacing, found by scan conversion (an A-buffer,
 * Carpenter 1984) instead of one search a ray.
 *
 * Space of the caller: mm, the body a closed mesh or one open on the board plane z = 0 only.
 */
import { type LineBundle, lineCrossings } from "../field/crossings.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Direction, frameAcross } from "./directions.ts";

/**
 * Visits a stretch of a line outside the body that ends in it: a point in it moving along the pull meets the body.
 * `fromMm` is where the stretch begins along the pull (at the body, the board or the back of the body), `toMm` where
 * the line meets the body; `fromTriangle` the triangle it began at, or -1, `toTriangle` the one it ends at.
 */
export type ColumnVisitor = (
  line: number,
  fromMm: number,
  toMm: number,
  fromTriangle: number,
  toTriangle: number,
) => void;

export interface ColumnFrame {
  readonly u: Direction;
  readonly v: Direction;
  readonly d: Direction;
  readonly bundle: LineBundle;
}

/** The mesh's corners in the frame (u, v, d). */
export function inFrame(mesh: TriangleMesh, u: Direction, v: Direction, d: Direction): TriangleMesh {
  const p = mesh.positions;
  const out = new Float32Array(p.length);
  for (let k = 0; k < p.length; k += 3) {
    const x = p[k];
    const y = p[k + 1];
    const z = p[k + 2];
    out[k] = u[0] * x + u[1] * y + u[2] * z;
    out[k + 1] = v[0] * x + v[1] * y + v[2] * z;
    out[k + 2] = d[0] * x + d[1] * y + d[2] * z;
  }
  return { positions: out, triangles: mesh.triangles };
}

/**
 * Visits every blocked column of the body along d.
 * @param boardMm height of the board, or null when the piece floats
 */
export function visitColumns(
  mesh: TriangleMesh,
  d: Direction,
  spacingMm: number,
  boardMm: number | null,
  visit: ColumnVisitor,
): ColumnFrame {
  const { u, v } = frameAcross(d);
  const turned = inFrame(mesh, u, v, d);
  const p = turned.positions;
  let [u0, u1, v0, v1, back] = [Infinity, -Infinity, Infinity, -Infinity, Infinity];
  for (let k = 0; k < p.length; k += 3) {
    u0 = Math.min(u0, p[k]);
    u1 = Math.max(u1, p[k]);
    v0 = Math.min(v0, p[k + 1]);
    v1 = Math.max(v1, p[k + 1]);
    back = Math.min(back, p[k + 2]);
  }
  // Off the middle of the spacing, so that lines do not run along faces that stand square to the axes.
  const bundle: LineBundle = {
    axis: 2,
    originU: u0 + 0.4637 * spacingMm,
    originV: v0 + 0.4189 * spacingMm,
    spacingMm,
    countU: Math.max(1, Math.ceil((u1 - u0) / spacingMm)),
    countV: Math.max(1, Math.ceil((v1 - v0) / spacingMm)),
  };
  const { start, place, sign, triangle } = lineCrossings(turned, bundle);
  for (let line = 0; line + 1 < start.length; line++) {
    let winding = start[line] < start[line + 1] && sign[start[line]] < 0 ? 1 : 0;
    let from = winding === 0 ? backOf(bundle, u, v, d, line, back, boardMm) : 0;
    let fromTriangle = -1;
    for (let k = start[line]; k < start[line + 1]; k++) {
      const before = winding;
      winding += sign[k];
      if (before <= 0 && winding > 0) {
        if (place[k] > from) visit(line, from, place[k], fromTriangle, triangle[k]);
      } else if (before > 0 && winding <= 0) {
        from = place[k];
        fromTriangle = triangle[k];
      }
    }
  }
  return { u, v, d, bundle };
}

/** Where a line begins behind the body: at its furthest back, or at the board if that comes later. */
function backOf(
  bundle: LineBundle,
  u: Direction,
  v: Direction,
  d: Direction,
  line: number,
  back: number,
  boardMm: number | null,
): number {
  if (boardMm === null || d[2] <= 1e-6) return back;
  const a = bundle.originU + bundle.spacingMm * (line % bundle.countU);
  const b = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
  return Math.max(back, (boardMm - u[2] * a - v[2] * b) / d[2]);
}

/** World point (mm) on a line of a frame at a place along it. */
export function columnPoint(frame: ColumnFrame, line: number, placeMm: number, out: Float64Array): void {
  const { bundle, u, v, d } = frame;
  const a = bundle.originU + bundle.spacingMm * (line % bundle.countU);
  const b = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
  for (let k = 0; k < 3; k++) out[k] = u[k] * a + v[k] * b + d[k] * placeMm;
}
