/**
 * Whether a jacket left uncut comes off over the top: every ring of it must pass over the widest girth above it.
 *   needed stretch at a height = widest girth above / girth there - 1
 * A girth is what a tape round the piece measures at a height: the perimeter of the convex hull of the cut.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";

export interface StretchCheck {
  /** The most that any ring must stretch: 0.5 is half as long again. */
  readonly needed: number;
  /** The ring that must stretch most, and the wider place it must pass: heights and girths, mm. */
  readonly narrow: Girth;
  readonly wide: Girth;
  /** From the foot so far up the jacket would have to be slit, mm; 0 where it need not. */
  readonly slitMm: number;
}

export interface Girth {
  readonly heightMm: number;
  readonly girthMm: number;
}

const CUTS = 80;
/** The very foot and top are left out: a cut through a flat face is no girth. */
const ENDS = 0.01;

/** @param allowed what the material stretches without harm, as a share of its length */
export function stretchCheck(mesh: TriangleMesh, allowed: number): StretchCheck {
  const girths = girthsOf(mesh);
  const footMm =
    girths[0].heightMm - (ENDS * (girths[girths.length - 1].heightMm - girths[0].heightMm)) / (1 - 2 * ENDS);
  let needed = 0;
  let [narrow, wide] = [girths[0], girths[0]];
  let widest = girths[girths.length - 1];
  let slitMm = 0;
  for (let k = girths.length - 1; k >= 0; k--) {
    if (girths[k].girthMm > widest.girthMm) widest = girths[k];
    if (girths[k].girthMm <= 0) continue;
    const own = widest.girthMm / girths[k].girthMm - 1;
    // Seen from the top down: the first ring that is too tight is as far as a slit must reach.
    if (own > allowed && slitMm === 0) slitMm = girths[Math.min(k + 1, girths.length - 1)].heightMm - footMm;
    if (own > needed) [needed, narrow, wide] = [own, girths[k], widest];
  }
  return { needed, narrow, wide, slitMm };
}

/** Girths at even heights, from the foot up. */
export function girthsOf({ positions: p, triangles: t }: TriangleMesh): Girth[] {
  let [low, high] = [Infinity, -Infinity];
  for (let k = 2; k < p.length; k += 3) {
    low = Math.min(low, p[k]);
    high = Math.max(high, p[k]);
  }
  const heights = Array.from(
    { length: CUTS },
    (_, k) => low + (high - low) * (ENDS + ((1 - 2 * ENDS) * k) / (CUTS - 1)),
  );
  const cuts: [number, number][][] = heights.map(() => []);
  const every = heights[1] - heights[0];
  for (let k = 0; k < t.length; k += 3) {
    for (let e = 0; e < 3; e++) {
      const [a, b] = [3 * t[k + e], 3 * t[k + ((e + 1) % 3)]];
      const [from, to] = p[a + 2] < p[b + 2] ? [a, b] : [b, a];
      const first = Math.max(0, Math.ceil((p[from + 2] - heights[0]) / every));
      for (let n = first; n < CUTS && heights[n] <= p[to + 2]; n++) {
        const share = (heights[n] - p[from + 2]) / (p[to + 2] - p[from + 2] || 1);
        cuts[n].push([p[from] + share * (p[to] - p[from]), p[from + 1] + share * (p[to + 1] - p[from + 1])]);
      }
    }
  }
  return heights.map((heightMm, n) => ({ heightMm, girthMm: hullPerimeterMm(cuts[n]) }));
}

/** Perimeter of the convex hull of points in a plane (Andrew 1979). */
export function hullPerimeterMm(points: readonly (readonly [number, number])[]): number {
  if (points.length < 2) return 0;
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly (readonly [number, number])[]) => {
    const out: (readonly [number, number])[] = [];
    for (const c of list) {
      while (out.length > 1) {
        const [a, b] = [out[out.length - 2], out[out.length - 1]];
        if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(c);
    }
    return out;
  };
  const hull = [...half(sorted).slice(0, -1), ...half(sorted.reverse()).slice(0, -1)];
  return hull.reduce((sum, a, k) => {
    const b = hull[(k + 1) % hull.length];
    return sum + Math.hypot(b[0] - a[0], b[1] - a[1]);
  }, 0);
}
