/** Places on a wall by how far along its foot they lie, and how far off the jacket. */

import { NUT_FIGURES, NUT_REACHES_MM, NUT_RULINGS } from "../walls/nutRoom.ts";
import type { WallGround } from "../walls/wallGround.ts";
import type { Wall } from "../walls/walls.ts";

/** A wall with the figures that its fastenings are placed by. */
export class AlongWall {
  /** Of every ruling along the foot, mm. */
  readonly alongMm: Float64Array;
  /** The same along the outer edge. */
  readonly outerMm: Float64Array;

  constructor(
    readonly ground: WallGround,
    readonly wall: Wall,
  ) {
    this.alongMm = lengths(wall.foot);
    this.outerMm = lengths(wall.head);
  }

  get lengthMm(): number {
    return this.alongMm[this.alongMm.length - 1] ?? 0;
  }

  /** The ruling at a length along the foot, in parts: 2.5 lies half way between the third and the fourth. */
  rulingAt(mm: number): number {
    const { alongMm } = this;
    const last = alongMm.length - 1;
    if (mm <= 0) return 0;
    if (mm >= alongMm[last]) return last;
    let [low, high] = [0, last];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (alongMm[middle] <= mm) low = middle;
      else high = middle;
    }
    return low + (mm - alongMm[low]) / (alongMm[high] - alongMm[low] || 1);
  }

  /** A figure that is known at every ruling, between two of them. */
  private between(values: ArrayLike<number>, ruling: number, width = 1, at = 0): number {
    const k = Math.min(Math.floor(ruling), values.length / width - 1);
    const next = Math.min(k + 1, values.length / width - 1);
    const share = ruling - k;
    return values[width * k + at] * (1 - share) + values[width * next + at] * share;
  }

  widthMm(alongMm: number): number {
    return this.between(this.wall.widthsMm, this.rulingAt(alongMm));
  }

  /** Along the outer edge, to the ruling that a length along the foot lies on, mm. */
  outerAt(alongMm: number): number {
    return this.between(this.outerMm, this.rulingAt(alongMm));
  }

  /** Sine of the draft along a section's pull: 0 the one on the left, 1 the one on the right. */
  draft(alongMm: number, side: 0 | 1): number {
    return this.between(this.ground.draft, this.rulingAt(alongMm), 2, side);
  }

  /** A place in space, mm. */
  place({ alongMm, offMm }: { readonly alongMm: number; readonly offMm: number }): [number, number, number] {
    const ruling = this.rulingAt(alongMm);
    const { foot, out } = this.ground;
    const at = (a: number) => this.between(foot, ruling, 3, a) + offMm * this.between(out, ruling, 3, a);
    return [at(0), at(1), at(2)];
  }

  /** How far along the foot the place of it lies that is nearest to one, mm. */
  alongNear([x, y, z]: readonly [number, number, number]): number {
    const { foot } = this.wall;
    let [best, least2] = [0, Number.POSITIVE_INFINITY];
    for (let k = 0; k + 1 < this.alongMm.length; k++) {
      const from = [foot[3 * k], foot[3 * k + 1], foot[3 * k + 2]];
      const leg = [0, 1, 2].map((a) => foot[3 * k + 3 + a] - from[a]);
      const to = [x - from[0], y - from[1], z - from[2]];
      const whole2 = leg[0] ** 2 + leg[1] ** 2 + leg[2] ** 2 || 1;
      const share = Math.max(0, Math.min(1, (leg[0] * to[0] + leg[1] * to[1] + leg[2] * to[2]) / whole2));
      const away2 = leg.reduce((sum, part, a) => sum + (to[a] - share * part) ** 2, 0);
      if (away2 >= least2) continue;
      least2 = away2;
      best = this.alongMm[k] + share * (this.alongMm[k + 1] - this.alongMm[k]);
    }
    return best;
  }

  /** Towards the section on the left, of length one. */
  normal(alongMm: number): [number, number, number] {
    const { foot, out } = this.ground;
    const count = foot.length / 3;
    const k = Math.min(count - 2, Math.floor(this.rulingAt(alongMm)));
    const t = [0, 1, 2].map((a) => foot[3 * k + 3 + a] - foot[3 * k + a]);
    const u = [0, 1, 2].map((a) => out[3 * k + a] + out[3 * k + 3 + a]);
    const n = [u[1] * t[2] - u[2] * t[1], u[2] * t[0] - u[0] * t[2], u[0] * t[1] - u[1] * t[0]];
    const length = Math.hypot(...n) || 1;
    return [n[0] / length, n[1] / length, n[2] / length];
  }

  /** Distance of the jacket from the axis of a bolt behind the wall, on the left (0) or the right (1), mm. */
  nutMm({ alongMm, offMm }: { readonly alongMm: number; readonly offMm: number }, side: 0 | 1): number {
    const { nutMm } = this.ground;
    const measured = nutMm.length / NUT_FIGURES;
    const at = this.rulingAt(alongMm) / NUT_RULINGS;
    const last = NUT_REACHES_MM.length - 1;
    let r = 0;
    while (r < last - 1 && NUT_REACHES_MM[r + 1] < offMm) r++;
    const share = Math.max(0, Math.min(1, (offMm - NUT_REACHES_MM[r]) / (NUT_REACHES_MM[r + 1] - NUT_REACHES_MM[r])));
    const figure = (n: number) => {
      const from = Math.min(measured - 1, n) * NUT_FIGURES + side;
      return nutMm[from + 2 * r] * (1 - share) + nutMm[from + 2 * (r + 1)] * share;
    };
    // The nearer of the two rulings measured beside it: never more room than there is.
    return Math.min(figure(Math.floor(at)), figure(Math.ceil(at)));
  }
}

function lengths(points: Float64Array): Float64Array {
  const out = new Float64Array(points.length / 3);
  for (let k = 1, a = 0; k < out.length; k++, a += 3)
    out[k] =
      out[k - 1] + Math.hypot(points[a + 3] - points[a], points[a + 4] - points[a + 1], points[a + 5] - points[a + 2]);
  return out;
}
