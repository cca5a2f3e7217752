/**
 * A body as a field that ways out are followed through: how deep does a straight way run into it, and where?
 *
 * The field is a signed distance, or a lower bound of one, that changes by no more than a millimetre a millimetre. A
 * step along a way may therefore be as long as the field there is above what is looked for (sphere tracing: Hart 1996;
 * the search for the least value of such a function: Piyavskii 1972, Shubert 1972). Bricks that hold no nodes are
 * passed over by how many bricks away the nearest one with nodes is.
 *
 * Space of the caller: mm, z up; the board, where there is one, is the plane z = boardMm and ends every way downwards.
 */
import { acrossBricks, BRICK, BRICK_NODES, type BrickGrid, NO_BRICK, sampleAt } from "../field/grid.ts";
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

/** Steps no shorter than this share of a grid step: the least value on a way is met to half of it. */
const LEAST_STEP = 0.25;
/** Beyond the face of a brick, mm: the next place is surely in the next one. */
const OVER_MM = 1e-3;

/** Follows ways through a body. */
export class Body {
  private readonly low: readonly number[];
  private readonly perBrick: number;
  private readonly brickMm: number;

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

  /**
   * The least value of the field on the way from a place along a direction.
   * @param from no less than the field at the place, mm: what is known of the least value beforehand
   * @param enough values no greater than this are not told apart, mm
   * @param leastStep steps are no shorter, mm
   * @returns the least value, mm, to half of the least step
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
    leastStep = LEAST_STEP * this.data.grid.stepMm,
  ): number {
    const { grid, phi, capMm, boardMm, away } = this.data;
    const { low, brickMm } = this;
    const { slotOf } = grid;
    const [nx, ny, nz] = grid.bricks;
    const perStep = 1 / grid.stepMm;
    // All the way in steps of the grid from its first node: what is sampled most in a plan is sampled here.
    const [gx, gy, gz] = [(x - low[0]) * perStep, (y - low[1]) * perStep, (z - low[2]) * perStep];
    const [ex, ey, ez] = [dx * perStep, dy * perStep, dz * perStep];
    const endMm = boardMm !== null && dz < 0 ? (boardMm - z) / dz : Infinity;
    let least = from;
    for (let s = 0; s < endMm; ) {
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
      let f: number;
      const n = slot * BRICK_NODES + (i & 7) + BRICK * (j & 7) + BRICK * BRICK * (k & 7);
      if ((i & 7) < 7 && (j & 7) < 7 && (k & 7) < 7) {
        const u = px - i;
        const v = py - j;
        const w = pz - k;
        const a = phi[n] + (phi[n + 1] - phi[n]) * u;
        const b = phi[n + 8] + (phi[n + 9] - phi[n + 8]) * u;
        const c = phi[n + 64] + (phi[n + 65] - phi[n + 64]) * u;
        const d = phi[n + 72] + (phi[n + 73] - phi[n + 72]) * u;
        const front = a + (b - a) * v;
        f = front + (c + (d - c) * v - front) * w;
      } else {
        // Far off the body, the nearest node that is at hand bounds the field well enough to go on.
        const u = px - i;
        const v = py - j;
        const w = pz - k;
        const bound = phi[n] - grid.stepMm * Math.sqrt(u * u + v * v + w * w);
        if (bound > least + 4 * grid.stepMm) f = bound;
        else f = acrossBricks(grid, phi, i, j, k, u, v, w, capMm);
      }
      if (f < least) {
        least = f;
        if (least <= enough) break;
      }
      s += Math.max(f - least, leastStep);
    }
    return least;
  }
}
