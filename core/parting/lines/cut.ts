/**
 * Cuts a mesh along the ties of its section potentials: the skin of each section, and the parting lines between
 * them as chains of points lying on the mesh.
 */
import { FloatList, IndexList } from "../../mesh/lists.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { usedVertices } from "../../mesh/weld.ts";
import { labelsOf } from "./sections.ts";

/** One parting line between two sections. */
export interface PartingLine {
  readonly sections: readonly [number, number];
  /** xyz per point, mm. */
  readonly points: Float32Array;
  readonly closed: boolean;
}

export interface CutResult {
  readonly skins: readonly TriangleMesh[];
  /** Which vertex of the mesh each vertex of a skin is; those on lines have numbers beyond the mesh's. */
  readonly origins: readonly Uint32Array[];
  readonly lines: readonly PartingLine[];
  readonly lengthMm: number;
}

interface Segment {
  readonly a: number;
  readonly b: number;
  readonly pair: number;
}

/** Where lines cross edges, by `edgeKey`: as a share of the way from the lower to the higher vertex. */
export type Ties = ReadonlyMap<number, number>;

/** Names an edge of a mesh with so many vertices. */
export function edgeKey(a: number, b: number, vertices: number): number {
  return Math.min(a, b) * vertices + Math.max(a, b);
}

/**
 * @param potentials of each section at every vertex
 * @param ties where lines cross some of the edges; elsewhere they cross where potentials tie
 */
export function cutSections(mesh: TriangleMesh, potentials: readonly Float32Array[], ties?: Ties): CutResult {
  const cutter = new Cutter(mesh, potentials, ties);
  for (let k = 0; k < mesh.triangles.length; k += 3) cutter.triangle(k);
  const lines = cutter.chain();
  const skins = cutter.skins();
  return {
    skins: skins.map(({ mesh: skin }) => skin),
    origins: skins.map(({ from }) => from),
    lines,
    lengthMm: lines.reduce((sum, line) => sum + lineLengthMm(line), 0),
  };
}

/**
 * The same cut with its sections in another order.
 * @param order which section comes first, second and so on
 */
export function inOrder({ skins, origins, lines, lengthMm }: CutResult, order: readonly number[]): CutResult {
  const number = order.map((_, section) => order.indexOf(section));
  const renumbered = lines.map((line): PartingLine => {
    const [a, b] = line.sections.map((section) => number[section]);
    return { ...line, sections: [Math.min(a, b), Math.max(a, b)] };
  });
  renumbered.sort((x, y) => x.sections[0] - y.sections[0] || x.sections[1] - y.sections[1]);
  return {
    skins: order.map((section) => skins[section]),
    origins: order.map((section) => origins[section]),
    lines: renumbered,
    lengthMm,
  };
}

export function lineLengthMm(line: PartingLine): number {
  const p = line.points;
  const count = p.length / 3;
  let length = 0;
  for (let k = 0; k + 1 < count + (line.closed ? 1 : 0); k++) {
    const a = 3 * k;
    const b = 3 * ((k + 1) % count);
    length += Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
  }
  return length;
}

class Cutter {
  private readonly label: Uint8Array;
  private readonly points: FloatList = new FloatList();
  private readonly edgePoint = new Map<number, number>();
  private readonly skin: IndexList[];
  private readonly segments: Segment[] = [];
  private readonly vertices: number;

  constructor(
    private readonly mesh: TriangleMesh,
    private readonly potentials: readonly Float32Array[],
    private readonly ties: Ties = new Map(),
  ) {
    this.label = labelsOf(potentials);
    this.skin = potentials.map(() => new IndexList());
    this.vertices = mesh.positions.length / 3;
  }

  triangle(k: number): void {
    const t = this.mesh.triangles;
    const corner = [t[k], t[k + 1], t[k + 2]];
    const own = corner.map((v) => this.label[v]);
    if (own[0] === own[1] && own[1] === own[2]) {
      this.skin[own[0]].push3(corner[0], corner[1], corner[2]);
      return;
    }
    const lone = own[1] === own[2] ? 0 : own[0] === own[2] ? 1 : own[0] === own[1] ? 2 : -1;
    if (lone < 0) this.junction(corner, own);
    else this.twoWay([corner[lone], corner[(lone + 1) % 3], corner[(lone + 2) % 3]], own[lone], own[(lone + 1) % 3]);
  }

  /** Corner a against corners b and c. */
  private twoWay([a, b, c]: number[], la: number, lb: number): void {
    const ab = this.tie(a, b);
    const ca = this.tie(c, a);
    this.skin[la].push3(a, ab, ca);
    this.skin[lb].push3(ab, b, c);
    this.skin[lb].push3(ab, c, ca);
    this.segment(ab, ca, la, lb);
  }

  /** Three sections meet inside the triangle. */
  private junction(corner: number[], own: number[]): void {
    const middle = this.addPoint(
      [0, 1, 2].map((a) => corner.reduce((sum, v) => sum + this.mesh.positions[3 * v + a], 0) / 3),
    );
    const tie = corner.map((v, e) => this.tie(v, corner[(e + 1) % 3]));
    for (let e = 0; e < 3; e++) {
      this.skin[own[e]].push3(corner[e], tie[e], middle);
      this.skin[own[e]].push3(corner[e], middle, tie[(e + 2) % 3]);
      this.segment(tie[e], middle, own[e], own[(e + 1) % 3]);
    }
  }

  /** The point of edge (a, b) where the two corners' sections tie. */
  private tie(a: number, b: number): number {
    const low = Math.min(a, b);
    const high = Math.max(a, b);
    const key = edgeKey(low, high, this.vertices);
    const known = this.edgePoint.get(key);
    if (known !== undefined) return known;
    const pl = this.potentials[this.label[low]];
    const ph = this.potentials[this.label[high]];
    const dLow = pl[low] - ph[low];
    const dHigh = ph[high] - pl[high];
    const s = Math.min(0.98, Math.max(0.02, this.ties.get(key) ?? dLow / (dLow + dHigh || 1)));
    const p = this.mesh.positions;
    const number = this.addPoint([0, 1, 2].map((x) => p[3 * low + x] * (1 - s) + p[3 * high + x] * s));
    this.edgePoint.set(key, number);
    return number;
  }

  private addPoint(xyz: number[]): number {
    this.points.push3(xyz[0], xyz[1], xyz[2]);
    return this.vertices + this.points.length / 3 - 1;
  }

  private segment(a: number, b: number, la: number, lb: number): void {
    this.segments.push({ a, b, pair: Math.min(la, lb) * 256 + Math.max(la, lb) });
  }

  skins(): ReturnType<typeof usedVertices>[] {
    const all = new Float32Array(this.mesh.positions.length + this.points.length);
    all.set(this.mesh.positions);
    all.set(this.points.data.subarray(0, this.points.length), this.mesh.positions.length);
    return this.skin.map((list) => usedVertices({ positions: all, triangles: list.done() }));
  }

  chain(): PartingLine[] {
    const lines: PartingLine[] = [];
    const pairs = new Map<number, Segment[]>();
    for (const segment of this.segments) {
      const list = pairs.get(segment.pair);
      if (list) list.push(segment);
      else pairs.set(segment.pair, [segment]);
    }
    for (const [pair, segments] of [...pairs].sort((x, y) => x[0] - y[0])) {
      for (const chain of chains(segments)) {
        const points = new Float32Array(chain.points.length * 3);
        chain.points.forEach((n, k) => {
          for (let a = 0; a < 3; a++) points[3 * k + a] = this.points.data[3 * (n - this.vertices) + a];
        });
        lines.push({ sections: [pair >> 8, pair & 255], points, closed: chain.closed });
      }
    }
    return lines;
  }
}

/** Joins segments end to end; open chains first, then rings. */
function chains(segments: readonly Segment[]): { points: number[]; closed: boolean }[] {
  const at = new Map<number, number[]>();
  segments.forEach((segment, k) => {
    for (const end of [segment.a, segment.b]) {
      const list = at.get(end);
      if (list) list.push(k);
      else at.set(end, [k]);
    }
  });
  const used = new Uint8Array(segments.length);
  const follow = (start: number, first: number): number[] => {
    const points = [start];
    let point = start;
    for (let k = first; k >= 0; ) {
      used[k] = 1;
      point = segments[k].a === point ? segments[k].b : segments[k].a;
      points.push(point);
      const onward: number | undefined = (at.get(point) ?? []).find((n) => !used[n]);
      k = (at.get(point) ?? []).length === 2 ? (onward ?? -1) : -1;
    }
    return points;
  };
  const out: { points: number[]; closed: boolean }[] = [];
  for (const [point, list] of at) {
    if (list.length === 2) continue;
    for (const k of list) if (!used[k]) out.push({ points: follow(point, k), closed: false });
  }
  segments.forEach((segment, k) => {
    if (used[k]) return;
    const points = follow(segment.a, k);
    const closed = points.length > 3 && points[0] === points[points.length - 1];
    if (closed) points.pop();
    out.push({ points, closed });
  });
  return out;
}
