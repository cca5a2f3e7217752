/**
 * Profiles: where a plane cuts meshes, at 1:1. Every triangle that the plane runs through gives a straight stretch between two
 * of its edges; stretches that share an edge are one line, exactly.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Drawing, type Point, type SheetLine, type SheetText, textWidthMm } from "./drawing.ts";

/** Planes that profiles are cut along: level at a height, or upright, seen from the front or from the right. */
export const PROFILE_PLANES = ["level", "front", "side"] as const;
export type ProfilePlane = (typeof PROFILE_PLANES)[number];

/** The axis that a plane stands square to, and the two that its drawing runs along. */
const AXES: Readonly<Record<ProfilePlane, readonly [across: number, right: number, up: number]>> = {
  level: [2, 0, 1],
  front: [1, 0, 2],
  side: [0, 1, 2],
};

export interface ProfileLine {
  /** Which of the meshes it was cut from. */
  readonly mesh: number;
  readonly closed: boolean;
  /** In the plane: to the right and up, mm, in the seated piece's space. */
  readonly points: readonly Point[];
}

/** How far a box reaches across a plane, mm. */
export function profileRange(
  { min, max }: { readonly min: readonly number[]; readonly max: readonly number[] },
  plane: ProfilePlane,
): [number, number] {
  const [across] = AXES[plane];
  return [min[across], max[across]];
}

/** @param atMm where the plane lies along the axis it stands square to */
export function profileOf(meshes: readonly TriangleMesh[], plane: ProfilePlane, atMm: number): ProfileLine[] {
  return meshes.flatMap((mesh, n) => linesOf(mesh, plane, atMm).map((line) => ({ mesh: n, ...line })));
}

/** A profile's line in space, xyz per point. */
export function inSpace({ points }: Pick<ProfileLine, "points">, plane: ProfilePlane, atMm: number): Float32Array {
  const [across, right, up] = AXES[plane];
  const out = new Float32Array(3 * points.length);
  points.forEach(([x, y], k) => {
    out[3 * k + across] = atMm;
    out[3 * k + right] = x;
    out[3 * k + up] = y;
  });
  return out;
}

function linesOf(
  { positions: p, triangles: t }: TriangleMesh,
  plane: ProfilePlane,
  atMm: number,
): Pick<ProfileLine, "closed" | "points">[] {
  const [across, right, up] = AXES[plane];
  const isAbove = (v: number) => p[3 * v + across] >= atMm;
  const vertices = p.length / 3;
  const places = new Map<number, Point>();
  /** The place where an edge crosses the plane, by the edge's key. */
  const crossing = (a: number, b: number): number => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const key = low * vertices + high;
    if (!places.has(key)) {
      const [from, to] = [p[3 * low + across], p[3 * high + across]];
      const share = (atMm - from) / (to - from || 1);
      const at = (axis: number) => p[3 * low + axis] + share * (p[3 * high + axis] - p[3 * low + axis]);
      places.set(key, [at(right), at(up)]);
    }
    return key;
  };
  const next = new Map<number, number[]>();
  const join = (from: number, to: number) => {
    const held = next.get(from);
    if (held) held.push(to);
    else next.set(from, [to]);
  };
  for (let k = 0; k < t.length; k += 3) {
    const corners = [t[k], t[k + 1], t[k + 2]];
    const ends: number[] = [];
    for (let c = 0; c < 3; c++) {
      const [a, b] = [corners[c], corners[(c + 1) % 3]];
      if (isAbove(a) !== isAbove(b)) ends.push(crossing(a, b));
    }
    if (ends.length !== 2) continue;
    join(ends[0], ends[1]);
    join(ends[1], ends[0]);
  }
  return chained(next).map(({ keys, closed }) => ({ closed, points: keys.map((key) => places.get(key) as Point) }));
}

/** Stretches joined end to end: open lines from their ends first, then what is left are rings. */
function chained(next: Map<number, number[]>): { keys: number[]; closed: boolean }[] {
  const used = new Set<number>();
  const out: { keys: number[]; closed: boolean }[] = [];
  const follow = (start: number) => {
    const keys = [start];
    used.add(start);
    for (let at = start; ; ) {
      const to = next.get(at)?.find((key) => !used.has(key));
      if (to === undefined) return keys;
      used.add(to);
      keys.push(to);
      at = to;
    }
  };
  for (const [key, to] of next) if (to.length === 1 && !used.has(key)) out.push({ keys: follow(key), closed: false });
  for (const key of next.keys()) if (!used.has(key)) out.push({ keys: follow(key), closed: true });
  return out.filter(({ keys }) => keys.length > 1);
}

const TITLE_MM = 4;
const LABEL_MM = 3.5;
const ROUND_MM = 5;
/** A cross at so many mm both ways helps to lay a profile square. */
const GRID_MM = 100;
const CROSS_MM = 3;

/** A profile as it is drawn: its lines to cut, crosses every 100 mm, and what it is. */
export function profileDrawing(lines: readonly ProfileLine[], title: string, names: readonly string[]): Drawing {
  const all = lines.flatMap(({ points }) => points);
  if (all.length === 0) return { widthMm: 0, heightMm: 0, lines: [], circles: [], texts: [] };
  const low = [0, 1].map((a) => Math.min(...all.map((point) => point[a])));
  const high = [0, 1].map((a) => Math.max(...all.map((point) => point[a])));
  const up = TITLE_MM + 2 * ROUND_MM;
  const at = ([x, y]: Point): Point => [x - low[0] + ROUND_MM, y - low[1] + up];
  const cut = lines.map(({ points, closed }): SheetLine => ({ layer: "cut", points: points.map(at), closed }));
  const crosses: SheetLine[] = [];
  for (let x = Math.ceil(low[0] / GRID_MM) * GRID_MM; x <= high[0]; x += GRID_MM) {
    for (let y = Math.ceil(low[1] / GRID_MM) * GRID_MM; y <= high[1]; y += GRID_MM) {
      const [px, py] = at([x, y]);
      crosses.push({
        layer: "mark",
        points: [
          [px - CROSS_MM, py],
          [px + CROSS_MM, py],
        ],
        closed: false,
      });
      crosses.push({
        layer: "mark",
        points: [
          [px, py - CROSS_MM],
          [px, py + CROSS_MM],
        ],
        closed: false,
      });
    }
  }
  const labels = lines.map(({ points, mesh }): SheetText => {
    const [x, y] = at(points[Math.floor(points.length / 2)]);
    return { at: [x + 2, y + 2], text: names[mesh] ?? "", heightMm: LABEL_MM };
  });
  const words: SheetText = { at: [0, ROUND_MM], text: title, heightMm: TITLE_MM };
  return {
    widthMm: Math.max(high[0] - low[0] + 2 * ROUND_MM, textWidthMm(words)),
    heightMm: high[1] - low[1] + up + ROUND_MM,
    lines: [...cut, ...crosses],
    circles: [],
    texts: [words, ...labels],
  };
}
