/**
 * The lean of parting walls. A wall stands square to the jacket, unless the section that leaves first would drag along
 * the flange of its neighbour, which is still there: the face it slides on must open towards its pull,
 *
 *   n . d >= sin(draft)          n the wall's normal towards that section, d its pull
 *
 * The wall is turned about its line by the least angle that opens it so, and its neighbours on the line with it, so that
 * a hand can still bend one board to it.
 */
import { cross, type Direction, dot, normalised } from "../space/directions.ts";

/** A wall opens towards the pull of the section that leaves first by so much at least, degrees. */
export const WALL_DRAFT_DEG = 1;
/** It is leaned no further than this: a wall more aslant is no wall. */
const MOST_LEAN_DEG = 40;
/** From one ruling to the next the lean changes by no more than this, degrees. */
const LEAN_STEP_DEG = 2.5;

const RADIANS = Math.PI / 180;

/** The way along a line is that between the places so many before and after: a board does not follow every waver. */
const ALONG_REACH = 3;

/** The way along a line at one of its places, xyz per place; not made as long as one. */
export function alongAt(foot: Float64Array, k: number, closed: boolean): Direction {
  const count = foot.length / 3;
  const before = 3 * (closed ? (k + count - ALONG_REACH) % count : Math.max(0, k - ALONG_REACH));
  const after = 3 * (closed ? (k + ALONG_REACH) % count : Math.min(count - 1, k + ALONG_REACH));
  return [foot[after] - foot[before], foot[after + 1] - foot[before + 1], foot[after + 2] - foot[before + 2]];
}

/**
 * The wall's normal at a place, towards the section on the left of its line.
 * @param out the way out along the ruling
 */
export function leftOf(along: Direction, out: Direction): Direction {
  return normalised(cross(out, along));
}

/**
 * Leans the ways out of a wall where its draft asks for it. Changes `out`.
 * @param pull of the section that leaves first
 * @param onLeft is that the one on the left of the line?
 * @returns the lean at every place, degrees; above 0 towards the left
 */
export function leaned(
  foot: Float64Array,
  out: Float64Array,
  closed: boolean,
  pull: Direction,
  onLeft: boolean,
): Float64Array {
  const count = foot.length / 3;
  const needed = Float64Array.from({ length: count }, (_, k) => {
    const along = alongAt(foot, k, closed);
    const up: Direction = [out[3 * k], out[3 * k + 1], out[3 * k + 2]];
    const left = leftOf(along, up);
    const side = onLeft ? 1 : -1;
    return side * leanFor(dot(pull, up), side * dot(pull, left));
  });
  const lean = evenlyLeaned(needed, closed);
  for (let k = 0; k < count; k++) {
    if (lean[k] === 0) continue;
    const up: Direction = [out[3 * k], out[3 * k + 1], out[3 * k + 2]];
    const left = leftOf(alongAt(foot, k, closed), up);
    const [c, s] = [Math.cos(lean[k] * RADIANS), Math.sin(lean[k] * RADIANS)];
    for (let a = 0; a < 3; a++) out[3 * k + a] = c * up[a] + s * left[a];
  }
  return lean;
}

/**
 * The least turn of a ruling towards the section, degrees, that opens the wall enough.
 * @param outwards share of the pull along the ruling
 * @param across share of the pull along the wall's normal towards the section
 */
function leanFor(outwards: number, across: number): number {
  const size = Math.hypot(outwards, across);
  const least = Math.sin(WALL_DRAFT_DEG * RADIANS);
  // Where the pull runs along the line, no lean opens the wall any further.
  if (across >= least || size <= least) return 0;
  const spare = Math.asin(least / size);
  // n . d = size sin(phi - lean), phi the pull's angle from the ruling.
  const phi = Math.atan2(across, outwards);
  const turn = Math.abs(phi) <= Math.PI / 2 ? phi - spare : phi - Math.sign(phi) * Math.PI + spare;
  const deg = turn / RADIANS;
  return Math.max(-MOST_LEAN_DEG, Math.min(MOST_LEAN_DEG, deg));
}

/** As much lean as each place needs, and no more from place to place than a board bends: an envelope of either sign. */
function evenlyLeaned(needed: Float64Array, closed: boolean): Float64Array {
  const count = needed.length;
  const envelope = (sign: number) => {
    const most = needed.map((deg) => Math.max(0, sign * deg));
    for (let round = 0; round < (closed ? 2 : 1); round++) {
      for (let k = closed ? 0 : 1; k < count; k++)
        most[k] = Math.max(most[k], most[(k + count - 1) % count] - LEAN_STEP_DEG);
      for (let k = closed ? count - 1 : count - 2; k >= 0; k--)
        most[k] = Math.max(most[k], most[(k + 1) % count] - LEAN_STEP_DEG);
    }
    return most;
  };
  const [left, right] = [envelope(1), envelope(-1)];
  return needed.map((_, k) => left[k] - right[k]);
}
