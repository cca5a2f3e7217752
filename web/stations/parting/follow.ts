/** Which section of the next plan is the one that was looked at: sections are numbered anew when the order changes. */
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";

/** Places of a skin that stand for it. */
const PLACES = 60;
/** Vertices of the next skins that they are compared with, in all. */
const COMPARED = 9000;

/**
 * @param skin of the section in the plan before
 * @param skins of the next plan
 * @returns the place among the next skins of the one that lies where it lay; -1 where there is none
 */
export function sectionInPlaceOf(skin: TriangleMesh, skins: readonly TriangleMesh[]): number {
  const places = spreadOver(skin, PLACES);
  const total = skins.reduce((sum, { positions }) => sum + positions.length / 3, 0);
  let best = -1;
  let leastMm = Infinity;
  skins.forEach((next, k) => {
    const awayMm = meanAwayMm(places, spreadOver(next, Math.ceil((COMPARED * next.positions.length) / (3 * total))));
    if (awayMm >= leastMm) return;
    leastMm = awayMm;
    best = k;
  });
  return best;
}

/** About so many vertices of a mesh, evenly by number: xyz each. */
function spreadOver({ positions: p }: TriangleMesh, count: number): number[] {
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / Math.max(1, count)));
  const out: number[] = [];
  for (let at = 0; at + 2 < p.length; at += every) out.push(p[at], p[at + 1], p[at + 2]);
  return out;
}

/** How far places lie from the nearest of some others, on average. */
function meanAwayMm(places: readonly number[], others: readonly number[]): number {
  let sum = 0;
  for (let a = 0; a < places.length; a += 3) {
    let least = Infinity;
    for (let b = 0; b < others.length; b += 3) {
      const away =
        (places[a] - others[b]) ** 2 + (places[a + 1] - others[b + 1]) ** 2 + (places[a + 2] - others[b + 2]) ** 2;
      if (away < least) least = away;
    }
    sum += Math.sqrt(least);
  }
  return (3 * sum) / Math.max(1, places.length);
}
