/**
 * What sections bite on their way out: places are taken of each inner face, a little off the body, and each of them is
 * followed along its section's pull. The edges of a section are bevelled, as a hand rasps them.
 */
import type { JobContext } from "../job/context.ts";
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { perMesh } from "../mesh/perMesh.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { usedVertices } from "../mesh/weld.ts";
import type { CutResult } from "../parting/lines/cut.ts";
import type { Direction } from "../space/directions.ts";
import { measureBites } from "./bite.ts";
import { Body, type BodyData } from "./body.ts";
import { bitesOn, pushOff } from "./surfaceBites.ts";

export interface SectionBite {
  /** The deepest it bites on its way out, mm. */
  readonly biteMm: number;
  /** The place of its inner face that bites so deep; null where none bites. */
  readonly at: readonly [number, number, number] | null;
  /** Places that bite, xyz and how deep, mm, 4 per place. */
  readonly points: Float32Array;
}

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

/** Vertices of triangles that the mesh ends at: 1 each. */
const besideOpenEdges = perMesh((mesh: TriangleMesh): Uint8Array => {
  const { across } = adjacencyOf(mesh);
  const beside = new Uint8Array(mesh.positions.length / 3);
  for (let e = 0; e < across.length; e++) {
    if (across[e] !== OPEN) continue;
    const first = e - (e % 3);
    for (let c = first; c < first + 3; c++) beside[mesh.triangles[c]] = 1;
  }
  return beside;
});

/** The vertices that no triangle at an edge of a section has a corner in: 1 each. */
function withinSections(mesh: TriangleMesh, label: Uint8Array): Uint8Array {
  const { start, list } = vertexNeighbours(mesh);
  const beside = besideOpenEdges(mesh);
  const within = new Uint8Array(label.length);
  for (let v = 0; v < label.length; v++) {
    within[v] = beside[v] ? 0 : 1;
    for (let k = start[v]; k < start[v + 1] && within[v]; k++) if (label[list[k]] !== label[v]) within[v] = 0;
  }
  return within;
}

/** The triangles of a skin that have a corner which is not within its section, and those corners. */
interface Rim {
  readonly mesh: TriangleMesh;
  readonly isWithin: (vertex: number) => boolean;
  readonly corners: readonly number[];
}

function rimOf(skin: TriangleMesh, origin: Uint32Array, within: Uint8Array): Rim {
  const t = skin.triangles;
  const inSkin = (vertex: number) => within[origin[vertex]] === 1;
  const triangles: number[] = [];
  for (let k = 0; k < t.length; k += 3) {
    if (!inSkin(t[k]) || !inSkin(t[k + 1]) || !inSkin(t[k + 2])) triangles.push(t[k], t[k + 1], t[k + 2]);
  }
  const { mesh, from } = usedVertices({ positions: skin.positions, triangles: Uint32Array.from(triangles) });
  const isWithin = (vertex: number) => inSkin(from[vertex]);
  return { mesh, isWithin, corners: Array.from(from.keys()).filter((v) => !isWithin(v)) };
}

/** The corners of a rim, a little off the body; those on the edge of the skin a little inwards. */
function placesOf({ mesh, corners, isWithin }: Rim, body: Body): Places {
  const { positions: p, triangles: t } = mesh;
  const { normals } = vertexNormals(mesh);
  const { edgesAt, middles } = edgesOf(mesh, isWithin);
  const points = new Float32Array(3 * corners.length);
  const outwards = new Float32Array(3 * corners.length);
  const backMm = new Float32Array(corners.length);
  corners.forEach((v, n) => {
    const middle = middles.get(v);
    const [x, y, z] = [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
    const [wx, wy, wz] = middle ? [middle[0] - x, middle[1] - y, middle[2] - z] : [0, 0, 0];
    const share = middle ? Math.min(1, INWARDS_MM / Math.hypot(wx, wy, wz)) : 0;
    points[3 * n] = x + share * wx;
    points[3 * n + 1] = y + share * wy;
    points[3 * n + 2] = z + share * wz;
    let awayMm = BEVEL_MM;
    for (const e of edgesAt.get(v) ?? []) {
      const mm = distanceToSegment(points, 3 * n, p, 3 * t[e], 3 * t[e % 3 === 2 ? e - 2 : e + 1]);
      if (mm < awayMm) awayMm = mm;
    }
    backMm[n] = BEVEL_MM - awayMm;
    for (let a = 0; a < 3; a++) outwards[3 * n + a] = normals[3 * v + a];
  });
  pushOff(points, outwards, body);
  return { points, backMm };
}

/**
 * Of every vertex of a triangle on a skin's edge, the edges of the skin that are near it; and of every vertex on the edge
 * the middle of its triangle that reaches farthest inwards. A rim ends inwards too, between vertices within the section.
 */
function edgesOf(rim: TriangleMesh, isWithin: (vertex: number) => boolean) {
  const { positions: p, triangles: t } = rim;
  const { across } = adjacencyOf(rim);
  const edgesAt = new Map<number, number[]>();
  const middles = new Map<number, readonly number[]>();
  const onEdge = new Set<number>();
  for (let e = 0; e < t.length; e++) {
    const next = t[e % 3 === 2 ? e - 2 : e + 1];
    if (across[e] !== OPEN || (isWithin(t[e]) && isWithin(next))) continue;
    const first = e - (e % 3);
    for (let c = first; c < first + 3; c++) {
      const held = edgesAt.get(t[c]);
      if (held) held.push(e);
      else edgesAt.set(t[c], [e]);
    }
    onEdge.add(t[e]).add(next);
  }
  const farthest = new Map<number, number>();
  for (let k = 0; k < t.length; k++) {
    const v = t[k];
    if (!onEdge.has(v)) continue;
    const first = k - (k % 3);
    const [a, b, c] = [3 * t[first], 3 * t[first + 1], 3 * t[first + 2]];
    const middle = [
      (p[a] + p[b] + p[c]) / 3,
      (p[a + 1] + p[b + 1] + p[c + 1]) / 3,
      (p[a + 2] + p[b + 2] + p[c + 2]) / 3,
    ];
    const length = Math.hypot(middle[0] - p[3 * v], middle[1] - p[3 * v + 1], middle[2] - p[3 * v + 2]);
    if (length <= (farthest.get(v) ?? 0)) continue;
    farthest.set(v, length);
    middles.set(v, middle);
  }
  return { edgesAt, middles };
}

/** Distance of a place from the segment between two corners, mm. */
function distanceToSegment(points: Float32Array, at: number, p: Float32Array, a: number, b: number): number {
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [points[at] - p[a], points[at + 1] - p[a + 1], points[at + 2] - p[a + 2]];
  const length2 = ux * ux + uy * uy + uz * uz;
  const share = length2 > 0 ? Math.max(0, Math.min(1, (ux * vx + uy * vy + uz * vz) / length2)) : 0;
  const [wx, wy, wz] = [vx - share * ux, vy - share * uy, vz - share * uz];
  return Math.sqrt(wx * wx + wy * wy + wz * wz);
}

/** Sections cut out of a body's surface. */
export interface CutSections {
  readonly body: BodyData;
  readonly mesh: TriangleMesh;
  /** Section of each of the mesh's vertices. */
  readonly label: Uint8Array;
  readonly cut: Pick<CutResult, "skins" | "origins">;
}

/** @param fineMm bites no deeper than this are told as zero, mm */
export function biteOfSections(
  { body, mesh, label, cut }: CutSections,
  pulls: readonly Direction[],
  fineMm: number,
  ctx: JobContext,
): SectionBite[] {
  const within = withinSections(mesh, label);
  const surface = bitesOn(body, mesh, fineMm);
  const inner = Array.from(within.keys()).filter((v) => within[v] === 1);
  const innerMm = surface.ofVertices(
    inner,
    inner.map((v) => label[v]),
    pulls,
    ctx,
  );
  const found = pulls.map(() => ({ biteMm: 0, at: null as SectionBite["at"], points: [] as number[] }));
  const note = (section: number, points: Float32Array, place: number, biteMm: number) => {
    if (biteMm <= 0) return;
    const own = found[section];
    const [x, y, z] = points.subarray(3 * place, 3 * place + 3);
    if (biteMm > own.biteMm) Object.assign(own, { biteMm, at: [x, y, z] });
    if (biteMm > fineMm) own.points.push(x, y, z, biteMm);
  };
  innerMm.forEach((biteMm, k) => {
    note(label[inner[k]], surface.points, inner[k], biteMm);
  });
  const solid = new Body(body);
  const rims = cut.skins.map((skin, s) => placesOf(rimOf(skin, cut.origins[s], within), solid));
  const count = rims.reduce((sum, { backMm }) => sum + backMm.length, 0);
  const points = new Float32Array(ctx.team.buffer(12 * count));
  const section = new Uint8Array(ctx.team.buffer(count));
  const backMm = new Float32Array(count);
  let at = 0;
  rims.forEach((own, s) => {
    points.set(own.points, 3 * at);
    backMm.set(own.backMm, at);
    section.fill(s, at, at + own.backMm.length);
    at += own.backMm.length;
  });
  measureBites({ body, points, section, pulls, fineMm }, ctx).forEach((biteMm, p) => {
    note(section[p], points, p, biteMm - backMm[p]);
  });
  return found.map((own) => ({ ...own, points: Float32Array.from(own.points) }));
}
