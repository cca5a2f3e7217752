/** Even draws for property tests. */
import fc from "fast-check";
import type { Direction } from "../survey/directions.ts";

/** Evenly spread over a range: doubles by their bits would nearly all lie at its low end. */
export const evenly = (least: number, most: number) =>
  fc.integer({ min: 0, max: 10_000 }).map((k) => least + ((most - least) * k) / 10_000);

/** Bearing and tilt of a turn, radians. */
export const rotations = fc.tuple(evenly(0, 6.28), evenly(0.1, 1.4));

/** The turn as a row-major 3x3 matrix. */
export function rotation([a, b]: readonly [number, number]): number[] {
  const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
  return [ca, -sa * cb, sa * sb, sa, ca * cb, -ca * sb, 0, sb, cb];
}

export function turnedDirection(m: readonly number[], d: Direction): Direction {
  return [0, 3, 6].map((r) => m[r] * d[0] + m[r + 1] * d[1] + m[r + 2] * d[2]) as unknown as Direction;
}
