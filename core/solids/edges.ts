/** How thick a shell is laid: thicker along its walls and along the board, where it breaks first. */
import type { DistanceField } from "../field/distance.ts";
import { nodeAt, nodeCount, nodePoint } from "../field/grid.ts";
import type { AlongWall } from "../flange/along.ts";
import { filledBy } from "../mesh/lists.ts";
import { EDGE_RUN_MM, edgeShare } from "../shell/edge.ts";
import type { ShellThicknesses } from "../shell/index.ts";

type Xyz = readonly [number, number, number];

/** A straight bit of an edge, between two places on the shell's outside. */
interface Bit {
  readonly from: Xyz;
  readonly to: Xyz;
}

export interface ShellEdges {
  readonly walls: readonly AlongWall[];
  /** The board that the shell's lower edge lies on; null where it floats. */
  readonly boardMm: number | null;
}

/** Edges are followed in bits no shorter than this, mm. */
const BIT_MM = 8;

export class Edges {
  private readonly bits: readonly Bit[];
  private readonly boardMm: number | null;

  constructor(
    { walls, boardMm }: ShellEdges,
    private readonly thick: ShellThicknesses,
  ) {
    this.bits = walls.flatMap((along) => bitsOf(along, thick.shellMm));
    this.boardMm = boardMm;
  }

  /** Thickness of the shell over a place of the jacket, mm. @param normal out of the jacket there */
  thicknessMm(at: Xyz, normal: Xyz): number {
    const { shellMm, flangeMm } = this.thick;
    const outside: Xyz = [at[0] + shellMm * normal[0], at[1] + shellMm * normal[1], at[2] + shellMm * normal[2]];
    let least2 = Number.POSITIVE_INFINITY;
    for (const bit of this.bits) least2 = Math.min(least2, distance2(bit, ...outside));
    return (
      shellMm + (flangeMm - shellMm) * Math.max(edgeShare(Math.sqrt(least2), flangeMm), this.boardShare(outside[2]))
    );
  }

  /**
   * The distance field less what is laid on top: at the thickness of the shell it is the shell's outside.
   * @param field exact from a step below the thinner of shell and flanges to a step above the thicker
   */
  outside({ grid, distanceMm }: DistanceField): Float32Array {
    const { shellMm, flangeMm } = this.thick;
    const moreMm = flangeMm - shellMm;
    if (moreMm === 0) return distanceMm;
    const { stepMm } = grid;
    const near = nearOf(distanceMm, Math.min(shellMm, flangeMm) - stepMm, Math.max(shellMm, flangeMm) + stepMm);
    const away2 = this.awayOf(grid, near);
    const values = distanceMm.slice();
    const point = new Float64Array(3);
    for (let n = 0; n < values.length; n++) {
      if (!near[n]) continue;
      nodePoint(grid, n, point, 0);
      values[n] -= moreMm * Math.max(edgeShare(Math.sqrt(away2[n]), flangeMm), this.boardShare(point[2]));
    }
    return values;
  }

  private boardShare(z: number): number {
    return this.boardMm === null ? 0 : edgeShare(z - this.boardMm, this.thick.flangeMm);
  }

  /** The square of how far every node that counts is from the nearest edge, mm2; without end where none is near. */
  private awayOf(grid: DistanceField["grid"], near: Uint8Array): Float32Array {
    const reachMm = this.thick.flangeMm + EDGE_RUN_MM;
    const { originMm, stepMm } = grid;
    const away2 = new Float32Array(nodeCount(grid)).fill(Number.POSITIVE_INFINITY);
    for (const bit of this.bits) {
      const [low, high] = [0, 1].map((end) =>
        [0, 1, 2].map((a) => {
          const mm =
            end === 0 ? Math.min(bit.from[a], bit.to[a]) - reachMm : Math.max(bit.from[a], bit.to[a]) + reachMm;
          return (end === 0 ? Math.ceil : Math.floor)((mm - originMm[a]) / stepMm);
        }),
      );
      for (let z = low[2]; z <= high[2]; z++) {
        for (let y = low[1]; y <= high[1]; y++) {
          for (let x = low[0]; x <= high[0]; x++) {
            const n = nodeAt(grid, x, y, z);
            if (n < 0 || !near[n]) continue;
            const d2 = distance2(bit, originMm[0] + x * stepMm, originMm[1] + y * stepMm, originMm[2] + z * stepMm);
            if (d2 < away2[n]) away2[n] = d2;
          }
        }
      }
    }
    return away2;
  }
}

/** 1 for every node whose value lies in a band. */
function nearOf(distanceMm: Float32Array, low: number, high: number): Uint8Array {
  return filledBy(new Uint8Array(distanceMm.length), (n) => (distanceMm[n] >= low && distanceMm[n] <= high ? 1 : 0));
}

/** A wall's edge on the outside of the shell. */
function bitsOf({ ground: { foot, out } }: AlongWall, shellMm: number): Bit[] {
  const at = (k: number): Xyz => [0, 1, 2].map((a) => foot[3 * k + a] + shellMm * out[3 * k + a]) as unknown as Xyz;
  const count = foot.length / 3;
  const bits: Bit[] = [];
  let from = at(0);
  for (let k = 1; k < count; k++) {
    const to = at(k);
    if (k + 1 < count && Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]) < BIT_MM) continue;
    bits.push({ from, to });
    from = to;
  }
  return bits;
}

/** The square of how far a place is from a bit of an edge, mm2. */
function distance2({ from: a, to: b }: Bit, x: number, y: number, z: number): number {
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [px, py, pz] = [x - a[0], y - a[1], z - a[2]];
  const length2 = ux * ux + uy * uy + uz * uz;
  const t = length2 > 0 ? Math.min(1, Math.max(0, (px * ux + py * uy + pz * uz) / length2)) : 0;
  return (px - t * ux) ** 2 + (py - t * uy) ** 2 + (pz - t * uz) ** 2;
}
