/** Edges of rings by the square of a grid they run through, so that the nearest one is found among few. */

export type Place = readonly [number, number];
export type Ring = readonly Place[];

export interface NearestEdge {
  /** Distance from the nearest edge, mm; below 0 inside the rings. */
  readonly mm: number;
  /** Its ring, and the point in that ring that it begins at. */
  readonly ring: number;
  readonly point: number;
  /** Its place among all edges. */
  readonly edge: number;
}

/** No more squares on a side than this: smaller ones are quicker near an edge, and slower far from all. */
const MOST_SQUARES = 40;

export class EdgeBuckets {
  /** Where edges begin and end: x, y, x, y each, mm. */
  private readonly ends: Float64Array;
  private readonly ringOf: Int32Array;
  /** The first edge of every ring. */
  private readonly firstOf: readonly number[];
  private readonly squares: number[][];
  private readonly low: Place;
  private readonly sideMm: number;
  private readonly size: readonly [number, number];

  constructor(rings: readonly Ring[]) {
    const count = rings.reduce((sum, ring) => sum + ring.length, 0);
    this.ends = new Float64Array(4 * count);
    this.ringOf = new Int32Array(count);
    const firstOf: number[] = [];
    let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
    let e = 0;
    rings.forEach((ring, r) => {
      firstOf.push(e);
      ring.forEach(([x, y], point) => {
        const [nextX, nextY] = ring[(point + 1) % ring.length];
        this.ends.set([x, y, nextX, nextY], 4 * e);
        this.ringOf[e++] = r;
        left = Math.min(left, x);
        right = Math.max(right, x);
        low = Math.min(low, y);
        high = Math.max(high, y);
      });
    });
    this.firstOf = firstOf;
    this.low = [left, low];
    const [wide, deep] = [right - left, high - low];
    const along = Math.min(MOST_SQUARES, Math.max(1, Math.sqrt(count)));
    this.sideMm = Math.max(wide, deep, 1e-6) / along;
    this.size = [Math.floor(wide / this.sideMm) + 1, Math.floor(deep / this.sideMm) + 1];
    this.squares = Array.from({ length: this.size[0] * this.size[1] }, () => []);
    for (e = 0; e < count; e++) {
      const [ax, ay, bx, by] = this.ends.subarray(4 * e, 4 * e + 4);
      const [i0, i1] = [this.square(Math.min(ax, bx), 0), this.square(Math.max(ax, bx), 0)];
      const [j0, j1] = [this.square(Math.min(ay, by), 1), this.square(Math.max(ay, by), 1)];
      for (let j = j0; j <= j1; j++) for (let i = i0; i <= i1; i++) this.squares[i + this.size[0] * j].push(e);
    }
  }

  /**
   * @param about an edge that is likely near, by its place among all: what lies farther is not looked at
   * @returns the nearest edge to a place, mm below 0 inside the rings; rings within others are holes; of several at one distance any
   */
  nearest([x, y]: Place, about = 0): NearestEdge {
    const { ends, squares, size, ringOf } = this;
    const [i, j] = [this.square(x, 0), this.square(y, 1)];
    let near = about;
    let least2 = awayFrom2(ends, near, x, y);
    const rounds = Math.max(size[0], size[1]);
    // What lies farther out is no nearer than the border of the squares that were looked at.
    for (let round = 0; round <= rounds && least2 > this.borderMm(x, y, i, j, round - 1) ** 2; round++) {
      for (let row = Math.max(0, j - round); row <= Math.min(size[1] - 1, j + round); row++) {
        const step = Math.abs(row - j) === round ? 1 : Math.max(1, 2 * round);
        for (let column = i - round; column <= i + round; column += step) {
          if (column < 0 || column >= size[0]) continue;
          const held = squares[column + size[0] * row];
          for (let n = 0; n < held.length; n++) {
            const away2 = awayFrom2(ends, held[n], x, y);
            if (away2 >= least2) continue;
            least2 = away2;
            near = held[n];
          }
        }
      }
    }
    const mm = Math.sqrt(least2);
    const ring = ringOf[near];
    return { mm: this.isInside(x, y) ? -mm : mm, ring, point: near - this.firstOf[ring], edge: near };
  }

  /** No edge beyond the squares within so many rounds of one is nearer to a place than this, mm. */
  private borderMm(x: number, y: number, i: number, j: number, rounds: number): number {
    if (rounds < 0) return 0;
    const { sideMm, low, size } = this;
    let least = Infinity;
    if (i - rounds > 0) least = Math.min(least, x - low[0] - (i - rounds) * sideMm);
    if (i + rounds < size[0] - 1) least = Math.min(least, low[0] + (i + rounds + 1) * sideMm - x);
    if (j - rounds > 0) least = Math.min(least, y - low[1] - (j - rounds) * sideMm);
    if (j + rounds < size[1] - 1) least = Math.min(least, low[1] + (j + rounds + 1) * sideMm - y);
    return Math.max(0, least);
  }

  /** By the parity of the edges to the right; an edge that runs through several squares counts in the first of them. */
  private isInside(x: number, y: number): boolean {
    const row = Math.floor((y - this.low[1]) / this.sideMm);
    if (row < 0 || row >= this.size[1]) return false;
    const { ends, squares, size } = this;
    const first = this.square(x, 0);
    let inside = false;
    for (let i = first; i < size[0]; i++) {
      const held = squares[i + size[0] * row];
      for (let n = 0; n < held.length; n++) {
        const at = 4 * held[n];
        const [ax, ay, bx, by] = [ends[at], ends[at + 1], ends[at + 2], ends[at + 3]];
        if (ay > y === by > y || x >= ax + ((y - ay) / (by - ay)) * (bx - ax)) continue;
        if (i === Math.max(first, this.square(Math.min(ax, bx), 0))) inside = !inside;
      }
    }
    return inside;
  }

  /** The square along an axis, held within those that there are. */
  private square(value: number, axis: 0 | 1): number {
    const at = Math.floor((value - this.low[axis]) / this.sideMm);
    return Math.min(this.size[axis] - 1, Math.max(0, at));
  }
}

/** The square of a place's distance from an edge, mm2. */
function awayFrom2(ends: Float64Array, edge: number, x: number, y: number): number {
  const at = 4 * edge;
  const [dx, dy] = [x - ends[at], y - ends[at + 1]];
  const [ux, uy] = [ends[at + 2] - ends[at], ends[at + 3] - ends[at + 1]];
  const share = Math.max(0, Math.min(1, (dx * ux + dy * uy) / (ux * ux + uy * uy || 1)));
  return (share * ux - dx) ** 2 + (share * uy - dy) ** 2;
}
