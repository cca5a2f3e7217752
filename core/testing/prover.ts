/**
 * A prover of release that shares no code with `core/release`: slow, plain, by rays against the triangles of the body
 * themselves. For places spread over a section's skin, every stretch of the straight way out that runs inside the body is
 * walked, and the greatest distance from the nearest triangle met on it is the place's bite.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";

type V3 = readonly [number, number, number];

const minus = (a: V3, b: V3): V3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const inner = (a: V3, b: V3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: V3, b: V3): V3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const plus = (a: V3, s: number, b: V3): V3 => [a[0] + s * b[0], a[1] + s * b[1], a[2] + s * b[2]];

interface Hit {
  readonly at: number;
  readonly leaves: boolean;
}

export class Prover {
  private readonly corners: readonly (readonly [V3, V3, V3])[];
  /** Of a ball about every triangle: its middle and its radius. What is not near the ball is not near the triangle. */
  private readonly balls: Float64Array;

  constructor(body: TriangleMesh) {
    this.corners = cornersOf(body);
    this.balls = Float64Array.from(this.corners.flatMap(ballAbout));
  }

  /** Where a ray meets the body (Moeller and Trumbore 1997), in order. */
  private hits(from: V3, way: V3): Hit[] {
    const found: Hit[] = [];
    const { balls } = this;
    for (let k = 0; k < this.corners.length; k++) {
      const [mx, my, mz] = [balls[4 * k] - from[0], balls[4 * k + 1] - from[1], balls[4 * k + 2] - from[2]];
      const along = mx * way[0] + my * way[1] + mz * way[2];
      if (mx * mx + my * my + mz * mz - along * along > balls[4 * k + 3] ** 2) continue;
      const [a, b, c] = this.corners[k];
      const [u, v] = [minus(b, a), minus(c, a)];
      const p = cross(way, v);
      const det = inner(u, p);
      if (Math.abs(det) < 1e-12) continue;
      const t = minus(from, a);
      const s = inner(t, p) / det;
      const q = cross(t, u);
      const r = inner(way, q) / det;
      const at = inner(v, q) / det;
      if (s >= 0 && r >= 0 && s + r <= 1 && at > 1e-9) found.push({ at, leaves: inner(cross(u, v), way) > 0 });
    }
    return found.sort((x, y) => x.at - y.at);
  }

  private distance(x: V3): number {
    let least = Infinity;
    const { balls } = this;
    for (let k = 0; k < this.corners.length; k++) {
      const away = Math.hypot(balls[4 * k] - x[0], balls[4 * k + 1] - x[1], balls[4 * k + 2] - x[2]);
      if (away - balls[4 * k + 3] < least) least = Math.min(least, distanceToTriangle(x, ...this.corners[k]));
    }
    return least;
  }

  /** The deepest a place bites on its way, mm. */
  bite(from: V3, pull: V3): number {
    const hits = this.hits(from, pull);
    let deepest = 0;
    hits.forEach(({ at, leaves }, k) => {
      const begin = leaves ? (k === 0 ? 0 : at) : at;
      const end = leaves ? at : (hits[k + 1]?.at ?? at);
      const step = Math.max(2, (end - begin) / 12);
      for (let s = begin + step / 2; s < end; s += step)
        deepest = Math.max(deepest, this.distance(plus(from, s, pull)));
    });
    return deepest;
  }

  /** The bites of places on a skin, every so many triangles, a little off their middles. */
  bites(skin: TriangleMesh, pull: V3, places: number): number[] {
    const corners = cornersOf(skin);
    const every = Math.max(1, Math.floor(corners.length / places));
    return corners
      .filter((_, k) => k % every === 0)
      .map(([a, b, c]) => {
        const n = cross(minus(b, a), minus(c, a));
        const length = Math.hypot(...n) || 1;
        const middle: V3 = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3];
        return this.bite(plus(middle, 0.05 / length, n), pull);
      });
  }
}

/** A ball about a triangle's middle that holds it, with a little to spare. */
function ballAbout(corners: readonly [V3, V3, V3]): number[] {
  const middle = [0, 1, 2].map((x) => corners.reduce((sum, corner) => sum + corner[x] / 3, 0));
  const radius = Math.max(...corners.map((corner) => Math.hypot(...minus(corner, middle as unknown as V3))));
  return [...middle, radius * (1 + 1e-9) + 1e-9];
}

function cornersOf({ positions: p, triangles: t }: TriangleMesh): [V3, V3, V3][] {
  const at = (v: number): V3 => [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
  return Array.from({ length: t.length / 3 }, (_, k) => [at(t[3 * k]), at(t[3 * k + 1]), at(t[3 * k + 2])]);
}

/** Least distance over the plane's foot, if it is within, and the three edges. */
function distanceToTriangle(x: V3, a: V3, b: V3, c: V3): number {
  const n = cross(minus(b, a), minus(c, a));
  const length = Math.hypot(...n);
  const edges: readonly (readonly [V3, V3])[] = [
    [a, b],
    [b, c],
    [c, a],
  ];
  if (length > 0 && edges.every(([p, q]) => inner(cross(minus(q, p), minus(x, p)), n) >= 0)) {
    return Math.abs(inner(minus(x, a), n)) / length;
  }
  return Math.min(
    ...edges.map(([p, q]) => {
      const along = minus(q, p);
      const share = Math.max(0, Math.min(1, inner(minus(x, p), along) / (inner(along, along) || 1)));
      return Math.hypot(...minus(x, plus(p, share, along)));
    }),
  );
}
