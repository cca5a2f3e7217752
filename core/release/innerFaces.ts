/**
 * What sections bite on their way out: places are taken of each inner face, a little off the body, and each of them is
 * followed along its section's pull. The edges of a section are bevelled, as a hand rasps them.
 */
import type { JobContext } from "../job/context.ts";
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Direction } from "../space/directions.ts";
import { measureBites } from "./bite.ts";
import { Body, type BodyData } from "./body.ts";

export interface SectionBite {
  /** The deepest it bites on its way out, mm. */
  readonly biteMm: number;
  /** The place of its inner face that bites so deep; null where none bites. */
  readonly at: readonly [number, number, number] | null;
  /** Places that bite deeper than the give, xyz and how deep, mm, 4 per place. */
  readonly points: Float32Array;
}

/** The inner faces are looked at this far off the surface, mm: a way out does not begin by touching it. */
export const OFF_MM = 0.05;
/**
 * The edges of a section are bevelled so far, mm, as a hand rasps them: a place nearer to the edge stands back from the
 * jacket by as much as it is nearer.
 */
const BEVEL_MM = 3;
/** The vertices on a skin's edge are looked at so far inwards, mm. */
const INWARDS_MM = 1;

/** Places of a section's inner face, and how far each stands back from the jacket by its bevel, mm. */
interface Places {
  readonly points: Float32Array;
  readonly backMm: Float32Array;
}

/** A skin's vertices, a little off the body; those on its edge a little inwards. */
function placesOf(skin: TriangleMesh, data: BodyData): Places {
  const { positions: p, triangles: t } = skin;
  const { normals } = vertexNormals(skin);
  const points = Float32Array.from(p);
  const { edgesAt, middles } = edgesOf(skin);
  const backMm = new Float32Array(p.length / 3);
  for (const [v, edges] of edgesAt) {
    const middle = middles.get(v);
    if (middle) {
      const way = [0, 1, 2].map((x) => middle[x] - p[3 * v + x]);
      const share = Math.min(1, INWARDS_MM / Math.hypot(...way));
      for (let x = 0; x < 3; x++) points[3 * v + x] += share * way[x];
    }
    const away = edges.reduce((least, e) => {
      const [a, b] = [3 * t[e], 3 * t[e % 3 === 2 ? e - 2 : e + 1]];
      return Math.min(least, distanceToSegment(points, 3 * v, p, a, b));
    }, Infinity);
    backMm[v] = Math.max(0, BEVEL_MM - away);
  }
  // The face is where the field is nought; triangles cut the corners of what is between the nodes.
  const body = new Body(data);
  for (let k = 0; k < points.length; k += 3) {
    const off = Math.max(OFF_MM, OFF_MM - body.at(points[k], points[k + 1], points[k + 2]));
    for (let x = 0; x < 3; x++) points[k + x] += off * normals[k + x];
  }
  return { points, backMm };
}

/**
 * Of every vertex of a triangle on a skin's edge, the edges of the skin that are near it; and of every vertex on the edge
 * the middle of its triangle that reaches farthest inwards.
 */
function edgesOf(skin: TriangleMesh) {
  const { positions: p, triangles: t } = skin;
  const { across } = adjacencyOf(skin);
  const edgesAt = new Map<number, number[]>();
  const middles = new Map<number, readonly number[]>();
  const onEdge = new Uint8Array(p.length / 3);
  for (let e = 0; e < t.length; e++) {
    if (across[e] !== OPEN) continue;
    const first = e - (e % 3);
    for (let c = first; c < first + 3; c++) {
      const held = edgesAt.get(t[c]);
      if (held) held.push(e);
      else edgesAt.set(t[c], [e]);
    }
    onEdge[t[e]] = 1;
    onEdge[t[e % 3 === 2 ? e - 2 : e + 1]] = 1;
  }
  const farthest = new Map<number, number>();
  for (let k = 0; k < t.length; k++) {
    const v = t[k];
    if (!onEdge[v]) continue;
    const first = k - (k % 3);
    const middle = [0, 1, 2].map((x) => (p[3 * t[first] + x] + p[3 * t[first + 1] + x] + p[3 * t[first + 2] + x]) / 3);
    const length = Math.hypot(...middle.map((value, x) => value - p[3 * v + x]));
    if (length <= (farthest.get(v) ?? 0)) continue;
    farthest.set(v, length);
    middles.set(v, middle);
  }
  return { edgesAt, middles };
}

function distanceToSegment(points: Float32Array, at: number, p: Float32Array, a: number, b: number): number {
  const along = [0, 1, 2].map((x) => p[b + x] - p[a + x]);
  const from = [0, 1, 2].map((x) => points[at + x] - p[a + x]);
  const length2 = along.reduce((sum, x) => sum + x * x, 0);
  const share = length2 > 0 ? Math.max(0, Math.min(1, along.reduce((sum, x, k) => sum + x * from[k], 0) / length2)) : 0;
  return Math.hypot(...from.map((x, k) => x - share * along[k]));
}

/**
 * @param skins the inner faces of the sections, as lines have cut them out of the body's surface
 * @param toldMm bites no deeper than this are not told place by place, mm
 */
export function biteOfSections(
  skins: readonly TriangleMesh[],
  body: BodyData,
  pulls: readonly Direction[],
  toldMm: number,
  ctx: JobContext,
): SectionBite[] {
  const places = skins.map((skin) => placesOf(skin, body));
  const count = places.reduce((sum, { backMm }) => sum + backMm.length, 0);
  const points = new Float32Array(ctx.team.buffer(12 * count));
  const section = new Uint8Array(ctx.team.buffer(count));
  const backMm = new Float32Array(count);
  let at = 0;
  places.forEach((own, s) => {
    points.set(own.points, 3 * at);
    backMm.set(own.backMm, at);
    section.fill(s, at, at + own.backMm.length);
    at += own.backMm.length;
  });
  const request = { body, points, section, pulls, fineMm: toldMm };
  const bites = measureBites(request, ctx);
  const found = skins.map(() => ({ biteMm: 0, place: -1, points: [] as number[] }));
  bites.forEach((bite, p) => {
    const own = found[section[p]];
    const biteMm = bite - backMm[p];
    if (biteMm > own.biteMm) Object.assign(own, { biteMm, place: p });
    if (biteMm > toldMm) own.points.push(...points.subarray(3 * p, 3 * p + 3), biteMm);
  });
  return found.map(({ biteMm, place, points: biting }) => ({
    biteMm,
    at: place < 0 ? null : [points[3 * place], points[3 * place + 1], points[3 * place + 2]],
    points: Float32Array.from(biting),
  }));
}
