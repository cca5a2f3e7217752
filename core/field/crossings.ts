/**
 * Signed crossings of grid lines with a mesh: the winding number of every node seen along one axis.
 *
 * A line crosses a triangle when its foot lies inside the triangle's shadow; each shared edge is judged once, from
 * its lower to its higher vertex, so that both neighbours agree to the bit and no crossing is lost or doubled. Sums of signs along the line are the winding number for closed meshes (overlapping copies count
 * up, not twice over); a line whose sum does not return to zero has passed through a hole or a flipped patch.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { BRICK, BRICK_NODES, type BrickGrid } from "./grid.ts";

/** A bundle of parallel lines: u and v are the axes across, in cyclic order after the axis along. */
export interface LineBundle {
  readonly axis: number;
  /** Foot of line (0, 0) across, mm. */
  readonly originU: number;
  readonly originV: number;
  readonly spacingMm: number;
  readonly countU: number;
  readonly countV: number;
}

/** Crossings of a bundle, in compressed rows, sorted along each line. */
export interface LineCrossings {
  /** First crossing of line (u + countU v). */
  readonly start: Uint32Array;
  /** Where along the axis, mm. */
  readonly place: Float32Array;
  /** +1 going into the body, -1 coming out. */
  readonly sign: Int8Array;
  /** The triangle crossed. */
  readonly triangle: Int32Array;
}

/** The two axes across `axis`, in cyclic order. */
export function acrossAxes(axis: number): [number, number] {
  return [(axis + 1) % 3, (axis + 2) % 3];
}

/** A rectangle of a bundle's lines, first and last along u and v. */
export interface LineRange {
  readonly fromU: number;
  readonly toU: number;
  readonly fromV: number;
  readonly toV: number;
}

/** @param range the lines whose crossings are wanted; those of all others are none. All where it is left out. */
export function lineCrossings(
  mesh: TriangleMesh,
  bundle: LineBundle,
  range: LineRange = { fromU: 0, toU: bundle.countU - 1, fromV: 0, toV: bundle.countV - 1 },
): LineCrossings {
  const lines = bundle.countU * bundle.countV;
  const { count, line, place: places, sign: signs, triangle: triangles } = crossingsByTriangle(mesh, bundle, range);
  const start = new Uint32Array(lines + 1);
  for (let c = 0; c < count; c++) start[line[c] + 1]++;
  for (let l = 1; l <= lines; l++) start[l] += start[l - 1];
  const place = new Float32Array(count);
  const sign = new Int8Array(count);
  const triangle = new Int32Array(count);
  const filled = start.slice(0, lines);
  for (let c = 0; c < count; c++) {
    // Insertion keeps each line's few crossings sorted.
    const first = start[line[c]];
    const at = places[c];
    let k = filled[line[c]]++;
    while (k > first && place[k - 1] > at) {
      place[k] = place[k - 1];
      sign[k] = sign[k - 1];
      triangle[k] = triangle[k - 1];
      k--;
    }
    place[k] = at;
    sign[k] = signs[c];
    triangle[k] = triangles[c];
  }
  return { start, place, sign, triangle };
}

/** Crossings as they are met, triangle by triangle. */
class CrossingList {
  count = 0;
  line = new Int32Array(0);
  place = new Float32Array(0);
  sign = new Int8Array(0);
  triangle = new Int32Array(0);

  constructor(capacity: number) {
    this.grow(capacity);
  }

  push(line: number, place: number, sign: number, triangle: number): void {
    if (this.count === this.line.length) this.grow(2 * this.count);
    const c = this.count++;
    this.line[c] = line;
    this.place[c] = place;
    this.sign[c] = sign;
    this.triangle[c] = triangle;
  }

  private grow(capacity: number): void {
    const larger = <T extends Int8Array | Int32Array | Float32Array>(next: T, held: T): T => {
      next.set(held);
      return next;
    };
    this.line = larger(new Int32Array(capacity), this.line);
    this.place = larger(new Float32Array(capacity), this.place);
    this.sign = larger(new Int8Array(capacity), this.sign);
    this.triangle = larger(new Int32Array(capacity), this.triangle);
  }
}

function crossingsByTriangle(mesh: TriangleMesh, bundle: LineBundle, range: LineRange): CrossingList {
  const { positions: p, triangles: t } = mesh;
  const { axis, originU, originV, spacingMm: h, countU } = bundle;
  const { fromU, toU, fromV, toV } = range;
  const [u, v] = acrossAxes(axis);
  const inverse = 1 / h;
  const list = new CrossingList(Math.max(1024, 2 * (toU - fromU + 1) * (toV - fromV + 1)));
  for (let k = 0; k < t.length; k += 3) {
    const a = 3 * t[k];
    const b = 3 * t[k + 1];
    const c = 3 * t[k + 2];
    const au = p[a + u];
    const av = p[a + v];
    const bu = p[b + u];
    const bv = p[b + v];
    const cu = p[c + u];
    const cv = p[c + v];
    const v0 = Math.max(fromV, Math.ceil((Math.min(av, bv, cv) - originV) * inverse));
    const v1 = Math.min(toV, Math.floor((Math.max(av, bv, cv) - originV) * inverse));
    if (v0 > v1) continue;
    const u0 = Math.max(fromU, Math.ceil((Math.min(au, bu, cu) - originU) * inverse));
    const u1 = Math.min(toU, Math.floor((Math.max(au, bu, cu) - originU) * inverse));
    for (let j = v0; j <= v1; j++) {
      const y = originV + j * h;
      for (let i = u0; i <= u1; i++) {
        const x = originU + i * h;
        const eab = a < b ? edgeSide(au, av, bu, bv, x, y) : -edgeSide(bu, bv, au, av, x, y);
        const ebc = b < c ? edgeSide(bu, bv, cu, cv, x, y) : -edgeSide(cu, cv, bu, bv, x, y);
        if (eab > 0 !== ebc > 0) continue;
        const eca = c < a ? edgeSide(cu, cv, au, av, x, y) : -edgeSide(au, av, cu, cv, x, y);
        const out = eab > 0;
        if (out !== eca > 0) continue;
        const along = (p[c + axis] * eab + p[a + axis] * ebc + p[b + axis] * eca) / (eab + ebc + eca);
        list.push(i + countU * j, along, out ? -1 : 1, k / 3);
      }
    }
  }
  return list;
}

/**
 * Twice the signed area of (edge, foot), never zero: a foot on the edge is taken to lie a hair along u, and a hair of
 * that along v, from it (simulation of simplicity: Edelsbrunner and Muecke 1990), the same for all edges, so that
 * faces seen edge-on neither lose a crossing nor make one up. The caller gives the edge from its lower to its higher
 * vertex: both triangles at it then see the same figure.
 */
function edgeSide(fromU: number, fromV: number, toU: number, toV: number, x: number, y: number): number {
  const side = (toU - fromU) * (y - fromV) - (toV - fromV) * (x - fromU);
  if (side !== 0) return side;
  const above = toV !== fromV ? toV < fromV : toU > fromU;
  return above ? Number.MIN_VALUE : -Number.MIN_VALUE;
}

/**
 * Adds one axis's votes: bits 0-1 of a node's vote count the axes that say inside, bits 2-3 the axes whose line
 * was consistent (returned to zero).
 */
export function voteAlong(mesh: TriangleMesh, grid: BrickGrid, axis: number, votes: Uint8Array): void {
  const [u, v] = acrossAxes(axis);
  const { stepMm, originMm } = grid;
  const countU = grid.bricks[u] * BRICK;
  const countV = grid.bricks[v] * BRICK;
  const bundle = { axis, originU: originMm[u], originV: originMm[v], spacingMm: stepMm, countU, countV };
  const { start, place, sign } = lineCrossings(mesh, bundle);
  const strides = [1, BRICK, BRICK * BRICK];
  const { bricks, brickOf } = grid;
  for (let slot = 0; slot < brickOf.length; slot++) {
    const b = brickOf[slot];
    const corner = [
      (b % bricks[0]) * BRICK,
      (Math.floor(b / bricks[0]) % bricks[1]) * BRICK,
      Math.floor(b / (bricks[0] * bricks[1])) * BRICK,
    ];
    for (let jv = 0; jv < BRICK; jv++) {
      for (let iu = 0; iu < BRICK; iu++) {
        const line = corner[u] + iu + countU * (corner[v] + jv);
        const end = start[line + 1];
        let k = start[line];
        let total = 0;
        for (let c = k; c < end; c++) total += sign[c];
        let n = slot * BRICK_NODES + iu * strides[u] + jv * strides[v];
        if (total !== 0) continue;
        let winding = 0;
        for (let x = corner[axis]; x < corner[axis] + BRICK; x++, n += strides[axis]) {
          while (k < end && place[k] < originMm[axis] + x * stepMm) winding += sign[k++];
          votes[n] += winding > 0 ? 5 : 4;
        }
      }
    }
  }
}
