/**
 * The lines beside fills' walls. Potentials tell on which side of a wall a place lies no better than to a step of the
 * grid; where the way out tells more, the line follows it.
 */
import type { JobContext } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import { edgeKey, type Ties } from "../../parting/lines/cut.ts";
import { labelsOf, withoutIslands } from "../../parting/lines/sections.ts";
import type { BodyData } from "../../release/body.ts";
import { bitesOn, type EdgePlaces, TIES } from "../../release/surfaceBites.ts";
import type { Direction } from "../../space/directions.ts";

/** What lines are laid on, and the pulls of the sections they part. */
export interface BesideLines {
  readonly mesh: TriangleMesh;
  readonly body: BodyData;
  readonly pulls: readonly Direction[];
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  /** Bites no deeper than this are measured as none, mm; */
  readonly measuredMm: number;
  /** and here they are of no matter when they are no deeper than this, mm. */
  readonly fineMm: number;
}

/** Beside a line a vertex may go to the other section as far as this from it, mm, and as so many edges of the mesh at least. */
const BESIDE_MM = 13;
const BESIDE_RINGS = 2;

/** The sections within some rings of every vertex, as bits. */
function labelsAbout(label: Uint8Array, { start, list }: Neighbours, rings: number): Uint32Array {
  const about = new Uint32Array(label.length);
  const beside: number[] = [];
  for (let v = 0; v < label.length; v++) {
    about[v] = 1 << label[v];
    for (let k = start[v]; k < start[v + 1]; k++) {
      if (label[list[k]] === label[v]) continue;
      beside.push(v);
      break;
    }
  }
  // What is new about a vertex in one ring is new about its neighbours in the next.
  const newIn = new Uint8Array(label.length);
  for (let r = 1, changed = beside; r <= rings; r++) {
    const bits = changed.map((v) => about[v]);
    const next: number[] = [];
    for (let n = 0; n < changed.length; n++) {
      for (let k = start[changed[n]]; k < start[changed[n] + 1]; k++) {
        const other = list[k];
        const both = about[other] | bits[n];
        if (both === about[other]) continue;
        about[other] = both;
        if (newIn[other] !== r) next.push(other);
        newIn[other] = r;
      }
    }
    changed = next;
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
  { mesh, body, pulls, giveMm, measuredMm, fineMm }: BesideLines,
  potentials: readonly Float32Array[],
  ctx: JobContext,
): Float32Array[] {
  const h = body.grid.stepMm;
  const label = labelsOf(potentials);
  const near = vertexNeighbours(mesh);
  const beside: { v: number; own: number; other: number }[] = [];
  labelsAbout(label, near, Math.max(BESIDE_RINGS, Math.round(BESIDE_MM / h))).forEach((bits, v) => {
    const own = label[v];
    if (bits === 1 << own) return;
    for (let other = 0; other < potentials.length; other++) {
      if (other !== own && bits & (1 << other)) beside.push({ v, own, other });
    }
  });
  const bites = bitesOn(body, mesh, measuredMm).ofVertices(
    beside.flatMap(({ v }) => [v, v]),
    beside.flatMap(({ own, other }) => [own, other]),
    pulls,
    ctx,
  );
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

/**
 * The lines as they run along fills' walls: an edge between two sections is crossed where both come off on either side,
 * told at places along it.
 */
export function alongWalls(
  { mesh, body, pulls, measuredMm, fineMm }: BesideLines,
  potentials: readonly Float32Array[],
  ctx: JobContext,
): Ties {
  const t = mesh.triangles;
  const label = labelsOf(potentials);
  const vertices = label.length;
  const edges = new Map<number, readonly [number, number]>();
  for (let e = 0; e < t.length; e++) {
    const [a, b] = [t[e], t[e % 3 === 2 ? e - 2 : e + 1]];
    if (label[a] !== label[b]) edges.set(edgeKey(a, b, vertices), [Math.min(a, b), Math.max(a, b)]);
  }
  const surface = bitesOn(body, mesh, measuredMm);
  // Where either end comes off with either section, so does all between.
  const crossed = [...edges];
  const ends = crossed.flatMap(([, [low, high]]) => [low, low, high, high]);
  const withs = crossed.flatMap(([, [low, high]]) => [label[low], label[high], label[low], label[high]]);
  const atEnds = surface.ofVertices(ends, withs, pulls, ctx);
  const list = crossed.filter((_, q) => atEnds.subarray(4 * q, 4 * q + 4).some((biteMm) => biteMm > 0));
  const sides = list.flatMap(([key, [low, high]]) =>
    [low, high].map((side): EdgePlaces => ({ key, low, high, section: label[side] })),
  );
  const bites = surface.ofEdges(sides, pulls, ctx);
  const ties = new Map<number, number>();
  const over = (edge: number, side: number, place: number) => Math.max(0, bites[2 * edge + side][place] - fineMm);
  list.forEach(([key, [low, high]], q) => {
    const [mine, its] = [potentials[label[low]], potentials[label[high]]];
    const [before, after] = [mine[low] - its[low], its[high] - mine[high]];
    const usual = before / (before + after || 1);
    let best = usual;
    let least = Infinity;
    for (let c = 0; c <= TIES; c++) {
      let price = (0.01 * Math.abs(c / TIES - usual)) as number;
      for (let k = 0; k < TIES; k++) price += over(q, k < c ? 0 : 1, k);
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

/** Lines are evened out within so much of them, mm. */
const EVENED_MM = 28;

/**
 * Potentials averaged over neighbours, time and again, near where they cross (Laplacian smoothing; Taubin 1995).
 * @param overMm how far that reaches: it takes as many rounds as the square of the edges in it
 * @param kept does a vertex keep its potentials?
 */
export function evened(
  potentials: readonly Float32Array[],
  near: Neighbours,
  stepMm: number,
  overMm: number,
  kept: (vertex: number) => boolean,
): Float32Array[] {
  const label = labelsOf(potentials);
  const times = Math.max(1, Math.round((overMm / stepMm) ** 2));
  const beside = labelsAbout(label, near, Math.max(BESIDE_RINGS, Math.round(EVENED_MM / stepMm)));
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
