/**
 * Columns of space along a pull: for every line of an even bundle along the direction, where it leaves the body and
 * where it meets it again. They are exact rays at the bundle's spacing, found by scan conversion (an A-buffer,
 * Carpenter 1984) instead of one search a ray.
 *
 * Space of the caller: mm, the body a closed mesh or one open on the board plane z = 0 only.
 */
import { type LineBundle, type LineRange, lineCrossings } from "../field/crossings.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Direction, frameAcross } from "../space/directions.ts";

/**
 * Visits a stretch of a line outside the body that ends in it: a point in it moving along the pull meets the body.
 * `fromMm` is where the stretch begins along the pull (at the body, the board or the back of the body), `toMm` where
 * the line meets the body; `fromTriangle` the triangle it began at, `FROM_BOARD` or `FROM_BACK`, `toTriangle` the one
 * it ends at.
 */
export type ColumnVisitor = (
  line: number,
  fromMm: number,
  toMm: number,
  fromTriangle: number,
  toTriangle: number,
) => void;

/** The column begins at the board. */
export const FROM_BOARD = -1;
/** The column begins behind the body, where the back of a section would be: no fill frees it. */
export const FROM_BACK = -2;
/** How far behind the body space counts, mm: room for a section's own thickness. */
const BEHIND_MM = 25;

export interface ColumnFrame {
  readonly u: Direction;
  readonly v: Direction;
  readonly d: Direction;
  readonly bundle: LineBundle;
  /** Where space begins to count, behind the furthest back of the body along d, mm. */
  readonly backMm: number;
}

/** The mesh's corners in the frame (u, v, d). */
export function inFrame(mesh: TriangleMesh, u: Direction, v: Direction, d: Direction): TriangleMesh {
  const p = mesh.positions;
  const out = new Float32Array(p.length);
  // Taken apart once: to read the axes' figures at every vertex is three times slower.
  const [ux, uy, uz] = u;
  const [vx, vy, vz] = v;
  const [dx, dy, dz] = d;
  for (let k = 0; k < p.length; k += 3) {
    const x = p[k];
    const y = p[k + 1];
    const z = p[k + 2];
    out[k] = ux * x + uy * y + uz * z;
    out[k + 1] = vx * x + vy * y + vz * z;
    out[k + 2] = dx * x + dy * y + dz * z;
  }
  return { positions: out, triangles: mesh.triangles };
}

/** The frame and bundle of a direction over a mesh: what `visitColumns` works in. */
export function columnFrame(mesh: TriangleMesh, d: Direction, spacingMm: number): ColumnFrame {
  const { u, v } = frameAcross(d);
  const p = mesh.positions;
  let u0 = Infinity;
  let u1 = -Infinity;
  let v0 = Infinity;
  let v1 = -Infinity;
  let backMm = Infinity;
  const [ux, uy, uz] = u;
  const [vx, vy, vz] = v;
  const [dx, dy, dz] = d;
  for (let k = 0; k < p.length; k += 3) {
    const x = p[k];
    const y = p[k + 1];
    const z = p[k + 2];
    const a = ux * x + uy * y + uz * z;
    const b = vx * x + vy * y + vz * z;
    const c = dx * x + dy * y + dz * z;
    if (a < u0) u0 = a;
    if (a > u1) u1 = a;
    if (b < v0) v0 = b;
    if (b > v1) v1 = b;
    if (c < backMm) backMm = c;
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
  return { u, v, d, bundle, backMm: backMm - BEHIND_MM };
}

/**
 * Visits every blocked column of the body along a frame's direction.
 * @param frame of this mesh, see `columnFrame`
 * @param boardMm height of the board, or null when the piece floats
 * @param wanted 1 at the lines that are to be visited; all where it is left out
 */
export function visitColumns(
  mesh: TriangleMesh,
  frame: ColumnFrame,
  boardMm: number | null,
  visit: ColumnVisitor,
  wanted: Uint8Array | null = null,
): void {
  const { u, v, d, bundle, backMm: back } = frame;
  const range = wanted ? rangeOf(wanted, bundle) : undefined;
  const { start, place, sign, triangle } = lineCrossings(inFrame(mesh, u, v, d), bundle, range);
  for (let line = 0; line + 1 < start.length; line++) {
    if (wanted && wanted[line] === 0) continue;
    let winding = start[line] < start[line + 1] && sign[start[line]] < 0 ? 1 : 0;
    const board = boardAt(frame, line, boardMm);
    let from = Math.max(back, board);
    let fromTriangle = board >= back ? FROM_BOARD : FROM_BACK;
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
}

/** The least rectangle about the wanted lines; of none where none is wanted. */
function rangeOf(wanted: Uint8Array, { countU, countV }: LineBundle): LineRange {
  let [fromU, toU, fromV, toV] = [countU, -1, countV, -1];
  for (let v = 0, line = 0; v < countV; v++) {
    for (let u = 0; u < countU; u++, line++) {
      if (wanted[line] === 0) continue;
      if (u < fromU) fromU = u;
      if (u > toU) toU = u;
      if (v < fromV) fromV = v;
      toV = v;
    }
  }
  return { fromU, toU, fromV, toV };
}

/** Where a line comes out of the board, mm along it; far behind where it does not. */
function boardAt({ u, v, d, bundle }: ColumnFrame, line: number, boardMm: number | null): number {
  if (boardMm === null || d[2] <= 1e-6) return -Infinity;
  const a = bundle.originU + bundle.spacingMm * (line % bundle.countU);
  const b = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
  return (boardMm - u[2] * a - v[2] * b) / d[2];
}

/** World point (mm) on a line of a frame at a place along it. */
export function columnPoint(frame: ColumnFrame, line: number, placeMm: number, out: Float64Array): void {
  const { bundle, u, v, d } = frame;
  const a = bundle.originU + bundle.spacingMm * (line % bundle.countU);
  const b = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
  out[0] = u[0] * a + v[0] * b + d[0] * placeMm;
  out[1] = u[1] * a + v[1] * b + d[1] * placeMm;
  out[2] = u[2] * a + v[2] * b + d[2] * placeMm;
}
