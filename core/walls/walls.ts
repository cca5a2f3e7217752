/**
 * Parting walls: along every parting line a ruled surface that stands on the jacket, between the two sections it parts. It
 * ends where lines meet, on one ruling that all walls there share, and on the board. A section's flange is cast against it,
 * and is as wide: what is priced, drawn, printed and exported is this.
 */

import type { Strip } from "./unroll.ts";
import { ROOM_LIMITS, type RoomLimit, RULING_MM, type WallGround } from "./wallGround.ts";

export interface Wall extends Strip {
  /** Numbers of the sections it parts: the one on the left of its line first, seen from outside. */
  readonly sections: readonly [number, number];
  /** It comes back to where it began; its last place is its first. */
  readonly closed: boolean;
  /** Its width at every place, mm. */
  readonly widthsMm: Float64Array;
  /** The width that was asked for, mm. */
  readonly wantedMm: number;
  /** Stretches where it is narrower than was asked for, for want of room. */
  readonly narrowed: readonly Narrowed[];
  /** Places where it would cross itself: the line turns more tightly there than the wall is wide. */
  readonly folds: readonly (readonly [number, number, number])[];
}

export interface Narrowed {
  /** Where it is narrowest. */
  readonly at: readonly [number, number, number];
  readonly widthMm: number;
  /** How long the stretch is, and where it begins along the wall, mm. */
  readonly lengthMm: number;
  readonly fromMm: number;
  /** What leaves it no more room there. */
  readonly limit: RoomLimit;
}

/** The width changes by no more than this a millimetre: a hand cuts no steps. */
const WIDTH_SLOPE = 0.5;
/** Narrower by less than this is not told, mm. */
const TOLD_MM = 2;

/** Walls as wide as is wanted of each, where there is room; those that meet at a junction are as wide as each other there. */
export function wallsOn(grounds: readonly WallGround[], wantedMm: readonly number[]): Wall[] {
  const widths = grounds.map((ground, n) => widthsOf(ground, wantedMm[n]));
  const meeting = junctionsOf(grounds);
  for (let round = 0; round < MEETING_ROUNDS; round++) {
    for (const ends of meeting) {
      const least = ends.reduce((mm, { n, k }) => Math.min(mm, widths[n][k]), Number.POSITIVE_INFINITY);
      for (const { n, k } of ends) widths[n][k] = least;
    }
    grounds.forEach(({ closed }, n) => {
      sloped(widths[n], closed);
    });
  }
  return grounds.map((ground, n) => wallOn(ground, wantedMm[n], widths[n]));
}

/** Widths at junctions settle in so many rounds: a wall that is narrowed there may narrow its other end. */
const MEETING_ROUNDS = 3;
/** Ends this near each other meet, mm. */
const MEETS_MM = 0.01;

/** The ends of walls that meet, by the places of wall and ruling. */
function junctionsOf(grounds: readonly WallGround[]): { n: number; k: number }[][] {
  const ends = grounds.flatMap(({ closed, foot }, n) =>
    closed ? [] : [0, foot.length / 3 - 1].map((k) => ({ n, k, at: foot.subarray(3 * k, 3 * k + 3) })),
  );
  const groups: (typeof ends)[] = [];
  for (const end of ends) {
    const met = groups.find(([{ at }]) => Math.hypot(...end.at.map((v, a) => v - at[a])) < MEETS_MM);
    if (met) met.push(end);
    else groups.push([end]);
  }
  return groups.filter((group) => group.length > 1);
}

/** @param widthsMm at every place */
function wallOn(ground: WallGround, wantedMm: number, widthsMm: Float64Array): Wall {
  const { sections, closed } = ground;
  const foot = Float64Array.from(ground.foot);
  const head = foot.map((value, n) => value + widthsMm[Math.floor(n / 3)] * ground.out[n]);
  return {
    ...{ foot, head, widthsMm, sections, closed, wantedMm },
    narrowed: narrowedOf(ground, widthsMm, wantedMm),
    folds: foldsOf(foot, head),
  };
}

function widthsOf({ roomMm, closed }: WallGround, wantedMm: number): Float64Array {
  return sloped(
    Float64Array.from(roomMm, (room) => Math.min(room, wantedMm)),
    closed,
  );
}

/** Widths with no steps: none is greater than its neighbours' by more than the slope. Changes them. */
function sloped(out: Float64Array, closed: boolean): Float64Array {
  const last = out.length - 1;
  const step = WIDTH_SLOPE * RULING_MM;
  for (let round = 0; round < (closed ? 2 : 1); round++) {
    if (closed) out[0] = out[last] = Math.min(out[0], out[last]);
    for (let k = 1; k <= last; k++) out[k] = Math.min(out[k], out[k - 1] + step);
    for (let k = last - 1; k >= 0; k--) out[k] = Math.min(out[k], out[k + 1] + step);
  }
  if (closed) out[last] = out[0];
  return out;
}

function narrowedOf({ foot, limit }: WallGround, widthsMm: Float64Array, wantedMm: number): Narrowed[] {
  const out: Narrowed[] = [];
  let from = -1;
  for (let k = 0; k <= widthsMm.length; k++) {
    const narrow = k < widthsMm.length && widthsMm[k] < wantedMm - TOLD_MM;
    if (narrow && from < 0) from = k;
    if (narrow || from < 0) continue;
    let least = from;
    for (let n = from; n < k; n++) if (widthsMm[n] < widthsMm[least]) least = n;
    const [x, y, z] = foot.subarray(3 * least, 3 * least + 3);
    out.push({
      at: [x, y, z],
      widthMm: widthsMm[least],
      lengthMm: (k - from) * RULING_MM,
      fromMm: from * RULING_MM,
      limit: ROOM_LIMITS[limit[least]],
    });
    from = -1;
  }
  return out;
}

/** Places where the outer edge runs backwards. */
function foldsOf(foot: Float64Array, head: Float64Array): (readonly [number, number, number])[] {
  const out: (readonly [number, number, number])[] = [];
  let before = false;
  for (let a = 0; a + 3 < foot.length; a += 3) {
    const along = [a, a + 1, a + 2].reduce((sum, x) => sum + (foot[x + 3] - foot[x]) * (head[x + 3] - head[x]), 0);
    if (along < 0 && !before) out.push([foot[a], foot[a + 1], foot[a + 2]]);
    before = along < 0;
  }
  return out;
}

/** Area of one face of a wall, mm2: of the triangles that its pattern is laid out of. */
export function wallAreaMm2({ foot, head }: Strip): number {
  let sum = 0;
  for (let a = 0; a + 3 < foot.length; a += 3) {
    sum += triangleMm2(foot, a, foot, a + 3, head, a) + triangleMm2(foot, a + 3, head, a + 3, head, a);
  }
  return sum;
}

function triangleMm2(p: Float64Array, i: number, q: Float64Array, j: number, r: Float64Array, k: number): number {
  const [ux, uy, uz] = [q[j] - p[i], q[j + 1] - p[i + 1], q[j + 2] - p[i + 2]];
  const [vx, vy, vz] = [r[k] - p[i], r[k + 1] - p[i + 1], r[k + 2] - p[i + 2]];
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
}
