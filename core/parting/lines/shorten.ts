/**
 * Draws the lines of a labelling tight. A minimum cut on a mesh measures length along the mesh's edges and is content
 * with lines several per cent too long; here the lines themselves are moved, each point by the curvature there and by
 * what the two sections beside it would pay for the strip (geodesic active contours: Caselles, Kimmel and Sapiro
 * 1997). Long waves go first, on widely spaced points, then shorter ones.
 */
import type { NearestField } from "../../field/nearest.ts";
import { connectedPieces } from "../../mesh/flood.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import type { Neighbours } from "../graph/graph.ts";
import { resample } from "./fair.ts";
import { labelsFrom, networkLengthMm, networkOf, type SidedLine } from "./network.ts";

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

/** How many times a line counts at a place. */
function weightAt({ mesh, nearest, lineWeight }: ShortenRequest, x: number, y: number, z: number): number {
  if (!lineWeight) return 1;
  const t = 3 * nearest.nearest(new Float64Array(3), x, y, z);
  let most = 0;
  for (let c = 0; c < 3; c++) most = Math.max(most, lineWeight[mesh.triangles[t + c]]);
  return most;
}

/** Has every section that was there before still one piece, and the same sections? */
function inOnePieceEach(label: Uint8Array, near: Neighbours, before: Uint8Array): boolean {
  const wanted = new Set(before);
  const pieces = connectedPieces(label, near).label;
  return (
    pieces.length === wanted.size && pieces.every((own) => wanted.has(own)) && new Set(pieces).size === wanted.size
  );
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
  readonly ends: {
    readonly points: Float64Array;
    readonly at: number;
    readonly beside: number;
    readonly under: Int32Array;
    readonly k: number;
  }[];
}

/** A network on the move; its points are changed in place. */
class Contour {
  private readonly knots: Knot[];
  private readonly normals: Float32Array;
  /** The triangle under every point of each line. */
  private readonly under: Int32Array[];
  private readonly place = new Float64Array(3);
  /** What the sections beside the point in turn push it by, mm. */
  private readonly push = new Float64Array(3);

  constructor(
    private readonly request: ShortenRequest,
    private readonly network: readonly SidedLine[],
    private readonly spacingMm: number,
  ) {
    this.normals = vertexNormals(request.mesh).normals;
    this.under = network.map(({ points }) =>
      Int32Array.from({ length: points.length / 3 }, (_, k) =>
        request.nearest.nearest(this.place, points[3 * k], points[3 * k + 1], points[3 * k + 2]),
      ),
    );
    const knots = new Map<string, Knot>();
    for (const [n, { points, closed }] of network.entries()) {
      if (closed) continue;
      const last = points.length - 3;
      for (const [at, beside] of [
        [0, 3],
        [last, last - 3],
      ]) {
        const key = [0, 1, 2].map((a) => Math.round(points[at + a] * 8)).join();
        const knot = knots.get(key) ?? { ends: [] };
        knot.ends.push({ points, at, beside, under: this.under[n], k: at / 3 });
        knots.set(key, knot);
      }
    }
    this.knots = [...knots.values()];
  }

  /** @returns the farthest any point moved, mm */
  move(): number {
    let farthest = 0;
    this.network.forEach((line, n) => {
      farthest = Math.max(farthest, this.moveLine(line, this.under[n]));
    });
    for (const knot of this.knots) this.moveKnot(knot);
    return farthest;
  }

  private moveLine(line: SidedLine, under: Int32Array): number {
    const { push } = this;
    const { points, closed } = line;
    const count = points.length / 3;
    const longest = LONGEST_MOVE * this.spacingMm;
    const old = points.slice();
    let farthest = 0;
    for (let k = closed ? 0 : 1; k < (closed ? count : count - 1); k++) {
      const a = 3 * (k === 0 ? count - 1 : k - 1);
      const b = 3 * (k + 1 === count ? 0 : k + 1);
      const at = 3 * k;
      this.pushAt(old, a, b, under[k], line);
      let moved = 0;
      for (let x = 0; x < 3; x++) {
        const by = 0.5 * (old[a + x] + old[b + x]) - old[at + x] + push[x];
        push[x] = by;
        moved += by * by;
      }
      const share = moved > longest * longest ? longest / Math.sqrt(moved) : 1;
      for (let x = 0; x < 3; x++) points[at + x] = old[at + x] + share * push[x];
      const triangle = this.setBack(points, at, under[k]);
      if (this.entersZone(old, points, at)) for (let x = 0; x < 3; x++) points[at + x] = old[at + x];
      else under[k] = triangle;
      const dx = points[at] - old[at];
      const dy = points[at + 1] - old[at + 1];
      const dz = points[at + 2] - old[at + 2];
      farthest = Math.max(farthest, dx * dx + dy * dy + dz * dz);
    }
    return Math.sqrt(farthest);
  }

  /** Would a point come to where a line counts more than where it is? */
  private entersZone(old: Float64Array, points: Float64Array, at: number): boolean {
    if (!this.request.lineWeight) return false;
    const [from, to] = [old, points].map((p) => weightAt(this.request, p[at], p[at + 1], p[at + 2]));
    return to > from;
  }

  /** Leaves in `push` what the sections beside a point push it by, mm: away from the one that would pay more for its strip. */
  private pushAt(old: Float64Array, a: number, b: number, triangle: number, { left, right }: SidedLine): void {
    const { mesh, prices, areasMm2, linePerMm } = this.request;
    const { normals } = this;
    const [own, other] = [prices[left], prices[right]];
    let nx = 0;
    let ny = 0;
    let nz = 0;
    let gain = 0;
    for (let c = 0; c < 3; c++) {
      const v = mesh.triangles[3 * triangle + c];
      gain += (own[v] - other[v]) / (3 * Math.max(areasMm2[v], 1e-6));
      nx += normals[3 * v];
      ny += normals[3 * v + 1];
      nz += normals[3 * v + 2];
    }
    const tx = old[b] - old[a];
    const ty = old[b + 1] - old[a + 1];
    const tz = old[b + 2] - old[a + 2];
    // Left of the line, seen from outside.
    const px = ny * tz - nz * ty;
    const py = nz * tx - nx * tz;
    const pz = nx * ty - ny * tx;
    const length = Math.sqrt(px * px + py * py + pz * pz) || 1;
    const step = (0.5 * this.spacingMm * this.spacingMm * gain) / linePerMm;
    const most = LONGEST_MOVE * this.spacingMm;
    const by = Math.max(-most, Math.min(most, step)) / length;
    this.push[0] = by * px;
    this.push[1] = by * py;
    this.push[2] = by * pz;
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
    const [{ under, k }] = ends;
    const triangle = this.setBack(to, 0, under[k]);
    for (const end of ends) end.under[end.k] = triangle;
    if (onBoard) to[2] = this.request.boardMm as number;
    for (const end of ends) end.points.set(to, end.at);
  }

  /** @returns the triangle it lies on then */
  private setBack(points: Float64Array, at: number, from: number): number {
    const triangle = this.request.nearest.nearestFrom(this.place, from, points[at], points[at + 1], points[at + 2]);
    points.set(this.place, at);
    return triangle;
  }
}
