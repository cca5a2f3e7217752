/**
 * The which-way check: could the jacket be put back into its shell turned about the upright? Its outside is turned by every
 * few degrees, and where nearly all of it then lies within so much of where it lay, it nearly fits that way too. Keys that do
 * not come to lie on keys tell the ways apart; else a notch in the rim must.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { Body, type BodyData } from "../release/body.ts";
import type { JacketKey } from "./jacketKeys.ts";

/** A way that the jacket nearly fits, beside the right one. */
export interface OtherWay {
  /** Turned about the upright, degrees anticlockwise seen from above. */
  readonly turnDeg: number;
  /** How far off its outside then lies at most, but for the worst twentieth, mm. */
  readonly offMm: number;
}

/** It nearly fits where it is no farther off than this, mm. */
export const NEARLY_FITS_MM = 10;
/** Turns are tried every so many degrees; ways nearer to each other than a quarter of a right angle are one. */
const TURN_DEG = 3;
const APART_DEG = 22.5;
/** Nearer to the right way than this a jacket slips back by itself, degrees. */
const LEAST_DEG = 20;
const PLACES = 900;
const SHARE = 0.95;

/** @param outside of the jacket, whose field the body is */
export function otherWays(data: BodyData, outside: TriangleMesh): OtherWay[] {
  const body = new Body(data);
  const { areasMm2 } = vertexNormals(outside);
  const p = outside.positions;
  let [cx, cy, all] = [0, 0, 0];
  areasMm2.forEach((areaMm2, v) => {
    cx += areaMm2 * p[3 * v];
    cy += areaMm2 * p[3 * v + 1];
    all += areaMm2;
  });
  cx /= all || 1;
  cy /= all || 1;
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / PLACES));
  const found: OtherWay[] = [];
  for (let turnDeg = LEAST_DEG; turnDeg <= 360 - LEAST_DEG; turnDeg += TURN_DEG) {
    const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
    const off: number[] = [];
    for (let v = 0; v + 2 < p.length; v += every) {
      const [x, y] = [p[v] - cx, p[v + 1] - cy];
      off.push(Math.abs(body.at(cx + c * x - s * y, cy + s * x + c * y, p[v + 2])));
    }
    off.sort((a, b) => a - b);
    const offMm = off[Math.floor(SHARE * (off.length - 1))] ?? 0;
    if (offMm <= NEARLY_FITS_MM) found.push({ turnDeg, offMm });
  }
  return bestApart(found);
}

/** The best of ways that lie beside each other. */
function bestApart(found: readonly OtherWay[]): OtherWay[] {
  const out: OtherWay[] = [];
  for (const way of [...found].sort((a, b) => a.offMm - b.offMm))
    if (out.every(({ turnDeg }) => apartDeg(turnDeg, way.turnDeg) >= APART_DEG)) out.push(way);
  return out.sort((a, b) => a.turnDeg - b.turnDeg);
}

function apartDeg(a: number, b: number): number {
  const away = Math.abs(a - b) % 360;
  return Math.min(away, 360 - away);
}

/** The ways that the keys do not tell apart: turned so, every key comes to lie on another. */
export function notToldByKeys(
  ways: readonly OtherWay[],
  keys: readonly Pick<JacketKey, "at">[],
  middle: readonly [number, number],
): OtherWay[] {
  return ways.filter(({ turnDeg }) => {
    const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
    return keys.every(({ at }) => {
      const [x, y] = [at[0] - middle[0], at[1] - middle[1]];
      const turned = [middle[0] + c * x - s * y, middle[1] + s * x + c * y, at[2]];
      return keys.some((other) => Math.hypot(...other.at.map((v, a) => v - turned[a])) <= NEARLY_FITS_MM);
    });
  });
}

/** What lets the jacket in one way only where its keys do not: one of them made otherwise, or a notch in the rim. */
export type WayMark =
  | { readonly kind: "odd key"; readonly key: number; readonly at: readonly [number, number, number] }
  | { readonly kind: "notch"; readonly at: readonly [number, number, number] };

/**
 * Where such a mark goes: the key that moves farthest when the jacket is turned; where none moves so far that it would be
 * missed, the rim at the front.
 * @returns null where the keys tell all ways apart
 */
export function wayMark(
  ways: readonly OtherWay[],
  keys: readonly Pick<JacketKey, "at">[],
  { min, max }: { readonly min: readonly number[]; readonly max: readonly number[] },
): WayMark | null {
  const middle: [number, number] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const untold = notToldByKeys(ways, keys, middle);
  if (untold.length === 0) return null;
  const least = Math.min(...untold.map(({ turnDeg }) => Math.abs(Math.sin((turnDeg * Math.PI) / 360))));
  let best = -1;
  let farthest = 0;
  keys.forEach(({ at: [x, y] }, k) => {
    const movesMm = 2 * Math.hypot(x - middle[0], y - middle[1]) * least;
    if (movesMm <= farthest) return;
    farthest = movesMm;
    best = k;
  });
  if (farthest > 2 * NEARLY_FITS_MM) return { kind: "odd key", key: best, at: keys[best].at };
  return { kind: "notch", at: [middle[0], min[1], min[2]] };
}
