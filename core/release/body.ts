/**
 * A body as a field that ways out are followed through: how deep does a straight way run into it, and where?
 *
 * The field is a signed distance, or a lower bound of one, that changes by no more than a millimetre a millimetre. A
 * step along a way may therefore be as long as the field there is above what is looked for (sphere tracing: Hart 1996;
 * the search for the least value of such a function: Piyavskii 1972, Shubert 1972). Near it the way is followed from cell to
 * cell of the grid: between eight nodes the field along a straight way is a cubic, whose least value is exact (Parker and
 * others 1998). Bricks that hold no nodes are passed over by how many bricks away the nearest one with nodes is.
 *
 * Space of the caller: mm, z up; the board, where there is one, is the plane z = boardMm and ends every way downwards.
 */
import { BRICK, BRICK_NODES, type BrickGrid, cornersAcross, NO_BRICK, sampleAt } from "../field/grid.ts";
import type { Team } from "../job/team.ts";

/** What a body is made of, as plain data for other threads. */
export interface BodyData {
  readonly grid: BrickGrid;
  /** Field of the body per node, negative inside, mm; no greater than `capMm`. */
  readonly phi: Float32Array;
  /** The field is this or more where no nodes are kept outside the body. */
  readonly capMm: number;
  readonly boardMm: number | null;
  /** Per brick of the box: bricks to the nearest one with nodes, along whichever axis it is farthest; 0 where it has some. */
  readonly away: Uint8Array;
}

/** @param phi field of the body; it is cut off at `capMm` in a copy */
export function bodyOf(
  grid: BrickGrid,
  phi: Float32Array,
  capMm: number,
  boardMm: number | null,
  team: Team,
): BodyData {
  const cut = new Float32Array(team.buffer(4 * phi.length));
  for (let n = 0; n < phi.length; n++) cut[n] = Math.min(phi[n], capMm);
  return { grid, phi: cut, capMm, boardMm, away: bricksAway(grid, team) };
}

/** Breadth first from the bricks that hold nodes, over all 26 neighbours. */
function bricksAway({ bricks: [nx, ny, nz], slotOf }: BrickGrid, team: Team): Uint8Array {
  const away = new Uint8Array(team.buffer(slotOf.length)).fill(255);
  const queue = new Int32Array(slotOf.length);
  let end = 0;
  for (let b = 0; b < slotOf.length; b++) {
    if (slotOf[b] === NO_BRICK) continue;
    away[b] = 0;
    queue[end++] = b;
  }
  for (let q = 0; q < end; q++) {
    const b = queue[q];
    const next = Math.min(254, away[b] + 1);
    const i = b % nx;
    const j = Math.floor(b / nx) % ny;
    const k = Math.floor(b / (nx * ny));
    for (let z = Math.max(0, k - 1); z <= Math.min(nz - 1, k + 1); z++) {
      for (let y = Math.max(0, j - 1); y <= Math.min(ny - 1, j + 1); y++) {
        for (let x = Math.max(0, i - 1); x <= Math.min(nx - 1, i + 1); x++) {
          const other = x + nx * (y + ny * z);
          if (away[other] !== 255) continue;
          away[other] = next;
          queue[end++] = other;
        }
      }
    }
  }
  return away;
}

/** So far over the least value, as a share of a grid step, it is quicker to step on than to look into a cell. */
const STEPS_ON = 1;
/** Beyond the face of a cell, mm: the next place is surely in the next one. */
const OVER_CELL_MM = 1e-5;
/** A way that moves by less than this a millimetre along an axis stays in its layer of cells: rounding would hold it at a face. */
const LEVEL = 1e-6;
/** Beyond the face of a brick, mm: the next place is surely in the next one. */
const OVER_MM = 1e-3;

/** Follows ways through a body. */
export class Body {
  private readonly low: readonly number[];
  private readonly perBrick: number;
  private readonly brickMm: number;
  /** The field at the corners of a cell, x fastest. */
  private readonly corners = new Float64Array(8);

  constructor(readonly data: BodyData) {
    this.low = data.grid.originMm;
    this.brickMm = BRICK * data.grid.stepMm;
    this.perBrick = 1 / this.brickMm;
  }

  /** The field at a place, mm; `capMm` where no nodes are kept. */
  at(x: number, y: number, z: number): number {
    const { grid, phi, capMm } = this.data;
    return sampleAt(grid, phi, x, y, z, capMm);
  }

  /**
   * How far on along a direction a place stays where no nodes are kept, mm: 0 where there are nodes about it, infinite
   * where the way has left the box.
   */
  emptyMm(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    const { grid, away } = this.data;
    const { low, perBrick, brickMm } = this;
    const [nx, ny, nz] = grid.bricks;
    const fx = (x - low[0]) * perBrick;
    const fy = (y - low[1]) * perBrick;
    const fz = (z - low[2]) * perBrick;
    const i = Math.floor(fx);
    const j = Math.floor(fy);
    const k = Math.floor(fz);
    if (i < 0 || j < 0 || k < 0 || i >= nx || j >= ny || k >= nz) return Infinity;
    const bricks = away[i + nx * (j + ny * k)];
    if (bricks === 0) return 0;
    if (bricks > 1) return (bricks - 1) * brickMm;
    const tx = dx > 0 ? (i + 1 - fx) / dx : dx < 0 ? (i - fx) / dx : Infinity;
    const ty = dy > 0 ? (j + 1 - fy) / dy : dy < 0 ? (j - fy) / dy : Infinity;
    const tz = dz > 0 ? (k + 1 - fz) / dz : dz < 0 ? (k - fz) / dz : Infinity;
    return Math.min(tx, ty, tz) * brickMm + OVER_MM;
  }

  /** How far along a direction the way from a place comes into the box, mm: 0 from within, infinite where it never does. */
  entersMm(x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
    const { low, brickMm } = this;
    const { bricks } = this.data.grid;
    let [enters, leaves] = [0, Infinity];
    const within = (offMm: number, d: number, sideMm: number) => {
      if (Math.abs(d) < LEVEL) {
        if (offMm < 0 || offMm >= sideMm) enters = Infinity;
        return;
      }
      const [a, b] = [-offMm / d, (sideMm - offMm) / d];
      enters = Math.max(enters, Math.min(a, b));
      leaves = Math.min(leaves, Math.max(a, b));
    };
    within(x - low[0], dx, bricks[0] * brickMm);
    within(y - low[1], dy, bricks[1] * brickMm);
    within(z - low[2], dz, bricks[2] * brickMm);
    if (enters >= leaves) return Infinity;
    return enters > 0 ? enters + OVER_MM : 0;
  }

  /**
   * The least value of the field on the way from a place along a direction.
   * @param from no less than the field at the place, mm: what is known of the least value beforehand
   * @param enough values no greater than this are not told apart, mm
   * @param farMm the way is followed so far, mm
   * @returns the least value of the field as it is between its nodes, mm
   */
  leastAlong(
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
    from: number,
    enough: number,
    farMm = Infinity,
  ): number {
    const { grid, phi, capMm, boardMm, away } = this.data;
    const { low, brickMm } = this;
    const { slotOf } = grid;
    const [nx, ny, nz] = grid.bricks;
    const perStep = 1 / grid.stepMm;
    // All the way in steps of the grid from its first node: what is sampled most in a plan is sampled here.
    const [gx, gy, gz] = [(x - low[0]) * perStep, (y - low[1]) * perStep, (z - low[2]) * perStep];
    const ex = Math.abs(dx) < LEVEL ? 0 : dx * perStep;
    const ey = Math.abs(dy) < LEVEL ? 0 : dy * perStep;
    const ez = Math.abs(dz) < LEVEL ? 0 : dz * perStep;
    const endMm = Math.min(farMm, boardMm !== null && dz < 0 ? (boardMm - z) / dz : Infinity);
    const [sx, sy, sz] = [BRICK * nx, BRICK * ny, BRICK * nz];
    const isWithin = gx >= 0 && gy >= 0 && gz >= 0 && gx < sx && gy < sy && gz < sz;
    let least = from;
    for (let s = isWithin ? 0 : this.entersMm(x, y, z, dx, dy, dz); s < endMm; ) {
      const px = gx + s * ex;
      const py = gy + s * ey;
      const pz = gz + s * ez;
      if (!(px >= 0 && py >= 0 && pz >= 0)) break;
      const i = px | 0;
      const j = py | 0;
      const k = pz | 0;
      const bi = i >> 3;
      const bj = j >> 3;
      const bk = k >> 3;
      if (bi >= nx || bj >= ny || bk >= nz) break;
      const brick = bi + nx * (bj + ny * bk);
      const slot = slotOf[brick];
      if (slot < 0) {
        const bricks = away[brick];
        if (bricks > 1) {
          s += (bricks - 1) * brickMm;
          continue;
        }
        const tx = ex > 0 ? (BRICK * (bi + 1) - px) / ex : ex < 0 ? (BRICK * bi - px) / ex : Infinity;
        const ty = ey > 0 ? (BRICK * (bj + 1) - py) / ey : ey < 0 ? (BRICK * bj - py) / ey : Infinity;
        const tz = ez > 0 ? (BRICK * (bk + 1) - pz) / ez : ez < 0 ? (BRICK * bk - pz) / ez : Infinity;
        s += Math.min(tx, ty, tz) + OVER_MM;
        continue;
      }
      const n = slot * BRICK_NODES + (i & 7) + BRICK * (j & 7) + BRICK * BRICK * (k & 7);
      const u = px - i;
      const v = py - j;
      const w = pz - k;
      // Far off the body, the nearest node that is at hand bounds the field well enough to go on.
      const bound = phi[n] - grid.stepMm * Math.sqrt(u * u + v * v + w * w);
      if (bound > least + 4 * grid.stepMm) {
        s += bound - least;
        continue;
      }
      const c = this.corners;
      if ((i & 7) < 7 && (j & 7) < 7 && (k & 7) < 7) {
        c[0] = phi[n];
        c[1] = phi[n + 1];
        c[2] = phi[n + 8];
        c[3] = phi[n + 9];
        c[4] = phi[n + 64];
        c[5] = phi[n + 65];
        c[6] = phi[n + 72];
        c[7] = phi[n + 73];
      } else if (!cornersAcross(grid, phi, i, j, k, c)) {
        least = Math.min(least, capMm);
        s += Math.max(capMm - least, OVER_MM, grid.stepMm / 4);
        continue;
      }
      // The field at shares u, v, w of the cell is a sum of products of them with these.
      const [fx, fy, fz] = [c[1] - c[0], c[2] - c[0], c[4] - c[0]];
      const fxy = c[3] - c[2] - fx;
      const fxz = c[5] - c[4] - fx;
      const fyz = c[6] - c[4] - fy;
      const fxyz = c[7] - c[6] - c[5] + c[4] - fxy;
      const f = c[0] + u * (fx + v * fxy) + v * (fy + w * fyz) + w * (fz + u * (fxz + v * fxyz));
      if (f < least) least = f;
      if (least <= enough) break;
      if (f - least > STEPS_ON * grid.stepMm) {
        s += f - least;
        continue;
      }
      const tx = ex > 0 ? (1 - u) / ex : ex < 0 ? -u / ex : Infinity;
      const ty = ey > 0 ? (1 - v) / ey : ey < 0 ? -v / ey : Infinity;
      const tz = ez > 0 ? (1 - w) / ez : ez < 0 ? -w / ez : Infinity;
      const out = Math.min(tx, ty, tz);
      // No value in a cell is less than at all of its corners.
      const low = Math.min(c[0], c[1], c[2], c[3], c[4], c[5], c[6], c[7]);
      if (low < least) {
        const k1 =
          ex * (fx + v * fxy + w * (fxz + v * fxyz)) +
          ey * (fy + u * fxy + w * (fyz + u * fxyz)) +
          ez * (fz + u * fxz + v * (fyz + u * fxyz));
        const k2 = ex * ey * (fxy + w * fxyz) + ey * ez * (fyz + u * fxyz) + ex * ez * (fxz + v * fxyz);
        const k3 = ex * ey * ez * fxyz;
        least = Math.min(least, leastOfCubic(f, k1, k2, k3, Math.min(out, endMm - s)));
        if (least <= enough) break;
      }
      s += out + OVER_CELL_MM;
    }
    return least;
  }
}

/** The least value of f + k1 t + k2 t^2 + k3 t^3 from t = 0 to `end`. */
function leastOfCubic(f: number, k1: number, k2: number, k3: number, end: number): number {
  const least = Math.min(f, f + end * (k1 + end * (k2 + end * k3)));
  const inner = k2 * k2 - 3 * k3 * k1;
  if (inner <= 0) return least;
  // The one of the two places of no slope where the curve is hollow, without a difference of what is nearly equal.
  const root = Math.sqrt(inner);
  const at = k2 >= 0 ? -k1 / (k2 + root) : (root - k2) / (3 * k3);
  return at > 0 && at < end ? Math.min(least, f + at * (k1 + at * (k2 + at * k3))) : least;
}
