/**
 * Locks of a section: the space of its cell that, moving along its pull, meets the jacket again.
 *
 * The cell of a section is all points nearer to its patch of the jacket than to any other's. Space counts from the
 * back of the jacket (or the board) forwards. Columns of the cell no deeper along the pull than the fill depth are
 * filled; so are longer ones where the whole lock they are part of lies within the fill depth of the jacket, for a
 * long shallow hollow takes a thin fill. The rest stays open, and the section does not release.
 */
import type { NearestField, NodeClasses } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { labelsOf } from "../parting/sections.ts";
import { type ColumnFrame, columnFrame, columnPoint, FROM_BACK, visitColumns } from "../survey/columns.ts";
import type { Direction } from "../survey/directions.ts";
import { fillStarts, type Stretch, withoutGrazes } from "./fillable.ts";

/** How much farther from the jacket than its shell a section reaches, by its flanges, mm. */
const FLANGE_REACH_MM = 25;
/** Shorter than this share of the spacing is below what the grid can tell. */
const DEPTH_FLOOR = 0.5;

/** Farther from the jacket than any section reaches, mm. */
const FAR_MM = 75;

/** Whose cell a point is in. */
export class Cells {
  private readonly classOf: Uint8Array;
  private readonly classes: NodeClasses;
  private readonly point = new Float64Array(3);

  constructor(
    private readonly mesh: TriangleMesh,
    private readonly nearest: NearestField,
    private readonly potentials: readonly Float32Array[],
  ) {
    const label = labelsOf(potentials);
    const t = mesh.triangles;
    // 255 marks the triangles a parting line runs through: never sure.
    this.classOf = Uint8Array.from({ length: t.length / 3 }, (_, k) => {
      const own = label[t[3 * k]];
      return own === label[t[3 * k + 1]] && own === label[t[3 * k + 2]] ? own : 255;
    });
    this.classes = nearest.classes(this.classOf);
  }

  /** Section number of the cell of a point (mm). */
  at(x: number, y: number, z: number): number {
    const sure = this.nearest.sureClass(this.classes, x, y, z);
    if (sure >= 0 && sure !== 255) return sure;
    // Far out the wall between two cells need not be known to better than a node.
    const far = this.nearest.farTriangle(FAR_MM, x, y, z);
    if (far >= 0) return this.classOf[far] !== 255 ? this.classOf[far] : this.greatestIn(far);
    const triangle = this.nearest.nearest(this.point, x, y, z);
    return this.classOf[triangle] !== 255 ? this.classOf[triangle] : this.greatestAt(triangle);
  }

  /** The potentials carried over to the vertices of a mesh near this one: the lines stay where they are in space. */
  carried(mesh: TriangleMesh): Float32Array[] {
    const out = this.potentials.map(() => new Float32Array(mesh.positions.length / 3));
    const t = this.mesh.triangles;
    for (let v = 0; v < mesh.positions.length / 3; v++) {
      const p = mesh.positions;
      const triangle = this.nearest.nearest(this.point, p[3 * v], p[3 * v + 1], p[3 * v + 2]);
      const w = barycentric(this.mesh, triangle, this.point);
      this.potentials.forEach((potential, s) => {
        let sum = 0;
        for (let c = 0; c < 3; c++) sum += w[c] * potential[t[3 * triangle + c]];
        out[s][v] = sum;
      });
    }
    return out;
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
    this.potentials.forEach((potential, s) => {
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

/** A filled stretch of a line. */
export interface FilledColumn {
  readonly line: number;
  readonly fromMm: number;
  readonly toMm: number;
}

export interface SectionLock {
  readonly lockMm3: number;
  readonly fillMm3: number;
  /** How far the deepest point moves before it meets the jacket; 0 where there is no lock. */
  readonly deepestMm: number;
  /** The deepest point left open, or the deepest filled one; null where there is no lock. */
  readonly at: readonly [number, number, number] | null;
  /** Volume left open because it is deeper than the fill depth. */
  readonly openMm3: number;
  /** Volume in locks thicker than the residue: above 0, the section does not release as the jacket stands. */
  readonly holdingMm3: number;
  readonly columns: readonly FilledColumn[];
  /** Points spread through the lock: xyz and the depth there, mm, 4 per point; the depth of a filled one is negative. */
  readonly points: Float32Array;
  readonly frame: ColumnFrame;
}

export interface LockRequest {
  readonly jacket: TriangleMesh;
  readonly cells: Cells;
  readonly section: number;
  readonly pull: Direction;
  readonly spacingMm: number;
  readonly boardMm: number | null;
  readonly fillDepthMm: number;
  /** A lock no thicker than this is the grid's own roughness, mm. */
  readonly residueMm: number;
  /** Thickness of the section: columns of its cell that nowhere come this near the jacket do not hold it. */
  readonly shellMm: number;
}

export function measureLock(request: LockRequest): SectionLock {
  const { jacket, cells, section, pull, spacingMm, boardMm, fillDepthMm, residueMm, shellMm } = request;
  const reachMm = shellMm + FLANGE_REACH_MM;
  const stretches: Stretch[] = [];
  const point = new Float64Array(3);
  const pending: [number, number, number, number][] = [];
  const frame = columnFrame(jacket, pull, spacingMm);
  visitColumns(jacket, frame, boardMm, (line, from, to, first) => {
    if (to - from > DEPTH_FLOOR * spacingMm) pending.push([line, from, to, first]);
  });
  for (const [line, from, to, first] of pending) {
    const samples = Math.max(1, Math.ceil((to - from) / spacingMm));
    const each = (to - from) / samples;
    let low = Number.NaN;
    let length = 0;
    let near = Number.NaN;
    let reached = false;
    let thickMm = 0;
    for (let k = 0; k < samples; k++) {
      columnPoint(frame, line, from + (k + 0.5) * each, point);
      if (cells.at(point[0], point[1], point[2]) !== section) continue;
      // Short columns fill anyway: only long ones need their distance from the jacket.
      const thick = to - from <= residueMm ? 0 : cells.distance(point);
      thickMm = Math.max(thickMm, thick);
      reached ||= thick < shellMm;
      if (thick > reachMm) near = Number.NaN;
      else if (Number.isNaN(near)) near = from + k * each;
      if (length === 0)
        low = k === 0 ? from : cellEdge(cells, section, frame, line, from + (k - 0.5) * each, each, point);
      length += length === 0 ? from + (k + 1) * each - low : each;
    }
    if (reached && to - low > DEPTH_FLOOR * spacingMm) {
      if (first === FROM_BACK && low === from) thickMm = Infinity;
      stretches.push({
        line,
        to,
        low,
        near: Math.max(low, Number.isNaN(near) ? to - spacingMm : near),
        lengthMm: length,
        thickMm,
      });
    }
  }
  const kept = withoutGrazes(stretches, frame, fillDepthMm);
  const rough = withoutGrazes(stretches, frame, residueMm);
  const smooth = rough.map(({ low, to, thickMm }) => Math.max(to - low, thickMm) <= residueMm);
  const thin = fillStarts(rough, frame, residueMm);
  const holdingMm3 = rough.reduce(
    (sum, { lengthMm, low }, k) => sum + (smooth[k] || thin[k] === low ? 0 : spacingMm ** 2 * lengthMm),
    0,
  );
  return { ...summarise(kept, fillStarts(kept, frame, fillDepthMm), frame, spacingMm), holdingMm3 };
}

/** Halvings of a sample's length when a cell's edge is looked for: to a thirtieth. */
const EDGE_HALVINGS = 5;

/** Where on a line a section's cell begins, between a sample outside it at `outMm` and one inside it a sample on. */
function cellEdge(
  cells: Cells,
  section: number,
  frame: ColumnFrame,
  line: number,
  outMm: number,
  each: number,
  point: Float64Array,
): number {
  let out = outMm;
  let within = outMm + each;
  for (let k = 0; k < EDGE_HALVINGS; k++) {
    const middle = (out + within) / 2;
    columnPoint(frame, line, middle, point);
    if (cells.at(point[0], point[1], point[2]) === section) within = middle;
    else out = middle;
  }
  return within;
}

function summarise(
  stretches: readonly Stretch[],
  fillFrom: Float64Array,
  frame: ColumnFrame,
  spacingMm: number,
): Omit<SectionLock, "holdingMm3"> {
  const face = spacingMm * spacingMm;
  let lockMm3 = 0;
  let fillMm3 = 0;
  let deepestMm = 0;
  let at: [number, number, number] | null = null;
  const columns: FilledColumn[] = [];
  const point = new Float64Array(3);
  let openMm3 = 0;
  let mostTelling = 0;
  const filled = Array.from(fillFrom, (from) => !Number.isNaN(from));
  stretches.forEach(({ line, to, low, lengthMm }, k) => {
    const depth = to - low;
    lockMm3 += face * lengthMm;
    if (filled[k]) {
      fillMm3 += face * Math.min(lengthMm, to - fillFrom[k]);
      columns.push({ line, fromMm: fillFrom[k], toMm: to });
    } else openMm3 += face * lengthMm;
    // Open locks are told before filled ones, however deep.
    const telling = filled[k] ? depth : depth + 1e6;
    if (telling > mostTelling) {
      mostTelling = telling;
      deepestMm = depth;
      columnPoint(frame, line, low, point);
      at = [point[0], point[1], point[2]];
    }
  });
  return {
    lockMm3,
    fillMm3,
    deepestMm,
    at,
    openMm3,
    columns,
    points: spreadPoints(stretches, filled, frame),
    frame,
  };
}

/** At most this many points stand for a lock on the stage. */
const SHOWN_POINTS = 1500;

function spreadPoints(stretches: readonly Stretch[], filled: readonly boolean[], frame: ColumnFrame): Float32Array {
  const every = Math.max(1, Math.ceil(stretches.length / SHOWN_POINTS));
  const shown = stretches.map((_, k) => k).filter((k) => k % every === 0);
  const out = new Float32Array(shown.length * 4);
  const point = new Float64Array(3);
  shown.forEach((n, k) => {
    const { line, low, to } = stretches[n];
    columnPoint(frame, line, (low + to) / 2, point);
    out.set([point[0], point[1], point[2], filled[n] ? low - to : to - low], 4 * k);
  });
  return out;
}
