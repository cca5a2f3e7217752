/** Edges of rings by the square of a grid they run through, so that the nearest one is found among few. */

export type Place = readonly [number, number];
export type Ring = readonly Place[];

export interface NearestEdge {
  /** Distance from the nearest edge, mm; below 0 inside the rings. */
  readonly mm: number;
  /** Its ring, and the point in that ring that it begins at. */
  readonly ring: number;
  readonly point: number;
}

/** No more squares on a side than this: smaller ones are quicker near an edge, and slower far from all. */
const MOST_SQUARES = 40;

interface Edge {
  readonly ring: number;
  readonly point: number;
  readonly from: Place;
  readonly to: Place;
}

export class EdgeBuckets {
  private readonly edges: readonly Edge[];
  private readonly squares: number[][];
  private readonly low: Place;
  private readonly sideMm: number;
  private readonly size: readonly [number, number];

  constructor(rings: readonly Ring[]) {
    this.edges = rings.flatMap((own, ring) =>
      own.map((from, point): Edge => ({ ring, point, from, to: own[(point + 1) % own.length] })),
    );
    const xs = this.edges.map(({ from }) => from[0]);
    const ys = this.edges.map(({ from }) => from[1]);
    const least = (values: readonly number[]) =>
      values.reduce((low, value) => Math.min(low, value), Number.POSITIVE_INFINITY);
    this.low = [least(xs), least(ys)];
    const wide = -least(xs.map((x) => -x)) - this.low[0];
    const deep = -least(ys.map((y) => -y)) - this.low[1];
    const along = Math.min(MOST_SQUARES, Math.max(1, Math.sqrt(this.edges.length)));
    this.sideMm = Math.max(wide, deep, 1e-6) / along;
    this.size = [Math.floor(wide / this.sideMm) + 1, Math.floor(deep / this.sideMm) + 1];
    this.squares = Array.from({ length: this.size[0] * this.size[1] }, () => []);
    this.edges.forEach(({ from, to }, e) => {
      const [i0, i1] = this.span(from[0], to[0], 0);
      const [j0, j1] = this.span(from[1], to[1], 1);
      for (let j = j0; j <= j1; j++) for (let i = i0; i <= i1; i++) this.squares[i + this.size[0] * j].push(e);
    });
  }

  /** @returns the nearest edge to a place, mm below 0 inside the rings; rings within others are holes; of several at one distance any */
  nearest(place: Place): NearestEdge {
    const [i, j] = [this.square(place[0], 0), this.square(place[1], 1)];
    let least2 = Number.POSITIVE_INFINITY;
    let near = -1;
    for (let round = 0; round <= Math.max(...this.size); round++) {
      // What lies farther out is no nearer than the border of the squares that were looked at.
      if (least2 <= this.borderMm(place, i, j, round - 1) ** 2) break;
      this.eachOfRound(i, j, round, (e) => {
        const away2 = distance2(this.edges[e], place);
        if (away2 < least2) [least2, near] = [away2, e];
      });
    }
    const { ring, point } = this.edges[near];
    const mm = Math.sqrt(least2);
    return { mm: this.isInside(place) ? -mm : mm, ring, point };
  }

  /** No edge beyond the squares within so many rounds of one is nearer to a place than this, mm. */
  private borderMm([x, y]: Place, i: number, j: number, rounds: number): number {
    if (rounds < 0) return -1;
    const { sideMm, low, size } = this;
    const toSide: number[] = [];
    if (i - rounds > 0) toSide.push(x - low[0] - (i - rounds) * sideMm);
    if (i + rounds < size[0] - 1) toSide.push(low[0] + (i + rounds + 1) * sideMm - x);
    if (j - rounds > 0) toSide.push(y - low[1] - (j - rounds) * sideMm);
    if (j + rounds < size[1] - 1) toSide.push(low[1] + (j + rounds + 1) * sideMm - y);
    return Math.max(0, Math.min(Number.POSITIVE_INFINITY, ...toSide));
  }

  private eachOfRound(i: number, j: number, round: number, visit: (edge: number) => void): void {
    for (let dj = -round; dj <= round; dj++) {
      const row = j + dj;
      if (row < 0 || row >= this.size[1]) continue;
      const step = Math.abs(dj) === round ? 1 : Math.max(1, 2 * round);
      for (let di = -round; di <= round; di += step) {
        const column = i + di;
        if (column < 0 || column >= this.size[0]) continue;
        for (const edge of this.squares[column + this.size[0] * row]) visit(edge);
      }
    }
  }

  /** By the parity of the edges to the right. */
  private isInside([x, y]: Place): boolean {
    const row = Math.floor((y - this.low[1]) / this.sideMm);
    if (row < 0 || row >= this.size[1]) return false;
    let inside = false;
    const seen = new Set<number>();
    for (let i = Math.max(0, this.square(x, 0)); i < this.size[0]; i++) {
      for (const e of this.squares[i + this.size[0] * row]) {
        if (seen.has(e)) continue;
        seen.add(e);
        const { from, to } = this.edges[e];
        const [[ax, ay], [bx, by]] = [from, to];
        if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
      }
    }
    return inside;
  }

  /** The square along an axis, held within those that there are. */
  private square(value: number, axis: 0 | 1): number {
    const at = Math.floor((value - this.low[axis]) / this.sideMm);
    return Math.min(this.size[axis] - 1, Math.max(0, at));
  }

  private span(a: number, b: number, axis: 0 | 1): [number, number] {
    return [this.square(Math.min(a, b), axis), this.square(Math.max(a, b), axis)];
  }
}

function distance2({ from: [ax, ay], to: [bx, by] }: Edge, [x, y]: Place): number {
  const [ux, uy] = [bx - ax, by - ay];
  const share = Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy || 1)));
  return (ax + share * ux - x) ** 2 + (ay + share * uy - y) ** 2;
}
