/**
 * Room for nuts, washers and spanners behind a flange: how near the jacket comes to the axis of a bolt, on either side of
 * the wall, over the length that nut and spanner take. The shell of a section stands a shell's thickness off the jacket,
 * so that what is left of the distance is room.
 */
import type { NearestField } from "../field/nearest.ts";
import { alongAt, leftOf } from "./lean.ts";
import type { Draft } from "./wallGround.ts";

/** Measured at every so many rulings, */
export const NUT_RULINGS = 2;
/** at these distances off the jacket, mm, */
export const NUT_REACHES_MM = [10, 20, 30, 40, 55, 75, 100] as const;
/** and behind the wall at these, mm: a flange, a nut and the end of the bolt. */
const BEHIND_MM = [8, 22, 40];

/** Figures a place of a ruling has: left and right of the wall at every reach. */
export const NUT_FIGURES = 2 * NUT_REACHES_MM.length;

/** @returns left and right per reach, per ruling measured, mm */
export function nutRoom({ line, foot, out }: Draft, { nearest }: { readonly nearest: NearestField }): Float32Array {
  const count = foot.length / 3;
  const measured = Math.ceil(count / NUT_RULINGS);
  const room = new Float32Array(measured * NUT_FIGURES);
  for (let n = 0; n < measured; n++) {
    const k = n * NUT_RULINGS;
    const up = [out[3 * k], out[3 * k + 1], out[3 * k + 2]] as const;
    const left = leftOf(alongAt(foot, k, line.closed), up);
    NUT_REACHES_MM.forEach((reachMm, r) => {
      for (const side of [0, 1]) {
        let least = Number.POSITIVE_INFINITY;
        for (const behind of BEHIND_MM) {
          const off = side === 0 ? behind : -behind;
          const [x, y, z] = [0, 1, 2].map((a) => foot[3 * k + a] + reachMm * up[a] + off * left[a]);
          least = Math.min(least, nearest.distance(x, y, z));
        }
        room[n * NUT_FIGURES + 2 * r + side] = least;
      }
    });
  }
  return room;
}
