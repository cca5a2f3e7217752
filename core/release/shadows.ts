/**
 * Fill of what still bites: the shadows of the sections in their own cells.
 *
 *   phi'(x) = min(phi(x), max(psi_s(x) + give, w_s(x)))
 *
 * psi_s as in `hull.ts` for the section's own pull; w_s the distance of x from the section's cell, by the lead of its
 * potential at the nearest place. A shadow is followed brick by brick from the places that bite to wherever it ends: a
 * fill that stops short only moves the trouble outwards. Cells stay as they are while shadows are filled, so what is
 * left of a cell leaves along its pull as soon as no other fill stands in its way.
 */
import { BRICK, BRICK_NODES, type BrickGrid, gridFromActive } from "../field/grid.ts";
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import { filledBy } from "../mesh/lists.ts";
import type { Direction } from "../space/directions.ts";
import { Body, type BodyData } from "./body.ts";
import { Cells, type CellsData } from "./cells.ts";
import { addTo, carriedOver, type Joined } from "./hull.ts";

export interface ShadowRequest {
  readonly body: BodyData;
  readonly cells: CellsData;
  readonly pulls: readonly Direction[];
  /** Sections that are not filled. */
  readonly open: readonly boolean[];
  /** Places that bite, xyz, mm, and the section of each, 4 per place. */
  readonly biting: Float32Array;
  readonly giveMm: number;
  /**
   * Beside places that bite, and behind them along their section's pull, so much more is filled, mm: what lies between
   * the nodes they do not see, and what would bite into that.
   */
  readonly moreMm: number;
}

interface ShadowShare {
  readonly request: ShadowRequest;
  /** Bricks (of the box) to look at. */
  readonly bricks: Int32Array;
  /** In: the body's field there, 512 values a brick. Out: the filled body's. */
  readonly values: Float32Array;
  /** Out: 1 for each brick that the shadow goes on beyond, 6 faces a brick: low and high along x, y, z. */
  readonly beyond: Uint8Array;
}

/** Beyond this many steps inside, values are not told apart. */
const DEEP_STEPS = 3;
/** Outside its cell by so many steps a section is not filled; within it the cell's wall is as smooth as its potential. */
const BESIDE_STEPS = 1.5;

export const shadowKernel: Kernel<ShadowShare> = {
  name: "shadows",
  run({ request: { body: data, cells: cellsData, pulls, open, biting, giveMm, moreMm }, bricks, values, beyond }) {
    const body = new Body(data);
    const cells = new Cells(cellsData);
    const { grid, boardMm } = data;
    const { stepMm: h, originMm: o } = grid;
    const [nx, ny] = grid.bricks;
    const [lastI, lastJ, lastK] = grid.bricks.map((count) => BRICK * count - 1);
    const deepMm = -(giveMm + DEEP_STEPS * h);
    for (let q = 0; q < bricks.length; q++) {
      const b = bricks[q];
      const [i0, j0, k0] = [BRICK * (b % nx), BRICK * (Math.floor(b / nx) % ny), BRICK * Math.floor(b / (nx * ny))];
      const close = moreMm > 0 ? placesAhead(grid, biting, pulls, i0, j0, k0) : NO_PLACES;
      for (let n = 0; n < BRICK_NODES; n++) {
        const at = q * BRICK_NODES + n;
        const base = values[at];
        if (base <= deepMm) continue;
        const [i, j, k] = [n & 7, (n >> 3) & 7, n >> 6];
        const x = o[0] + h * (i0 + i);
        const y = o[1] + h * (j0 + j);
        const z = o[2] + h * (k0 + k);
        if (boardMm !== null && z < boardMm - 2 * h) continue;
        // What is added stays within the box, so that its surface closes.
        if (i0 + i === 0 || j0 + j === 0 || k0 + k === 0) continue;
        if (i0 + i === lastI || j0 + j === lastJ || k0 + k === lastK) continue;
        const { section, leadMm } = cells.leadAt(x, y, z);
        const give = isBehind(close, pulls, section, x, y, z, MORE_STEPS * h) ? giveMm - moreMm : giveMm;
        let value = base;
        // Of the sections whose cells are about, the best way out.
        let best = deepMm;
        let about = 0;
        for (let s = 0; s < pulls.length; s++) {
          const outsideMm = s === section ? -leadMm : cells.behindMm(s);
          if (outsideMm > BESIDE_STEPS * h) continue;
          about++;
          if (open[s]) {
            best = base;
            continue;
          }
          const [dx, dy, dz] = pulls[s];
          const least = body.leastAlong(x, y, z, dx, dy, dz, base, deepMm);
          if (least > best) best = least;
          const shaded = Math.max(least + give, outsideMm);
          if (shaded < value) value = shaded;
        }
        // What none of them gets out of is filled, wherever just the line between them runs.
        if (about > 1 && best + give < value) value = best + give;
        if (value >= base) continue;
        values[at] = value;
        if (value >= 0 || base < 0) continue;
        if (i === 0) beyond[6 * q] = 1;
        if (i === 7) beyond[6 * q + 1] = 1;
        if (j === 0) beyond[6 * q + 2] = 1;
        if (j === 7) beyond[6 * q + 3] = 1;
        if (k === 0) beyond[6 * q + 4] = 1;
        if (k === 7) beyond[6 * q + 5] = 1;
      }
    }
  },
};

/** More is filled within so many steps of a place that bites, and of the line behind it. */
const MORE_STEPS = 2;
const NO_PLACES: readonly number[] = [];

/** The places that bite, xyz and section, that the ways out of a brick's nodes come near. */
function placesAhead(
  { originMm: o, stepMm: h }: BrickGrid,
  places: Float32Array,
  pulls: readonly Direction[],
  i: number,
  j: number,
  k: number,
): number[] {
  const middle = [i, j, k].map((corner, a) => o[a] + h * (corner + BRICK / 2));
  const reach = h * ((Math.sqrt(3) * BRICK) / 2 + MORE_STEPS);
  const out: number[] = [];
  for (let p = 0; p < places.length; p += 4) {
    const [x, y, z, section] = places.subarray(p, p + 4);
    const ahead = aheadOf(pulls[section], x - middle[0], y - middle[1], z - middle[2]);
    if (ahead.alongMm > -reach && ahead.asideMm < reach) out.push(x, y, z, section);
  }
  return out;
}

function isBehind(
  places: readonly number[],
  pulls: readonly Direction[],
  section: number,
  x: number,
  y: number,
  z: number,
  withinMm: number,
): boolean {
  for (let p = 0; p < places.length; p += 4) {
    if (places[p + 3] !== section) continue;
    const { alongMm, asideMm } = aheadOf(pulls[section], places[p] - x, places[p + 1] - y, places[p + 2] - z);
    if (alongMm > -withinMm && asideMm <= withinMm) return true;
  }
  return false;
}

/** How far a way leads along a pull, and how far aside of it. */
function aheadOf([dx, dy, dz]: Direction, x: number, y: number, z: number): { alongMm: number; asideMm: number } {
  const alongMm = x * dx + y * dy + z * dz;
  return { alongMm, asideMm: Math.sqrt(Math.max(0, x * x + y * y + z * z - alongMm * alongMm)) };
}

/** @returns the filled body, on a grid that covers it */
export function fillShadows(request: ShadowRequest, ctx: JobContext): Joined {
  const { body } = request;
  const { grid } = body;
  const filled = new Map<number, Float32Array>();
  const queued = new Uint8Array(grid.slotOf.length);
  const about = new Uint8Array(grid.slotOf.length);
  let wave = bricksAbout(grid, request.biting, queued);
  while (wave.length > 0) {
    const values = new Float32Array(ctx.team.buffer(4 * wave.length * BRICK_NODES));
    wave.forEach((b, q) => {
      const slot = grid.slotOf[b];
      if (slot < 0) values.fill(body.capMm, q * BRICK_NODES, (q + 1) * BRICK_NODES);
      else values.set(body.phi.subarray(slot * BRICK_NODES, (slot + 1) * BRICK_NODES), q * BRICK_NODES);
    });
    const shares = runsOf(wave.length, SHARES).map(
      ({ from, to }): ShadowShare => ({
        request,
        bricks: Int32Array.from(wave.slice(from, to)),
        values: values.subarray(from * BRICK_NODES, to * BRICK_NODES),
        beyond: new Uint8Array(ctx.team.buffer(6 * (to - from))),
      }),
    );
    ctx.team.run(shadowKernel, shares, () => ctx.checkCancelled());
    wave.forEach((b, q) => {
      filled.set(b, values.subarray(q * BRICK_NODES, (q + 1) * BRICK_NODES));
    });
    for (const { bricks, beyond } of shares) markAbout(grid, bricks, beyond, about);
    wave = shares.flatMap(({ bricks, beyond }) => nextBricks(grid, bricks, beyond, queued));
  }
  const active = filledBy(new Uint8Array(grid.slotOf.length), (b) =>
    grid.slotOf[b] >= 0 || filled.has(b) || about[b] ? 1 : 0,
  );
  const wide = gridFromActive(grid.originMm, grid.stepMm, grid.bricks, active);
  const phi = carriedOver(body, wide, ctx);
  const added = phi.slice();
  for (const [b, values] of filled) added.set(values, wide.slotOf[b] * BRICK_NODES);
  addTo(
    phi,
    wide,
    added,
    Int32Array.from(
      [...filled.keys()].sort((a, b) => a - b),
      (b) => wide.slotOf[b],
    ),
  );
  return { grid: wide, phi, changed: queued };
}

/** Bricks within two steps of some places. */
function bricksAbout(grid: BrickGrid, points: Float32Array, queued: Uint8Array): number[] {
  const out: number[] = [];
  const [nx, ny] = grid.bricks;
  const size = BRICK * grid.stepMm;
  for (let p = 0; p < points.length; p += 4) {
    const [x, y, z] = [0, 1, 2].map((a) => {
      const place = points[p + a] - grid.originMm[a];
      const low = Math.max(0, Math.floor((place - 2 * grid.stepMm) / size));
      return [low, Math.min(grid.bricks[a] - 1, Math.floor((place + 2 * grid.stepMm) / size))];
    });
    for (let k = z[0]; k <= z[1]; k++) {
      for (let j = y[0]; j <= y[1]; j++) {
        for (let i = x[0]; i <= x[1]; i++) {
          const b = i + nx * (j + ny * k);
          if (!queued[b]) out.push(b);
          queued[b] = 1;
        }
      }
    }
  }
  return out;
}

/** Marks the bricks that share a face, an edge or a corner with what was filled: the filled body's surface closes in them. */
function markAbout({ bricks: [nx, ny, nz] }: BrickGrid, from: Int32Array, beyond: Uint8Array, about: Uint8Array): void {
  from.forEach((b, q) => {
    const at = [b % nx, Math.floor(b / nx) % ny, Math.floor(b / (nx * ny))];
    const [i, j, k] = at.map((middle, axis) => {
      const [low, high] = [beyond[6 * q + 2 * axis], beyond[6 * q + 2 * axis + 1]];
      return { from: Math.max(0, middle - low), to: Math.min([nx, ny, nz][axis] - 1, middle + high) };
    });
    for (let z = k.from; z <= k.to; z++)
      for (let y = j.from; y <= j.to; y++) for (let x = i.from; x <= i.to; x++) about[x + nx * (y + ny * z)] = 1;
  });
}

/** The neighbours that shadows go on into. */
function nextBricks({ bricks: [nx, ny, nz] }: BrickGrid, from: Int32Array, beyond: Uint8Array, queued: Uint8Array) {
  const out: number[] = [];
  from.forEach((b, q) => {
    const at = [b % nx, Math.floor(b / nx) % ny, Math.floor(b / (nx * ny))];
    const size = [nx, ny, nz];
    const stride = [1, nx, nx * ny];
    for (let face = 0; face < 6; face++) {
      if (!beyond[6 * q + face]) continue;
      const [axis, way] = [face >> 1, face & 1 ? 1 : -1];
      if (at[axis] + way < 0 || at[axis] + way >= size[axis]) continue;
      const other = b + way * stride[axis];
      if (!queued[other]) out.push(other);
      queued[other] = 1;
    }
  });
  return out;
}
