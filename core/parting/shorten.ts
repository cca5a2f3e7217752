/**
 * Draws the lines of a labelling tight. A minimum cut on a mesh measures length along the mesh's edges and is content
 * with lines several per cent too long; here the lines themselves are moved, each point by the curvature there and by
 * what the two sections beside it would pay for the strip (geodesic active contours: Caselles, Kimmel and Sapiro
 * 1997). Long waves go first, on widely spaced points, then shorter ones.
 */
import type { NearestField } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../survey/survey.ts";
import { resample } from "./fair.ts";
import { labelsFrom, networkLengthMm, networkOf, type SidedLine } from "./network.ts";
import type { Neighbours } from "./regions.ts";

/** Spacings of the points from coarse to fine, in edges of the mesh. */
const SPACINGS = [4, 2, 1] as const;
const ROUNDS = 120;
/** A point moves no farther than this at once, in its spacing. */
const LONGEST_MOVE = 0.35;
/** How far beside a line its side is told, in edges of the mesh. */
const REACH = 2.5;

export interface ShortenRequest {
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
  readonly near: Neighbours;
  /** Section of each vertex; every section one piece. */
  readonly label: Uint8Array;
  /** Price of each section at each vertex. */
  readonly prices: readonly Float32Array[];
  readonly areasMm2: Float32Array;
  readonly linePerMm: number;
  /** How many times a line counts at each vertex; null where it is once everywhere. */
  readonly lineWeight: Float32Array | null;
  /** Typical edge of the mesh. */
  readonly edgeMm: number;
  readonly boardMm: number | null;
}

export interface Shortened {
  readonly label: Uint8Array;
  /** What sections and lines cost by the same measure, before and after: after is never more. */
  readonly before: number;
  readonly after: number;
}

/** The labelling with its lines drawn tight, or as it was where that gains nothing. */
export function shortened(request: ShortenRequest): Shortened {
  const { mesh, nearest, near, label, edgeMm } = request;
  const start = networkOf(mesh, label, near, nearest);
  const before = paidFor(request, start, label);
  const asItWas: Shortened = { label, before, after: before };
  if (start.length === 0) return asItWas;
  // Where the long waves lead astray, shorter ones alone may still gain.
  for (let first = 0; first < SPACINGS.length; first++) {
    const moved = tightened(request, start, SPACINGS.slice(first));
    const relabelled = labelsFrom(mesh, moved, label, near, REACH * edgeMm);
    if (!inOnePieceEach(relabelled, near, label)) continue;
    const after = paidFor(request, moved, relabelled);
    if (after < before) return { label: relabelled, before, after };
  }
  return asItWas;
}

function paidFor(request: ShortenRequest, network: readonly SidedLine[], label: Uint8Array): number {
  const { prices, linePerMm, lineWeight } = request;
  let sum = linePerMm * networkLengthMm(network, lineWeight ? (x, y, z) => weightAt(request, x, y, z) : undefined);
  for (let v = 0; v < label.length; v++) sum += prices[label[v]][v];
  return sum;
}

const scratch = new Float64Array(3);

/** How many times a line counts at a place. */
function weightAt({ mesh, nearest, lineWeight }: ShortenRequest, x: number, y: number, z: number): number {
  if (!lineWeight) return 1;
  const t = 3 * nearest.nearest(scratch, x, y, z);
  let most = 0;
  for (let c = 0; c < 3; c++) most = Math.max(most, lineWeight[mesh.triangles[t + c]]);
  return most;
}

/** Has every section that was there before still one piece, and the same sections? */
function inOnePieceEach(label: Uint8Array, near: Neighbours, before: Uint8Array): boolean {
  const wanted = new Set(before);
  const seen = new Uint8Array(label.length);
  const begun = new Set<number>();
  const stack: number[] = [];
  for (let seed = 0; seed < label.length; seed++) {
    if (seen[seed]) continue;
    if (begun.has(label[seed]) || !wanted.has(label[seed])) return false;
    begun.add(label[seed]);
    seen[seed] = 1;
    stack.push(seed);
    for (let v = stack.pop(); v !== undefined; v = stack.pop()) {
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const other = near.list[k];
        if (seen[other] || label[other] !== label[v]) continue;
        seen[other] = 1;
        stack.push(other);
      }
    }
  }
  return begun.size === wanted.size;
}

function tightened(request: ShortenRequest, start: readonly SidedLine[], spacings: readonly number[]): SidedLine[] {
  let network = [...start];
  for (const spacing of spacings) {
    const spacingMm = spacing * request.edgeMm;
    network = network.map((line) => ({ ...line, points: Float64Array.from(resample(line, spacingMm)) }));
    const contour = new Contour(request, network, spacingMm);
    for (let round = 0; round < ROUNDS; round++) if (contour.move() < 0.002 * spacingMm) break;
  }
  return network;
}

/** An end where lines meet, or where one reaches the board. */
interface Knot {
  readonly ends: { readonly points: Float64Array; readonly at: number; readonly beside: number }[];
}

/** A network on the move; its points are changed in place. */
class Contour {
  private readonly knots: Knot[];
  private readonly normals: Float32Array;
  private readonly place = new Float64Array(3);

  constructor(
    private readonly request: ShortenRequest,
    private readonly network: readonly SidedLine[],
    private readonly spacingMm: number,
  ) {
    this.normals = vertexNormals(request.mesh).normals;
    const knots = new Map<string, Knot>();
    for (const { points, closed } of network) {
      if (closed) continue;
      const last = points.length - 3;
      for (const [at, beside] of [
        [0, 3],
        [last, last - 3],
      ]) {
        const key = [0, 1, 2].map((a) => Math.round(points[at + a] * 8)).join();
        const knot = knots.get(key) ?? { ends: [] };
        knot.ends.push({ points, at, beside });
        knots.set(key, knot);
      }
    }
    this.knots = [...knots.values()];
  }

  /** @returns the farthest any point moved, mm */
  move(): number {
    let farthest = 0;
    for (const line of this.network) farthest = Math.max(farthest, this.moveLine(line));
    for (const knot of this.knots) this.moveKnot(knot);
    return farthest;
  }

  private moveLine({ points, closed, left, right }: SidedLine): number {
    const count = points.length / 3;
    const old = points.slice();
    let farthest = 0;
    for (let k = closed ? 0 : 1; k < (closed ? count : count - 1); k++) {
      const [a, b, at] = [3 * ((k + count - 1) % count), 3 * ((k + 1) % count), 3 * k];
      const push = this.pushAt(old, a, b, at, left, right);
      let moved = 0;
      for (let x = 0; x < 3; x++) {
        points[at + x] = old[at + x] + 0.5 * (old[a + x] + old[b + x]) - old[at + x] + push[x];
        moved += (points[at + x] - old[at + x]) ** 2;
      }
      const longest = LONGEST_MOVE * this.spacingMm;
      const share = moved > longest * longest ? longest / Math.sqrt(moved) : 1;
      for (let x = 0; x < 3; x++) points[at + x] = old[at + x] + share * (points[at + x] - old[at + x]);
      this.setBack(points, at);
      if (this.entersZone(old, points, at)) for (let x = 0; x < 3; x++) points[at + x] = old[at + x];
      const [dx, dy, dz] = [0, 1, 2].map((x) => points[at + x] - old[at + x]);
      farthest = Math.max(farthest, Math.sqrt(dx * dx + dy * dy + dz * dz));
    }
    return farthest;
  }

  /** Would a point come to where a line counts more than where it is? */
  private entersZone(old: Float64Array, points: Float64Array, at: number): boolean {
    if (!this.request.lineWeight) return false;
    const [from, to] = [old, points].map((p) => weightAt(this.request, p[at], p[at + 1], p[at + 2]));
    return to > from;
  }

  /** What the sections beside a point push it by, mm: away from the one that would pay more for its strip. */
  private pushAt(old: Float64Array, a: number, b: number, at: number, left: number, right: number): Float64Array {
    const { mesh, nearest, prices, areasMm2, linePerMm } = this.request;
    const triangle = nearest.nearest(this.place, old[at], old[at + 1], old[at + 2]);
    const n = [0, 0, 0];
    let gain = 0;
    for (let c = 0; c < 3; c++) {
      const v = mesh.triangles[3 * triangle + c];
      gain += (prices[left][v] - prices[right][v]) / (3 * Math.max(areasMm2[v], 1e-6));
      for (let x = 0; x < 3; x++) n[x] += this.normals[3 * v + x];
    }
    const [tx, ty, tz] = [0, 1, 2].map((x) => old[b + x] - old[a + x]);
    // Left of the line, seen from outside.
    push[0] = n[1] * tz - n[2] * ty;
    push[1] = n[2] * tx - n[0] * tz;
    push[2] = n[0] * ty - n[1] * tx;
    const length = Math.sqrt(push[0] ** 2 + push[1] ** 2 + push[2] ** 2) || 1;
    const step = (0.5 * this.spacingMm ** 2 * gain) / linePerMm;
    const most = LONGEST_MOVE * this.spacingMm;
    const by = Math.max(-most, Math.min(most, step)) / length;
    for (let x = 0; x < 3; x++) push[x] *= by;
    return push;
  }

  /** A junction goes to the middle of its lines; an end on the board slides to the foot of its line. */
  private moveKnot({ ends }: Knot): void {
    const [{ points: p, at }] = ends;
    const middle = [0, 1, 2].map((x) => ends.reduce((sum, end) => sum + end.points[end.beside + x], 0) / ends.length);
    const onBoard = this.request.boardMm !== null && Math.abs(p[at + 2] - this.request.boardMm) < 0.5 * this.spacingMm;
    if (ends.length < 2 && !onBoard) return;
    const share = ends.length < 2 ? 0.5 : 1 / 3;
    const to = new Float64Array(3);
    for (let x = 0; x < 3; x++) to[x] = p[at + x] + share * (middle[x] - p[at + x]);
    if (onBoard) to[2] = this.request.boardMm as number;
    this.setBack(to, 0);
    if (onBoard) to[2] = this.request.boardMm as number;
    for (const end of ends) end.points.set(to, end.at);
  }

  private setBack(points: Float64Array, at: number): void {
    this.request.nearest.nearest(this.place, points[at], points[at + 1], points[at + 2]);
    points.set(this.place, at);
  }
}

const push = new Float64Array(3);
