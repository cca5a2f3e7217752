/**
 * A wall laid flat. A wall is a strip of triangles between two curves; such a strip unrolls without any stretch, triangle
 * by triangle: each next corner is where two circles about the corners before it meet.
 */

/** The two edges of a strip: xyz per place, mm, as many places on either. */
export interface Strip {
  /** On the jacket. */
  readonly foot: Float64Array;
  /** The outer edge. */
  readonly head: Float64Array;
}

/** The same laid flat: xy per place, mm. The head lies to the left of the foot as one goes along it. */
export interface FlatStrip {
  readonly foot: Float64Array;
  readonly head: Float64Array;
}

/** Lays a strip flat; its first place stands upright on the origin. All edges of its triangles keep their lengths. */
export function unrolled({ foot, head }: Strip): FlatStrip {
  const count = foot.length / 3;
  const flatFoot = new Float64Array(2 * count);
  const flatHead = new Float64Array(2 * count);
  if (count > 0) flatHead[1] = apart(foot, 0, head, 0);
  for (let k = 0; k + 1 < count; k++) {
    const [at, next] = [3 * k, 3 * k + 3];
    place(flatFoot, k + 1, flatFoot, k, flatHead, k, apart(foot, at, foot, next), apart(head, at, foot, next));
    place(flatHead, k + 1, flatFoot, k + 1, flatHead, k, apart(foot, next, head, next), apart(head, at, head, next));
  }
  return { foot: flatFoot, head: flatHead };
}

/** Distance of two places of lists of xyz. */
function apart(a: Float64Array, i: number, b: Float64Array, j: number): number {
  return Math.hypot(a[i] - b[j], a[i + 1] - b[j + 1], a[i + 2] - b[j + 2]);
}

/**
 * Sets a place by its distances from two others, on the right of the way from the first to the second.
 * @param fromA distance from place `i` of `a`, mm
 * @param fromB distance from place `j` of `b`, mm
 */
function place(
  out: Float64Array,
  n: number,
  a: Float64Array,
  i: number,
  b: Float64Array,
  j: number,
  fromA: number,
  fromB: number,
): void {
  const [ax, ay] = [a[2 * i], a[2 * i + 1]];
  const [ux, uy] = [b[2 * j] - ax, b[2 * j + 1] - ay];
  const base = Math.hypot(ux, uy);
  // Where the strip has no width there is no triangle to lay: it runs straight on.
  if (base < 1e-9) {
    out[2 * n] = ax + fromA;
    out[2 * n + 1] = ay;
    return;
  }
  const along = (fromA ** 2 - fromB ** 2 + base ** 2) / (2 * base);
  const aside = Math.sqrt(Math.max(0, fromA ** 2 - along ** 2));
  out[2 * n] = ax + (along * ux + aside * uy) / base;
  out[2 * n + 1] = ay + (along * uy - aside * ux) / base;
}

/** Length of a curve: of the flat one as of the one in space. */
export function curveLengthMm(points: Float64Array, dimensions: 2 | 3): number {
  let sum = 0;
  for (let k = dimensions; k < points.length; k += dimensions) {
    let squared = 0;
    for (let a = 0; a < dimensions; a++) squared += (points[k + a] - points[k + a - dimensions]) ** 2;
    sum += Math.sqrt(squared);
  }
  return sum;
}

/** Places from one to another, both included. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/**
 * Cuts a flat strip where it would run over itself: a wall round a limb may come full circle. Each piece is as long as it
 * can be.
 */
export function withoutOverlap({ foot, head }: FlatStrip): Stretch[] {
  const count = foot.length / 2;
  const pieces: Stretch[] = [];
  let from = 0;
  for (let k = 1; k < count; k++) {
    if (!meetsBefore(foot, head, from, k)) continue;
    pieces.push({ from, to: k - 1 });
    from = k - 1;
  }
  if (count > 1) pieces.push({ from, to: count - 1 });
  return pieces;
}

/** Does the quadrilateral that ends at a place meet an earlier one of its piece, but for the one it begins at? */
function meetsBefore(foot: Float64Array, head: Float64Array, from: number, k: number): boolean {
  const own = [
    [foot, k - 1, foot, k],
    [head, k - 1, head, k],
    [foot, k, head, k],
  ] as const;
  for (let q = from + 1; q < k - 1; q++) {
    if (!near(foot, head, k, q)) continue;
    const other = [
      [foot, q - 1, foot, q],
      [head, q - 1, head, q],
      [foot, q, head, q],
    ] as const;
    for (const a of own) for (const b of other) if (cross(...a, ...b)) return true;
  }
  return false;
}

/** Do the boxes of the quadrilaterals that end at two places meet? Most of them do not. */
function near(foot: Float64Array, head: Float64Array, k: number, q: number): boolean {
  for (let a = 0; a < 2; a++) {
    const [k0, k1, q0, q1] = [2 * k - 2 + a, 2 * k + a, 2 * q - 2 + a, 2 * q + a];
    const low = Math.min(foot[k0], foot[k1], head[k0], head[k1]);
    const high = Math.max(foot[k0], foot[k1], head[k0], head[k1]);
    if (foot[q0] > high && foot[q1] > high && head[q0] > high && head[q1] > high) return false;
    if (foot[q0] < low && foot[q1] < low && head[q0] < low && head[q1] < low) return false;
  }
  return true;
}

/** Do two straight stretches of flat curves cross? */
function cross(
  a: Float64Array,
  i: number,
  b: Float64Array,
  j: number,
  c: Float64Array,
  m: number,
  d: Float64Array,
  n: number,
): boolean {
  const side = (p: Float64Array, s: number, q: Float64Array, t: number, r: Float64Array, u: number) =>
    (q[2 * t] - p[2 * s]) * (r[2 * u + 1] - p[2 * s + 1]) - (q[2 * t + 1] - p[2 * s + 1]) * (r[2 * u] - p[2 * s]);
  return (
    side(a, i, b, j, c, m) * side(a, i, b, j, d, n) < -EDGE_ON &&
    side(c, m, d, n, a, i) * side(c, m, d, n, b, j) < -EDGE_ON
  );
}

/** Stretches that only touch do not cross, mm to the fourth. */
const EDGE_ON = 1e-6;
