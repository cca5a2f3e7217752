/**
 * The cells of the sections: every point outside the jacket belongs to the section whose patch of the jacket is
 * nearest to it.
 */
import { type NearestData, NearestField, NO_CLASS, type NodeClasses } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { labelsOf } from "../parting/sections.ts";
import type { Direction } from "../survey/directions.ts";

/** Farther from the jacket than any section reaches, mm. */
export const FAR_MM = 75;

/** What cells are made of, as plain data for other threads. */
export interface CellsData {
  readonly nearest: NearestData;
  readonly potentials: readonly Float32Array[];
  /** Section of each triangle, NO_CLASS where a line runs through it. */
  readonly classOf: Uint8Array;
  readonly classes: NodeClasses;
}

/** Whose cell a point is in. */
export class Cells {
  private readonly mesh: TriangleMesh;
  private readonly nearest: NearestField;
  private readonly point = new Float64Array(3);

  constructor(readonly data: CellsData) {
    this.mesh = data.nearest.mesh;
    this.nearest = new NearestField(data.nearest);
  }

  /** @param potentials of each section on the vertices of the field's mesh */
  static of(nearest: NearestField, potentials: readonly Float32Array[]): Cells {
    const label = labelsOf(potentials);
    const t = nearest.data.mesh.triangles;
    // The triangles a parting line runs through are never sure.
    const classOf = Uint8Array.from({ length: t.length / 3 }, (_, k) => {
      const own = label[t[3 * k]];
      return own === label[t[3 * k + 1]] && own === label[t[3 * k + 2]] ? own : NO_CLASS;
    });
    return new Cells({ nearest: nearest.data, potentials, classOf, classes: nearest.classes(classOf) });
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

  /** How far along a direction a point surely stays in the cells of other sections than one, mm; 0 where unsure. */
  runElsewhere(section: number, point: Float64Array, d: Direction): number {
    return this.nearest.runOutside(this.data.classes, section, point, d);
  }

  /** The potentials carried over to the vertices of a mesh near this one: the lines stay where they are in space. */
  carried(mesh: TriangleMesh): Float32Array[] {
    const out = this.data.potentials.map(() => new Float32Array(mesh.positions.length / 3));
    const t = this.mesh.triangles;
    const same = new SamePlaces(this.mesh);
    const p = mesh.positions;
    for (let v = 0; v < p.length / 3; v++) {
      // What has not changed from mesh to mesh stands in the very same places.
      const known = same.at(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
      if (known >= 0) {
        this.data.potentials.forEach((potential, s) => {
          out[s][v] = potential[known];
        });
        continue;
      }
      const triangle = this.nearest.nearest(this.point, p[3 * v], p[3 * v + 1], p[3 * v + 2]);
      const w = barycentric(this.mesh, triangle, this.point);
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

  /** Distance from a point to the jacket, mm; exact where a section could be. */
  distance(point: Float64Array): number {
    return this.nearest.distanceNear(FAR_MM, point[0], point[1], point[2]);
  }

  /** The greatest potential at a triangle's middle. */
  private greatestIn(triangle: number): number {
    const { positions: p, triangles: t } = this.mesh;
    for (let a = 0; a < 3; a++) {
      this.point[a] =
        (p[3 * t[3 * triangle] + a] + p[3 * t[3 * triangle + 1] + a] + p[3 * t[3 * triangle + 2] + a]) / 3;
    }
    return this.greatestAt(triangle);
  }

  private greatestAt(triangle: number): number {
    const w = barycentric(this.mesh, triangle, this.point);
    const t = this.mesh.triangles;
    let best = 0;
    let most = -Infinity;
    this.data.potentials.forEach((potential, s) => {
      const value =
        w[0] * potential[t[3 * triangle]] +
        w[1] * potential[t[3 * triangle + 1]] +
        w[2] * potential[t[3 * triangle + 2]];
      if (value > most) {
        most = value;
        best = s;
      }
    });
    return best;
  }
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

/** Weights of a triangle's corners at a point in its plane. */
export function barycentric(mesh: TriangleMesh, triangle: number, point: Float64Array): [number, number, number] {
  const { positions: p, triangles: t } = mesh;
  const a = 3 * t[3 * triangle],
    b = 3 * t[3 * triangle + 1],
    c = 3 * t[3 * triangle + 2];
  const u = [0, 1, 2].map((k) => p[b + k] - p[a + k]);
  const v = [0, 1, 2].map((k) => p[c + k] - p[a + k]);
  const w = [0, 1, 2].map((k) => point[k] - p[a + k]);
  const inner = (x: number[], y: number[]) => x[0] * y[0] + x[1] * y[1] + x[2] * y[2];
  const uu = inner(u, u),
    uv = inner(u, v),
    vv = inner(v, v),
    wu = inner(w, u),
    wv = inner(w, v);
  const det = uu * vv - uv * uv;
  if (det <= 1e-20) return [1, 0, 0];
  const s = (wu * vv - wv * uv) / det;
  const r = (wv * uu - wu * uv) / det;
  return [1 - s - r, s, r];
}
