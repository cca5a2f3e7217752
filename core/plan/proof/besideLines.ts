/**
 * The lines beside fills' walls. Potentials tell on which side of a wall a place lies no better than to a step of the
 * grid; where the way out tells more, the line follows it.
 */
import type { JobContext } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { edgeKey, type Ties } from "../../parting/lines/cut.ts";
import { labelsOf, withoutIslands } from "../../parting/lines/sections.ts";
import { measureBites } from "../../release/bite.ts";
import type { BodyData } from "../../release/body.ts";
import { OFF_MM } from "../../release/innerFaces.ts";
import type { Direction } from "../../space/directions.ts";

/** What lines are laid on, and the pulls of the sections they part. */
export interface BesideLines {
  readonly mesh: TriangleMesh;
  readonly body: BodyData;
  readonly pulls: readonly Direction[];
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  /** Bites no deeper than this are not told apart, mm. */
  readonly fineMm: number;
}

/** Beside a line a vertex may go to the other section as far as this from it, in edges of the mesh. */
const BESIDE_RINGS = 2;

/** The sections within some rings of every vertex, as bits. */
function labelsAbout(label: Uint8Array, { start, list }: Neighbours, rings = BESIDE_RINGS): Uint32Array {
  let about = Uint32Array.from(label, (s) => 1 << s);
  for (let r = 0; r < rings; r++) {
    const wider = about.slice();
    for (let v = 0; v < label.length; v++) {
      for (let k = start[v]; k < start[v + 1]; k++) wider[v] |= about[list[k]];
    }
    about = wider;
  }
  return about;
}

interface Neighbours {
  readonly start: Uint32Array;
  readonly list: Uint32Array;
}

/**
 * The sections with the places beside their lines given to whichever of the two comes off there: the potentials tell on
 * which side of a fill's wall the air lies no better than to a step. Changes the potentials.
 */
export function settledBeside(
  { mesh, body, pulls, giveMm, fineMm }: BesideLines,
  potentials: readonly Float32Array[],
  ctx: JobContext,
): Float32Array[] {
  const h = body.grid.stepMm;
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(potentials);
  const near = vertexNeighbours(mesh);
  const beside: { v: number; own: number; other: number }[] = [];
  labelsAbout(label, near).forEach((bits, v) => {
    const own = label[v];
    if (bits === 1 << own) return;
    for (let other = 0; other < potentials.length; other++) {
      if (other !== own && bits & (1 << other)) beside.push({ v, own, other });
    }
  });
  const points = new Float32Array(ctx.team.buffer(24 * beside.length));
  const section = new Uint8Array(ctx.team.buffer(2 * beside.length));
  beside.forEach(({ v, own, other }, k) => {
    for (const at of [2 * k, 2 * k + 1]) {
      for (let a = 0; a < 3; a++) points[3 * at + a] = mesh.positions[3 * v + a] + OFF_MM * normals[3 * v + a];
    }
    section[2 * k] = own;
    section[2 * k + 1] = other;
  });
  const bites = measureBites({ body, points, section, pulls, fineMm }, ctx);
  const better = new Map<number, { other: number; biteMm: number }>();
  beside.forEach(({ v, other }, k) => {
    const [mine, its] = [bites[2 * k], bites[2 * k + 1]];
    if (mine <= fineMm || its > Math.min(mine, giveMm) || its >= (better.get(v)?.biteMm ?? Infinity)) return;
    better.set(v, { other, biteMm: its });
  });
  for (const [v, { other }] of better) {
    const most = potentials.reduce((greatest, own) => Math.max(greatest, own[v]), -Infinity);
    potentials[other][v] = most + LEAD_STEPS * h;
  }
  return withoutIslands([...potentials], near);
}

/** Places along an edge that a line may cross it between. */
const TIES = 8;

/**
 * The lines as they run along fills' walls: an edge between two sections is crossed where both come off on either side,
 * told at places along it.
 */
export function alongWalls(
  { mesh, body, pulls, fineMm }: BesideLines,
  potentials: readonly Float32Array[],
  ctx: JobContext,
): Ties {
  const { positions: p, triangles: t } = mesh;
  const { normals } = vertexNormals(mesh);
  const label = labelsOf(potentials);
  const vertices = label.length;
  const edges = new Map<number, readonly [number, number]>();
  for (let e = 0; e < t.length; e++) {
    const [a, b] = [t[e], t[e % 3 === 2 ? e - 2 : e + 1]];
    if (label[a] !== label[b]) edges.set(edgeKey(a, b, vertices), [Math.min(a, b), Math.max(a, b)]);
  }
  const list = [...edges];
  const points = new Float32Array(ctx.team.buffer(24 * TIES * list.length));
  const section = new Uint8Array(ctx.team.buffer(2 * TIES * list.length));
  list.forEach(([, [low, high]], q) => {
    for (let k = 0; k < TIES; k++) {
      const share = (k + 0.5) / TIES;
      for (let side = 0; side < 2; side++) {
        const at = 2 * (TIES * q + k) + side;
        for (let a = 0; a < 3; a++) {
          const [from, to] = [3 * low + a, 3 * high + a];
          points[3 * at + a] =
            p[from] * (1 - share) + p[to] * share + OFF_MM * (normals[from] * (1 - share) + normals[to] * share);
        }
        section[at] = label[side === 0 ? low : high];
      }
    }
  });
  const bites = measureBites({ body, points, section, pulls, fineMm }, ctx);
  const ties = new Map<number, number>();
  const over = (at: number) => Math.max(0, bites[at] - fineMm);
  list.forEach(([key, [low, high]], q) => {
    const [mine, its] = [potentials[label[low]], potentials[label[high]]];
    const [before, after] = [mine[low] - its[low], its[high] - mine[high]];
    const usual = before / (before + after || 1);
    let best = usual;
    let least = Infinity;
    for (let c = 0; c <= TIES; c++) {
      let price = (0.01 * Math.abs(c / TIES - usual)) as number;
      for (let k = 0; k < TIES; k++) price += over(2 * (TIES * q + k) + (k < c ? 0 : 1));
      if (price >= least) continue;
      least = price;
      best = c / TIES;
    }
    if (Math.abs(best - usual) > 0.5 / TIES) ties.set(key, best);
  });
  return ties;
}

/** By so many steps a vertex that went to another section is within it. */
const LEAD_STEPS = 0.2;

/** Lines are evened out within so many edges of the mesh. */
const EVENED_RINGS = 4;

/**
 * Potentials averaged over neighbours, so many times, near where they cross (Laplacian smoothing; Taubin 1995).
 * @param kept does a vertex keep its potentials?
 */
export function evened(
  potentials: readonly Float32Array[],
  near: Neighbours,
  times: number,
  kept: (vertex: number) => boolean,
): Float32Array[] {
  const label = labelsOf(potentials);
  const beside = labelsAbout(label, near, EVENED_RINGS);
  const where = Array.from(label.keys()).filter((v) => beside[v] !== 1 << label[v] && !kept(v));
  const even = potentials.map((own) => own.slice());
  for (const own of even) {
    const next = new Float32Array(where.length);
    for (let round = 0; round < times; round++) {
      where.forEach((v, k) => {
        let sum = own[v];
        for (let n = near.start[v]; n < near.start[v + 1]; n++) sum += own[near.list[n]];
        next[k] = sum / (near.start[v + 1] - near.start[v] + 1);
      });
      where.forEach((v, k) => {
        own[v] = next[k];
      });
    }
  }
  return even;
}
