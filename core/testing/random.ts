/** Even draws for property tests. */
import fc from "fast-check";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";

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

/** What a lumpy body is made from: size and phase of each of its waves. */
export const lumps = fc.array(fc.tuple(evenly(4, 26), evenly(0, 6.28)), { minLength: 3, maxLength: 5 });

/** A ball with waves on it: overhangs, hollows and waists, no two alike. */
export function lumpy(ball: TriangleMesh, waves: readonly (readonly [number, number])[]): TriangleMesh {
  const p = ball.positions;
  const out = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    const r = Math.hypot(p[v], p[v + 1], p[v + 2]);
    const [x, y, z] = [p[v] / r, p[v + 1] / r, p[v + 2] / r];
    let bump = 0;
    waves.forEach(([size, phase], k) => {
      const across = (k + 1.5) * (Math.cos(phase) * x + Math.sin(phase) * y + Math.cos(2.3 * phase) * z);
      bump += size * Math.sin(2 * across + phase);
    });
    const grown = Math.max(0.5, 1 + bump / r);
    out.set([p[v] * grown, p[v + 1] * grown, p[v + 2] * grown], v);
  }
  return { positions: out, triangles: ball.triangles };
}
