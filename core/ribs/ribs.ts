/**
 * Where ribs or poles stiffen a section: as long as a place of it lies farther from every stiff edge than half of what the
 * shell may span, a rib is laid through the farthest, to the nearest edge and on to the one opposite (farthest-point
 * insertion: Gonzalez 1985; distances by shortest paths along the mesh's edges: Dijkstra 1959).
 *
 * Edges are stiff where flanges or a rim are. Space of the caller: mm, z up.
 */
import type { NearestField } from "../field/nearest.ts";
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import { CostHeap } from "../mesh/costHeap.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { lineLengthMm } from "../parting/lines/cut.ts";
import { fairLine } from "../parting/lines/fair.ts";
import type { RibCourse } from "./shape.ts";

export interface Rib extends RibCourse {
  /** Number of its section, from one. */
  readonly section: number;
  /** Along the jacket, xyz, mm. */
  readonly points: readonly number[];
  /** Out of the jacket at every point, of length one. */
  readonly normals: readonly number[];
  /** The widest span of its section before it was laid; plans of before do not know it. */
  readonly spanMm?: number;
  /** By what the jacket bends along it, radians; above 0 where it is round. Plans of before do not know it. */
  readonly turnRad?: number;
}

/** A rib that only a weaker shell would need. */
export interface FurtherRib extends RibCourse {
  readonly section: number;
  readonly spanMm: number;
  readonly turnRad: number;
}

export interface RibRequest {
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
  /** Section of each vertex, counted from 0. */
  readonly label: ArrayLike<number>;
  readonly sections: number;
  /** What the shell may span in every section, mm. */
  readonly limitsMm: readonly number[];
  /** What the weakest shell that it is compared with may span, mm: more ribs are told of down to there. */
  readonly weakestMm?: number;
  /** Between points of a rib, mm. */
  readonly spacingMm: number;
}

export interface Spans {
  /** The widest span of each section before any rib, mm; 0 where it has no edge to span from. */
  readonly widestMm: readonly number[];
  readonly ribs: readonly Rib[];
  /** What a weaker shell would need beside them. */
  readonly further: readonly FurtherRib[];
}

/** A section with more ribs than this is beyond what ribs are for. */
export const MOST_RIBS = 24;
/** A rib goes on opposite the edge it began at, from a place so far on, as a share of the way to that edge. */
const ONWARDS_SHARE = 0.35;
/** Its two ends are so far apart at least, as a share of the way to its first: it does not go back the way it came. */
const APART_SHARE = 0.7;

/** Steps along a rib by which is known where it is clear of flanges and of other ribs, mm. */
const CLEAR_EVERY_MM = 10;

export function placeRibs(request: RibRequest): Spans {
  const reach = new Reach(request);
  const widestMm: number[] = [];
  const ribs: Rib[] = [];
  const further: FurtherRib[] = [];
  for (let section = 0; section < request.sections; section++) {
    const edge = reach.edgeOf(section);
    reach.measure(section, edge);
    let farthest = reach.farthestOf(section);
    widestMm.push(edge.length > 0 ? 2 * farthest.mm : 0);
    const limitMm = request.limitsMm[section];
    const leastMm = Math.min(limitMm, request.weakestMm ?? limitMm);
    for (let n = 0; n < MOST_RIBS && edge.length > 0 && 2 * farthest.mm > leastMm; n++) {
      const path = reach.across(section, farthest.vertex, farthest.mm);
      const more = { spanMm: 2 * farthest.mm, clearMm: reach.clearMm(path) };
      if (more.spanMm > limitMm) ribs.push({ ...ribAlong(path, section, request), ...more });
      else further.push({ section: section + 1, ...reach.measured(path), ...more });
      reach.measure(section, path);
      farthest = reach.farthestOf(section);
    }
  }
  return { widestMm, ribs, further };
}

function ribAlong(path: readonly number[], section: number, { mesh, nearest, spacingMm }: RibRequest): Rib {
  const points = Float32Array.from(path.flatMap((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)]));
  const fair = fairLine({ sections: [section, section], points, closed: false }, spacingMm, nearest);
  const normals = normalsAt(fair.points, mesh, nearest);
  return {
    section: section + 1,
    points: Array.from(fair.points),
    normals,
    lengthMm: lineLengthMm(fair),
    turnRad: turnRad(fair.points, normals),
  };
}

/** By what a surface bends along a way on it, radians. @param points,normals xyz per place */
export function turnRad(points: ArrayLike<number>, normals: ArrayLike<number>): number {
  let sum = 0;
  for (let k = 3; k < points.length; k += 3) {
    let [bend, length2] = [0, 0];
    for (let a = k; a < k + 3; a++) {
      const step = points[a] - points[a - 3];
      bend += (normals[a] - normals[a - 3]) * step;
      length2 += step * step;
    }
    if (length2 > 0) sum += bend / Math.sqrt(length2);
  }
  return sum;
}

/** Out of a mesh at places on it: the mean of the normals of the corners about each. */
function normalsAt(points: Float32Array, mesh: TriangleMesh, nearest: NearestField): number[] {
  const { normals } = vertexNormals(mesh);
  const place = new Float64Array(3);
  const out: number[] = [];
  for (let k = 0; k < points.length; k += 3) {
    const triangle = nearest.nearest(place, points[k], points[k + 1], points[k + 2]);
    const mean = [0, 1, 2].map((a) =>
      [0, 1, 2].reduce((sum, c) => sum + normals[3 * mesh.triangles[3 * triangle + c] + a], 0),
    );
    const length = Math.hypot(...mean) || 1;
    out.push(...mean.map((value) => value / length));
  }
  return out;
}

/** How far each vertex is from the nearest stiff place of its section, and the way there. */
class Reach {
  private readonly near: ReturnType<typeof vertexNeighbours>;
  private readonly mm: Float64Array;
  private readonly towards: Int32Array;
  /** The stiff place that each vertex is nearest to. */
  private readonly root: Int32Array;

  constructor(private readonly request: RibRequest) {
    this.near = vertexNeighbours(request.mesh);
    this.mm = new Float64Array(request.label.length).fill(Number.POSITIVE_INFINITY);
    this.towards = new Int32Array(request.label.length).fill(-1);
    this.root = new Int32Array(request.label.length).fill(-1);
  }

  /** The vertices of a section beside another, or where the mesh ends. */
  edgeOf(section: number): number[] {
    const { mesh, label } = this.request;
    const ends = new Set<number>();
    const { across } = adjacencyOf(mesh);
    for (let e = 0; e < across.length; e++) {
      if (across[e] !== OPEN) continue;
      ends.add(mesh.triangles[e]).add(mesh.triangles[e % 3 === 2 ? e - 2 : e + 1]);
    }
    const out: number[] = [];
    for (let v = 0; v < label.length; v++) {
      if (label[v] !== section) continue;
      let beside = false;
      for (let k = this.near.start[v]; k < this.near.start[v + 1]; k++) beside ||= label[this.near.list[k]] !== section;
      if (beside || ends.has(v)) out.push(v);
    }
    return out;
  }

  /** Takes more places of a section for stiff. */
  measure(section: number, stiff: readonly number[]): void {
    const heap = new CostHeap();
    for (const v of stiff) {
      this.mm[v] = 0;
      this.towards[v] = -1;
      this.root[v] = v;
      heap.push(v, 0);
    }
    for (let top = heap.pop(); top; top = heap.pop()) {
      if (top.cost > this.mm[top.v]) continue;
      for (let k = this.near.start[top.v]; k < this.near.start[top.v + 1]; k++) {
        const other = this.near.list[k];
        const cost = top.cost + this.betweenMm(top.v, other);
        if (this.request.label[other] !== section || cost >= this.mm[other]) continue;
        this.mm[other] = cost;
        this.towards[other] = top.v;
        this.root[other] = this.root[top.v];
        heap.push(other, cost);
      }
    }
  }

  /** The vertex of a section that is farthest from what is stiff, of those that can be reached. */
  farthestOf(section: number): { vertex: number; mm: number } {
    let vertex = -1;
    let mm = 0;
    for (let v = 0; v < this.mm.length; v++) {
      if (this.request.label[v] !== section || !Number.isFinite(this.mm[v]) || this.mm[v] <= mm) continue;
      mm = this.mm[v];
      vertex = v;
    }
    return { vertex, mm };
  }

  /** From the stiff place nearest a vertex through it, and on to one opposite it. */
  across(section: number, vertex: number, mm: number): number[] {
    const first = this.wayFrom(vertex);
    const p = this.request.mesh.positions;
    const end = first[first.length - 1];
    const away = (v: number) => {
      const u = [0, 1, 2].map((a) => p[3 * end + a] - p[3 * vertex + a]);
      const w = [0, 1, 2].map((a) => p[3 * v + a] - p[3 * vertex + a]);
      return -(u[0] * w[0] + u[1] * w[1] + u[2] * w[2]) / (Math.hypot(...u) * Math.hypot(...w) || 1);
    };
    const about = this.about(section, vertex, ONWARDS_SHARE * mm);
    let onwards = -1;
    let least = Number.POSITIVE_INFINITY;
    for (const [v] of about) {
      // Straight opposite it, and near an edge there, which must be another place than where it began.
      const price = this.mm[v] + mm * (1 - away(v));
      if (v === vertex || away(v) < 0 || price >= least) continue;
      if (this.betweenMm(this.root[v], end) < APART_SHARE * mm) continue;
      least = price;
      onwards = v;
    }
    if (onwards < 0) return [...first].reverse();
    const back: number[] = [];
    for (let v = onwards; v !== vertex; v = about.get(v) ?? vertex) back.push(v);
    return [...[...first].reverse(), ...back.reverse(), ...this.wayFrom(onwards).slice(1)];
  }

  /** Vertices of a section within some way of one, and for each the one before it on the way. */
  private about(section: number, from: number, withinMm: number): Map<number, number> {
    const before = new Map<number, number>([[from, from]]);
    const known = new Map<number, number>([[from, 0]]);
    const heap = new CostHeap();
    heap.push(from, 0);
    for (let top = heap.pop(); top; top = heap.pop()) {
      if (top.cost > (known.get(top.v) ?? 0)) continue;
      for (let k = this.near.start[top.v]; k < this.near.start[top.v + 1]; k++) {
        const other = this.near.list[k];
        const cost = top.cost + this.betweenMm(top.v, other);
        if (this.request.label[other] !== section || cost > withinMm || cost >= (known.get(other) ?? withinMm))
          continue;
        known.set(other, cost);
        before.set(other, top.v);
        heap.push(other, cost);
      }
    }
    return before;
  }

  /** Along a way from vertex to vertex at equal steps, how far it is from the nearest stiff place, mm. */
  clearMm(path: readonly number[]): number[] {
    const alongMm = [0];
    for (let k = 1; k < path.length; k++) alongMm.push(alongMm[k - 1] + this.betweenMm(path[k - 1], path[k]));
    const lengthMm = alongMm[path.length - 1];
    const steps = Math.max(1, Math.ceil(lengthMm / CLEAR_EVERY_MM));
    let k = 1;
    return Array.from({ length: steps + 1 }, (_, n) => {
      const mm = (lengthMm * n) / steps;
      while (k + 1 < path.length && alongMm[k] < mm) k++;
      const share = Math.min(1, (mm - alongMm[k - 1]) / (alongMm[k] - alongMm[k - 1]));
      return Math.round(this.mm[path[k - 1]] * (1 - share) + this.mm[path[k]] * share);
    });
  }

  /** A way from vertex to vertex: its length, and by what the mesh bends along it. */
  measured(path: readonly number[]): Pick<FurtherRib, "lengthMm" | "turnRad"> {
    const { mesh } = this.request;
    const { normals } = vertexNormals(mesh);
    const along = (values: Float32Array) => path.flatMap((v) => [...values.subarray(3 * v, 3 * v + 3)]);
    return {
      lengthMm: path.slice(1).reduce((sum, v, k) => sum + this.betweenMm(path[k], v), 0),
      turnRad: turnRad(along(mesh.positions), along(normals)),
    };
  }

  private wayFrom(vertex: number): number[] {
    const out: number[] = [];
    for (let v = vertex; v >= 0; v = this.towards[v]) out.push(v);
    return out;
  }

  /** The straight way between two vertices, mm. */
  private betweenMm(a: number, b: number): number {
    const p = this.request.mesh.positions;
    return Math.sqrt(
      (p[3 * a] - p[3 * b]) ** 2 + (p[3 * a + 1] - p[3 * b + 1]) ** 2 + (p[3 * a + 2] - p[3 * b + 2]) ** 2,
    );
  }
}
