/**
 * The parting lines as a network on a mesh: every line knows the section on its left and on its right, seen from
 * outside. Labels of the vertices give a network, and a network that has been moved gives labels back.
 */
import type { NearestField } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../survey/survey.ts";
import { cutSections, type PartingLine } from "./cut.ts";
import type { Neighbours } from "./regions.ts";

export interface SidedLine {
  /** xyz per point, mm. */
  readonly points: Float64Array;
  readonly closed: boolean;
  readonly left: number;
  readonly right: number;
}

/** Rounds of averaging that take the mesh's own steps out of a line. */
const EVENING_ROUNDS = 6;

/** The lines between the labels of a mesh's vertices. */
export function networkOf(mesh: TriangleMesh, label: Uint8Array, near: Neighbours, nearest: NearestField): SidedLine[] {
  const sections = 1 + label.reduce((most, own) => Math.max(most, own), 0);
  const { lines } = cutSections(mesh, evened(label, sections, near));
  const { normals } = vertexNormals(mesh);
  return lines.map((line) => {
    const [left, right] = sidesOf(line, mesh, normals, label, nearest);
    return { points: Float64Array.from(line.points), closed: line.closed, left, right };
  });
}

/** Indicators of the labels, evened out a little. */
function evened(label: Uint8Array, sections: number, near: Neighbours): Float32Array[] {
  return Array.from({ length: sections }, (_, s) => {
    let field = Float32Array.from(label, (own) => (own === s ? 1 : 0));
    for (let round = 0; round < EVENING_ROUNDS; round++) {
      const next = new Float32Array(field.length);
      for (let v = 0; v < field.length; v++) {
        let sum = 0;
        for (let k = near.start[v]; k < near.start[v + 1]; k++) sum += field[near.list[k]];
        next[v] = 0.5 * field[v] + (0.5 * sum) / Math.max(1, near.start[v + 1] - near.start[v]);
      }
      field = next;
    }
    return field;
  });
}

/** Which of a line's two sections lies on its left: by the vote of the vertices beside it. */
function sidesOf(
  line: PartingLine,
  mesh: TriangleMesh,
  normals: Float32Array,
  label: Uint8Array,
  nearest: NearestField,
): readonly [number, number] {
  const [a, b] = line.sections;
  const { positions: p, triangles: t } = mesh;
  const middle = new Float64Array(3);
  let votes = 0;
  const q = line.points;
  for (let k = 0; k + 5 < q.length; k += 3) {
    const triangle = nearest.nearest(
      middle,
      (q[k] + q[k + 3]) / 2,
      (q[k + 1] + q[k + 4]) / 2,
      (q[k + 2] + q[k + 5]) / 2,
    );
    for (let c = 0; c < 3; c++) {
      const v = t[3 * triangle + c];
      if (label[v] !== a && label[v] !== b) continue;
      const side = sideOf(q, k, k + 3, normals, v, p);
      votes += label[v] === a ? Math.sign(side) : -Math.sign(side);
    }
  }
  return votes >= 0 ? [a, b] : [b, a];
}

/** Above 0 where vertex v lies to the left of the segment between two points of a line, seen from outside. */
function sideOf(
  q: ArrayLike<number>,
  from: number,
  to: number,
  normals: Float32Array,
  v: number,
  p: Float32Array,
): number {
  const [tx, ty, tz] = [q[to] - q[from], q[to + 1] - q[from + 1], q[to + 2] - q[from + 2]];
  const [nx, ny, nz] = [normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]];
  const [dx, dy, dz] = [p[3 * v] - q[from], p[3 * v + 1] - q[from + 1], p[3 * v + 2] - q[from + 2]];
  return (ny * tz - nz * ty) * dx + (nz * tx - nx * tz) * dy + (nx * ty - ny * tx) * dz;
}

/**
 * The section of every vertex by the lines about it: vertices beside a line take its side, the others that of the
 * vertices round them.
 * @param before labels kept where no line comes near
 * @param reachMm how far beside a line its side is told: more than an edge of the mesh
 */
export function labelsFrom(
  mesh: TriangleMesh,
  network: readonly SidedLine[],
  before: Uint8Array,
  near: Neighbours,
  reachMm: number,
): Uint8Array {
  const { normals } = vertexNormals(mesh);
  const segments = new SegmentIndex(network, reachMm);
  const p = mesh.positions;
  const label = before.slice();
  const told = new Uint8Array(label.length);
  const queue: number[] = [];
  for (let v = 0; v < label.length; v++) {
    const found = segments.nearest(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    if (!found) continue;
    const { line, from, to } = found;
    label[v] = sideOf(line.points, from, to, normals, v, p) >= 0 ? line.left : line.right;
    told[v] = 1;
    queue.push(v);
  }
  for (let q = 0; q < queue.length; q++) {
    const v = queue[q];
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const other = near.list[k];
      if (told[other]) continue;
      told[other] = 1;
      label[other] = label[v];
      queue.push(other);
    }
  }
  return label;
}

interface FoundSegment {
  readonly line: SidedLine;
  /** Places of its two points in the line's array. */
  readonly from: number;
  readonly to: number;
}

/** Segments of a network by the cubes they lie in, for the nearest within a reach. */
class SegmentIndex {
  private readonly cubes = new Map<string, FoundSegment[]>();

  constructor(
    network: readonly SidedLine[],
    private readonly reachMm: number,
  ) {
    for (const line of network) {
      const count = line.points.length / 3;
      for (let k = 0; k + (line.closed ? 0 : 1) < count; k++) {
        this.add({ line, from: 3 * k, to: 3 * ((k + 1) % count) });
      }
    }
  }

  private add(segment: FoundSegment): void {
    const { line, from, to } = segment;
    const low = [0, 1, 2].map((a) => this.cube(Math.min(line.points[from + a], line.points[to + a]) - this.reachMm));
    const high = [0, 1, 2].map((a) => this.cube(Math.max(line.points[from + a], line.points[to + a]) + this.reachMm));
    for (let i = low[0]; i <= high[0]; i++) {
      for (let j = low[1]; j <= high[1]; j++) {
        for (let k = low[2]; k <= high[2]; k++) {
          const key = `${i},${j},${k}`;
          const list = this.cubes.get(key);
          if (list) list.push(segment);
          else this.cubes.set(key, [segment]);
        }
      }
    }
  }

  private cube(value: number): number {
    return Math.floor(value / (2 * this.reachMm));
  }

  nearest(x: number, y: number, z: number): FoundSegment | null {
    let least = this.reachMm ** 2;
    let best: FoundSegment | null = null;
    for (const segment of this.cubes.get(`${this.cube(x)},${this.cube(y)},${this.cube(z)}`) ?? []) {
      const d2 = distance2ToSegment(segment.line.points, segment.from, segment.to, x, y, z);
      if (d2 >= least) continue;
      least = d2;
      best = segment;
    }
    return best;
  }
}

function distance2ToSegment(q: Float64Array, a: number, b: number, x: number, y: number, z: number): number {
  const [ex, ey, ez] = [q[b] - q[a], q[b + 1] - q[a + 1], q[b + 2] - q[a + 2]];
  const [dx, dy, dz] = [x - q[a], y - q[a + 1], z - q[a + 2]];
  const s = Math.min(1, Math.max(0, (dx * ex + dy * ey + dz * ez) / (ex * ex + ey * ey + ez * ez || 1)));
  return (dx - s * ex) ** 2 + (dy - s * ey) ** 2 + (dz - s * ez) ** 2;
}

/** Length of a network, mm. */
export function networkLengthMm(network: readonly SidedLine[]): number {
  let sum = 0;
  for (const { points: p, closed } of network) {
    const count = p.length / 3;
    for (let k = 0; k + (closed ? 0 : 1) < count; k++) {
      const [a, b] = [3 * k, 3 * ((k + 1) % count)];
      sum += Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
    }
  }
  return sum;
}
