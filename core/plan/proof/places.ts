/** Places about which lines stay as they are. */

/** So near to a place a line stays as it is, mm; */
export const STAY_MM = 15;
/** from so far on it may run as it likes, and between the two it goes over. */
export const FREE_MM = 60;

/** Places nearer to each other than this count as one, mm. */
const APART_MM = 5;

/** A few places in space. */
export class Places {
  private readonly held: number[] = [];

  /** @returns is it a place that was not among them? */
  add(x: number, y: number, z: number): boolean {
    if (this.awayMm([x, y, z]) < APART_MM) return false;
    this.held.push(x, y, z);
    return true;
  }

  get none(): boolean {
    return this.held.length === 0;
  }

  /** How far the nearest of them is from a point of a list, xyz, mm; infinite where there is none. */
  awayMm(points: ArrayLike<number>, point = 0): number {
    let least = Infinity;
    for (let k = 0; k < this.held.length; k += 3) {
      const away = Math.hypot(
        this.held[k] - points[3 * point],
        this.held[k + 1] - points[3 * point + 1],
        this.held[k + 2] - points[3 * point + 2],
      );
      if (away < least) least = away;
    }
    return least;
  }

  /** How freely a line may run at a point of a list: 0 about the places, 1 far from them (smoothstep). */
  freedom(points: ArrayLike<number>, point: number): number {
    const share = Math.max(0, Math.min(1, (this.awayMm(points, point) - STAY_MM) / (FREE_MM - STAY_MM)));
    return share * share * (3 - 2 * share);
  }
}
