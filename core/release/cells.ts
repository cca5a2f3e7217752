/**
 * The cells of the sections: every point outside the jacket belongs to the section whose patch of the jacket is
 * nearest to it.
 */
import { type NearestData, NearestField, NO_CLASS, type NodeClasses } from "../field/nearest.ts";
import { ALONE, shared, type Team } from "../job/team.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { labelsOf } from "../parting/lines/sections.ts";

/** Farther from the jacket than any section reaches, mm. */
export const FAR_MM = 75;

/** What cells are made of, as plain data for other threads. */
export interface CellsData {
  readonly nearest: NearestData;
  readonly potentials: readonly Float32Array[];
  /** Section of each triangle, NO_CLASS where a line runs through it. */
  readonly classOf: Uint8Array;
  readonly classes: NodeClasses;
  /** The sections, as bits, that may be greatest somewhere on each triangle. */
  readonly mayBe: Int32Array;
}

/** Whose cell a point is in. */
export class Cells {
  private readonly mesh: TriangleMesh;
  private readonly nearest: NearestField;
  private readonly point = new Float64Array(3);
  /** Of a triangle's corners. */
  private readonly weights = new Float64Array(3);
  /** Of every section at the point last asked about, and the greatest of them. */
  private readonly values: Float64Array;
  private greatest = 0;

  constructor(readonly data: CellsData) {
    this.mesh = data.nearest.mesh;
    this.nearest = new NearestField(data.nearest);
    this.values = new Float64Array(data.potentials.length);
  }

  /** @param potentials of each section on the vertices of the field's mesh */
  static of(nearest: NearestField, potentials: readonly Float32Array[], team: Team = ALONE): Cells {
    const label = labelsOf(potentials);
    const t = nearest.data.mesh.triangles;
    const classOf = new Uint8Array(team.buffer(t.length / 3));
    const mayBe = new Int32Array(team.buffer((4 * t.length) / 3));
    for (let k = 0, at = 0; k < classOf.length; k++, at += 3) {
      const own = label[t[at]];
      // The triangles a parting line runs through are never sure.
      const sure = own === label[t[at + 1]] && own === label[t[at + 2]];
      classOf[k] = sure ? own : NO_CLASS;
      mayBe[k] = sure ? sectionBit(own) : setOn(t, k, potentials);
    }
    return new Cells({
      nearest: nearest.data,
      potentials: potentials.map((potential) => shared(team, potential)),
      classOf,
      classes: nearest.classes(classOf, team),
      mayBe,
    });
  }

  /** Section number of the cell of a point (mm). */
  at(x: number, y: number, z: number): number {
    const { classes, classOf } = this.data;
    const sure = this.nearest.sureClass(classes, x, y, z);
    if (sure >= 0 && sure !== NO_CLASS) return sure;
    // Far out the wall between two cells need not be known to better than a node.
    const far = this.nearest.farTriangle(FAR_MM, x, y, z);
    if (far >= 0) return classOf[far] !== NO_CLASS ? classOf[far] : this.greatestIn(far);
    const triangle = this.nearest.nearest(this.point, x, y, z);
    return classOf[triangle] !== NO_CLASS ? classOf[triangle] : this.greatestAt(triangle);
  }

  /**
   * The section of the cell of a point, and how far inside that cell it is by the potentials at the nearest place of the
   * jacket, mm; `behindMm` then tells how far it is from the others'.
   */
  leadAt(x: number, y: number, z: number): { section: number; leadMm: number } {
    const triangle = this.nearest.nearest(this.point, x, y, z);
    barycentric(this.weights, this.mesh, triangle, this.point);
    const { potentials } = this.data;
    const t = this.mesh.triangles;
    const [a, b, c] = [t[3 * triangle], t[3 * triangle + 1], t[3 * triangle + 2]];
    const w = this.weights;
    let section = 0;
    let second = -Infinity;
    for (let s = 0; s < potentials.length; s++) {
      const own = potentials[s];
      const value = w[0] * own[a] + w[1] * own[b] + w[2] * own[c];
      this.values[s] = value;
      if (s === 0) continue;
      if (value > this.values[section]) {
        second = this.values[section];
        section = s;
      } else if (value > second) second = value;
    }
    this.greatest = this.values[section];
    return { section, leadMm: potentials.length === 1 ? Infinity : (this.greatest - second) / 2 };
  }

  /** How far the point last asked `leadAt` about is outside the cell of a section that is not its own, mm. */
  behindMm(section: number): number {
    return (this.greatest - this.values[section]) / 2;
  }

  /**
   * The potentials carried over to the vertices of a mesh near this one: the lines stay where they are in space. A vertex
   * that was not there before belongs to the cell of the air before it.
   * @param outMm how far before it the air is asked
   */
  carried(mesh: TriangleMesh, outMm = 0): Float32Array[] {
    const { normals } = vertexNormals(mesh);
    const out = this.data.potentials.map(() => new Float32Array(mesh.positions.length / 3));
    const t = this.mesh.triangles;
    const same = new SamePlaces(this.mesh);
    const p = mesh.positions;
    const w = this.weights;
    for (let v = 0; v < p.length / 3; v++) {
      // What has not changed from mesh to mesh stands in the very same places.
      const known = same.at(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
      if (known >= 0) {
        this.data.potentials.forEach((potential, s) => {
          out[s][v] = potential[known];
        });
        continue;
      }
      const [x, y, z] = [0, 1, 2].map((a) => p[3 * v + a] + outMm * normals[3 * v + a]);
      const triangle = this.nearest.nearest(this.point, x, y, z);
      barycentric(w, this.mesh, triangle, this.point);
      this.data.potentials.forEach((potential, s) => {
        let sum = 0;
        for (let c = 0; c < 3; c++) sum += w[c] * potential[t[3 * triangle + c]];
        out[s][v] = sum;
      });
    }
    return out;
  }

  /** The section at a node, as `at` tells it where the jacket is far. */
  atNode(node: number): number {
    const { classOf, nearest } = this.data;
    const triangle = nearest.triangle[node];
    return classOf[triangle] !== NO_CLASS ? classOf[triangle] : this.greatestIn(triangle);
  }

  /** A distance told may be so much too great where it is not exact. */
  get slackMm(): number {
    return 2 * this.data.nearest.grid.stepMm;
  }

  /** Distance from a point to the jacket, mm, to within `slackMm`: at once. */
  roughMm(point: Float64Array): number {
    return this.nearest.roughMm(point[0], point[1], point[2]);
  }

  /** Distance from a point to the jacket, mm; exact where a section could be. */
  distance(point: Float64Array): number {
    return this.nearest.distanceNear(FAR_MM, point[0], point[1], point[2]);
  }

  /** The greatest potential at a triangle's middle. */
  private greatestIn(triangle: number): number {
    this.weights.fill(1 / 3);
    return this.greatestBy(triangle);
  }

  /** The greatest potential at the point last found on a triangle. */
  private greatestAt(triangle: number): number {
    barycentric(this.weights, this.mesh, triangle, this.point);
    return this.greatestBy(triangle);
  }

  private greatestBy(triangle: number): number {
    const { weights: w, mesh } = this;
    const { potentials } = this.data;
    const a = mesh.triangles[3 * triangle];
    const b = mesh.triangles[3 * triangle + 1];
    const c = mesh.triangles[3 * triangle + 2];
    let best = 0;
    let most = -Infinity;
    for (let s = 0; s < potentials.length; s++) {
      const own = potentials[s];
      const value = w[0] * own[a] + w[1] * own[b] + w[2] * own[c];
      if (value > most) {
        most = value;
        best = s;
      }
    }
    return best;
  }
}

/** The bit of a section in a set of them; beyond 32 sections two may share one. */
export function sectionBit(section: number): number {
  return 1 << (section & 31);
}

/** The sections that no other exceeds at all three corners of a triangle: potentials run straight between them. */
function setOn(t: Uint32Array, triangle: number, potentials: readonly Float32Array[]): number {
  const corners = [t[3 * triangle], t[3 * triangle + 1], t[3 * triangle + 2]];
  return potentials.reduce((bits, own, s) => {
    const beaten = potentials.some((other) => corners.every((v) => other[v] > own[v]));
    return beaten ? bits : bits | sectionBit(s);
  }, 0);
}

/** Finds the vertex of a mesh that stands exactly at a place: an open-addressed table of hashed coordinates. */
export class SamePlaces {
  private readonly slots: Int32Array;

  constructor(private readonly mesh: TriangleMesh) {
    const p = mesh.positions;
    const count = p.length / 3;
    this.slots = new Int32Array(2 ** Math.ceil(Math.log2(2 * count + 2))).fill(-1);
    for (let v = 0; v < count; v++) {
      let slot = this.slotOf(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
      while (this.slots[slot] >= 0) slot = (slot + 1) & (this.slots.length - 1);
      this.slots[slot] = v;
    }
  }

  /** @returns the vertex, or -1 */
  at(x: number, y: number, z: number): number {
    const p = this.mesh.positions;
    for (let slot = this.slotOf(x, y, z); ; slot = (slot + 1) & (this.slots.length - 1)) {
      const v = this.slots[slot];
      if (v < 0 || (p[3 * v] === x && p[3 * v + 1] === y && p[3 * v + 2] === z)) return v;
    }
  }

  private slotOf(x: number, y: number, z: number): number {
    const mixed = Math.imul(x * 4096, 73856093) ^ Math.imul(y * 4096, 19349663) ^ Math.imul(z * 4096, 83492791);
    return (mixed ^ (mixed >>> 15)) & (this.slots.length - 1);
  }
}

/** Weights of a triangle's corners at a point in its plane (Ericson 2004, 3.4), written to `out`. */
export function barycentric(out: Float64Array, mesh: TriangleMesh, triangle: number, point: Float64Array): void {
  const { positions: p, triangles: t } = mesh;
  const a = 3 * t[3 * triangle];
  const b = 3 * t[3 * triangle + 1];
  const c = 3 * t[3 * triangle + 2];
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const wx = point[0] - p[a];
  const wy = point[1] - p[a + 1];
  const wz = point[2] - p[a + 2];
  const uu = ux * ux + uy * uy + uz * uz;
  const uv = ux * vx + uy * vy + uz * vz;
  const vv = vx * vx + vy * vy + vz * vz;
  const wu = wx * ux + wy * uy + wz * uz;
  const wv = wx * vx + wy * vy + wz * vz;
  const det = uu * vv - uv * uv;
  const s = det <= 1e-20 ? 0 : (wu * vv - wv * uv) / det;
  const r = det <= 1e-20 ? 0 : (wv * uu - wu * uv) / det;
  out[0] = 1 - s - r;
  out[1] = s;
  out[2] = r;
}
