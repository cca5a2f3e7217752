/** What is drilled, pressed and cut into a wall, where it lies on the wall's pattern. */
import type { PatternPiece } from "../walls/pattern.ts";
import type { Fastenings } from "./fastenings.ts";
import { SLOT_DEPTH_MM } from "./fastenings.ts";
import type { BoltPlace } from "./settings.ts";

type Point = readonly [number, number];

export interface PatternMarks {
  readonly holes: readonly { readonly at: Point; readonly radiusMm: number; readonly number: number }[];
  readonly dimples: readonly { readonly at: Point; readonly radiusMm: number }[];
  /** Both edges of every groove. */
  readonly grooves: readonly (readonly Point[])[];
  /** Round every pry slot. */
  readonly slots: readonly (readonly Point[])[];
}

/** Lines along a wall are drawn through places so far apart, mm. */
const ALONG_STEP_MM = 5;

/** Where a place of the wall lies on a piece of its pattern; null where it is on another piece. */
export function onPiece(piece: PatternPiece, { alongMm, offMm }: BoltPlace): Point | null {
  const { foot, head, fromMm, toMm } = piece;
  if (alongMm < fromMm - 1e-6 || alongMm > toMm + 1e-6) return null;
  let at = fromMm;
  for (let k = 0; k + 1 < foot.length; k++) {
    const leg = Math.hypot(foot[k + 1][0] - foot[k][0], foot[k + 1][1] - foot[k][1]);
    if (alongMm > at + leg && k + 2 < foot.length) {
      at += leg;
      continue;
    }
    const share = leg > 0 ? Math.min(1, Math.max(0, (alongMm - at) / leg)) : 0;
    const [f, h] = [foot, head].map((edge) => [0, 1].map((a) => edge[k][a] + share * (edge[k + 1][a] - edge[k][a])));
    const width = Math.hypot(h[0] - f[0], h[1] - f[1]) || 1;
    return [f[0] + (offMm / width) * (h[0] - f[0]), f[1] + (offMm / width) * (h[1] - f[1])];
  }
  return null;
}

/** @param holeMm radius of the bolts' holes */
export function marksOn(piece: PatternPiece, fastenings: Fastenings, holeMm: number): PatternMarks {
  const { bolts, dimples, grooves, slots } = fastenings;
  const line = (fromMm: number, toMm: number, offMm: number): Point[] => {
    const steps = Math.max(1, Math.round((toMm - fromMm) / ALONG_STEP_MM));
    return Array.from({ length: steps + 1 }, (_, n) =>
      onPiece(piece, { alongMm: fromMm + (n * (toMm - fromMm)) / steps, offMm }),
    ).filter((point) => point !== null);
  };
  const drawn = (points: Point[]) => (points.length > 1 ? [points] : []);
  return {
    holes: bolts.flatMap((bolt, n) => {
      const at = onPiece(piece, bolt);
      return at ? [{ at, radiusMm: holeMm, number: n + 1 }] : [];
    }),
    dimples: dimples.flatMap((dimple) => {
      const at = onPiece(piece, dimple);
      return at ? [{ at, radiusMm: dimple.radiusMm }] : [];
    }),
    grooves: grooves.flatMap(({ fromMm, toMm, offMm, widthMm }) =>
      [-1, 1].flatMap((side) => drawn(line(fromMm, toMm, offMm + (side * widthMm) / 2))),
    ),
    slots: slots.flatMap(({ fromMm, toMm }) => slotOn(piece, fromMm, toMm)),
  };
}

/** A pry slot from the outer edge inwards, as an open line round it. */
function slotOn(piece: PatternPiece, fromMm: number, toMm: number): Point[][] {
  const ends = [fromMm, toMm].map((alongMm) => {
    const [foot, some] = [0, 1].map((offMm) => onPiece(piece, { alongMm, offMm }));
    if (!foot || !some) return null;
    const width = widthOn(piece, alongMm);
    const out = [some[0] - foot[0], some[1] - foot[1]];
    const at = (mm: number): Point => [foot[0] + mm * out[0], foot[1] + mm * out[1]];
    return { edge: at(width), inner: at(width - SLOT_DEPTH_MM) };
  });
  const [a, b] = ends;
  return a && b ? [[a.edge, a.inner, b.inner, b.edge]] : [];
}

function widthOn({ foot, head, fromMm }: PatternPiece, alongMm: number): number {
  let at = fromMm;
  for (let k = 0; k + 1 < foot.length; k++) {
    const leg = Math.hypot(foot[k + 1][0] - foot[k][0], foot[k + 1][1] - foot[k][1]);
    if (alongMm <= at + leg || k + 2 === foot.length) {
      const share = leg > 0 ? Math.min(1, Math.max(0, (alongMm - at) / leg)) : 0;
      const [a, b] = [k, k + 1].map((n) => Math.hypot(head[n][0] - foot[n][0], head[n][1] - foot[n][1]));
      return a + share * (b - a);
    }
    at += leg;
  }
  return 0;
}

/** The place of the wall that lies at a point of its pattern's piece, or nearest to it. */
export function placeAt({ foot, head, fromMm }: PatternPiece, [x, y]: Point): BoltPlace {
  let best: BoltPlace = { alongMm: fromMm, offMm: 0 };
  let least = Number.POSITIVE_INFINITY;
  let at = fromMm;
  for (let k = 0; k + 1 < foot.length; k++) {
    const way = [foot[k + 1][0] - foot[k][0], foot[k + 1][1] - foot[k][1]];
    const leg = Math.hypot(way[0], way[1]);
    const share = leg > 0 ? ((x - foot[k][0]) * way[0] + (y - foot[k][1]) * way[1]) / leg ** 2 : 0;
    const within = Math.min(1, Math.max(0, share));
    const [f, h] = [foot, head].map((edge) => [0, 1].map((a) => edge[k][a] + within * (edge[k + 1][a] - edge[k][a])));
    const width = Math.hypot(h[0] - f[0], h[1] - f[1]) || 1;
    const up = [(h[0] - f[0]) / width, (h[1] - f[1]) / width];
    const offMm = Math.max(0, (x - f[0]) * up[0] + (y - f[1]) * up[1]);
    const away = Math.hypot(x - f[0] - offMm * up[0], y - f[1] - offMm * up[1]);
    if (away < least) {
      least = away;
      best = { alongMm: at + within * leg, offMm };
    }
    at += leg;
  }
  return best;
}
