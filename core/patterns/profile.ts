/**
 * Profiles: where a plane cuts meshes, at 1:1. Every triangle that the plane runs through gives a straight stretch between two
 * of its edges; stretches that share an edge are one line, exactly.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { type Drawing, type Point, type SheetLine, type SheetText, textWidthMm } from "./drawing.ts";

/** Planes that profiles are cut along: level at a height; upright, seen from the front or from the right; or any other. */
export const PROFILE_PLANES = ["level", "front", "side", "any"] as const;
export type ProfilePlane = (typeof PROFILE_PLANES)[number];

/** Directions of length one: that a plane stands square to, and the two that its drawing runs along. */
export interface CutPlane {
  readonly across: Direction;
  readonly right: Direction;
  readonly up: Direction;
}

export const LEVEL: CutPlane = { across: [0, 0, 1], right: [1, 0, 0], up: [0, 1, 0] };
const FRONT: CutPlane = { across: [0, 1, 0], right: [1, 0, 0], up: [0, 0, 1] };
const SIDE: CutPlane = { across: [1, 0, 0], right: [0, 1, 0], up: [0, 0, 1] };

/**
 * @param bearingDeg of any plane: turned about the upright from the one seen from the front, anticlockwise from above
 * @param leanDeg its top leaned towards the viewer
 */
export function cutPlane(plane: ProfilePlane, bearingDeg = 0, leanDeg = 0): CutPlane {
  if (plane === "level") return LEVEL;
  if (plane === "front") return FRONT;
  if (plane === "side") return SIDE;
  const [b, l] = [(bearingDeg * Math.PI) / 180, (leanDeg * Math.PI) / 180];
  return {
    across: [-Math.sin(b) * Math.cos(l), Math.cos(b) * Math.cos(l), Math.sin(l)],
    right: [Math.cos(b), Math.sin(b), 0],
    up: [Math.sin(b) * Math.sin(l), -Math.cos(b) * Math.sin(l), Math.cos(l)],
  };
}

const dot = ([a, b, c]: Direction, [x, y, z]: readonly number[]): number => a * x + b * y + c * z;

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
  { across }: CutPlane,
): [number, number] {
  const corners = Array.from({ length: 8 }, (_, k) => [0, 1, 2].map((a) => ((k >> a) & 1 ? max[a] : min[a])));
  const heights = corners.map((corner) => dot(across, corner));
  return [Math.min(...heights), Math.max(...heights)];
}

/** @param atMm where the plane lies along the direction that it stands square to */
export function profileOf(meshes: readonly TriangleMesh[], plane: CutPlane, atMm: number): ProfileLine[] {
  return meshes.flatMap((mesh, n) => linesOf(mesh, plane, atMm).map((line) => ({ mesh: n, ...line })));
}

/** A profile's line in space, xyz per point. */
export function inSpace(
  { points }: Pick<ProfileLine, "points">,
  { across, right, up }: CutPlane,
  atMm: number,
): Float32Array {
  const out = new Float32Array(3 * points.length);
  points.forEach(([x, y], k) => {
    for (let a = 0; a < 3; a++) out[3 * k + a] = atMm * across[a] + x * right[a] + y * up[a];
  });
  return out;
}

function linesOf(
  { positions: p, triangles: t }: TriangleMesh,
  { across, right, up }: CutPlane,
  atMm: number,
): Pick<ProfileLine, "closed" | "points">[] {
  const heightMm = Float64Array.from(
    { length: p.length / 3 },
    (_, v) => across[0] * p[3 * v] + across[1] * p[3 * v + 1] + across[2] * p[3 * v + 2],
  );
  const isAbove = (v: number) => heightMm[v] >= atMm;
  const vertices = p.length / 3;
  const places = new Map<number, Point>();
  /** The place where an edge crosses the plane, by the edge's key. */
  const crossing = (a: number, b: number): number => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const key = low * vertices + high;
    if (!places.has(key)) {
      const [from, to] = [heightMm[low], heightMm[high]];
      const share = (atMm - from) / (to - from || 1);
      const at = [0, 1, 2].map((a) => p[3 * low + a] + share * (p[3 * high + a] - p[3 * low + a]));
      places.set(key, [dot(right, at), dot(up, at)]);
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
