/**
 * Parting walls: along every parting line a ruled surface that stands square to the jacket, between the two sections it
 * parts. It ends where lines meet, on one ruling that all walls there share, and on the board.
 */
import type { NearestField } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import { resample } from "../parting/lines/fair.ts";
import type { Strip } from "./unroll.ts";

export interface Wall extends Strip {
  /** Numbers of the sections it parts: the one on the left of its line first, seen from outside. */
  readonly sections: readonly [number, number];
  /** It comes back to where it began; its last place is its first. */
  readonly closed: boolean;
  /** Its width at every place, mm. */
  readonly widthsMm: Float64Array;
  /** Stretches where it is narrower than was asked for, for want of room. */
  readonly narrowed: readonly Narrowed[];
  /** Places where it would cross itself: the line turns more tightly there than the wall is wide. */
  readonly folds: readonly (readonly [number, number, number])[];
}

export interface Narrowed {
  /** Where it is narrowest. */
  readonly at: readonly [number, number, number];
  readonly widthMm: number;
  readonly lengthMm: number;
}

export interface WallRequest {
  /** What the shell is built on: jacket and fills. */
  readonly mesh: TriangleMesh;
  /** The places nearest to that. */
  readonly nearest: NearestField;
  readonly lines: readonly PartingLine[];
  readonly widthMm: number;
  readonly boardMm: number | null;
}

/** Rulings stand so far apart, mm. */
export const RULING_MM = 5;
/** Rulings are evened out over so much of the line, either way, mm: a board does not follow every pore. */
const EVENED_MM = 45;
/** Ends of lines this near each other meet, mm; ends this near the board stand on it. */
const MEETS_MM = 2;
const ON_BOARD_MM = 12;
/** Room is looked for in steps of so much, mm. */
const ROOM_STEP_MM = 2;
/**
 * Out along a ruling the jacket's nearest place is its foot as long as the distance from the jacket grows as fast as the
 * way out; where it falls behind by this share, another part of the piece is nearer.
 */
const OWN_SHARE = 0.7;
/** The width changes by no more than this a millimetre: a hand cuts no steps. */
const WIDTH_SLOPE = 0.5;
/** Narrower by less than this is not told, mm. */
const TOLD_MM = 2;

export function wallsOf(request: WallRequest): Wall[] {
  const drafts = request.lines.map((line) => draftOf(line, request));
  meetAtEnds(drafts, request);
  return drafts.map((draft) => finished(draft, request));
}

/** A wall before its width is known: its foot, and the way out at every place. */
interface Draft {
  readonly line: PartingLine;
  readonly foot: Float64Array;
  readonly out: Float64Array;
}

function draftOf(line: PartingLine, { mesh, nearest, boardMm }: WallRequest): Draft {
  const points = resample(line, RULING_MM);
  const count = points.length / 3;
  const foot = new Float64Array(points.length);
  const facing = new Float64Array(points.length);
  const { normals } = vertexNormals(mesh);
  const place = new Float64Array(3);
  for (let k = 0; k < count; k++) {
    const triangle = nearest.nearest(place, points[3 * k], points[3 * k + 1], points[3 * k + 2]);
    foot.set(place, 3 * k);
    for (let c = 0; c < 3; c++) {
      const v = mesh.triangles[3 * triangle + c];
      for (let a = 0; a < 3; a++) facing[3 * k + a] += normals[3 * v + a];
    }
  }
  const out = squareTo(foot, evened(facing, line.closed), line.closed);
  if (!line.closed && boardMm !== null) {
    for (const k of [0, count - 1]) if (foot[3 * k + 2] - boardMm < ON_BOARD_MM) levelled(out, foot, k, boardMm);
  }
  return { line, foot, out };
}

/** Averages over the line, by a window that falls off to either side. */
function evened(facing: Float64Array, closed: boolean): Float64Array {
  const count = facing.length / 3;
  const reach = Math.round(EVENED_MM / RULING_MM);
  const out = new Float64Array(facing.length);
  for (let k = 0; k < count; k++) {
    for (let n = -reach; n <= reach; n++) {
      const at = closed ? (k + n + count * reach) % count : k + n;
      if (at < 0 || at >= count) continue;
      const weight = 1 - Math.abs(n) / (reach + 1);
      for (let a = 0; a < 3; a++) out[3 * k + a] += weight * facing[3 * at + a];
    }
  }
  return out;
}

/** Ways out square to the line, of length one. */
function squareTo(foot: Float64Array, facing: Float64Array, closed: boolean): Float64Array {
  const count = foot.length / 3;
  const out = new Float64Array(foot.length);
  for (let k = 0; k < count; k++) {
    const before = 3 * (closed ? (k + count - 1) % count : Math.max(0, k - 1));
    const after = 3 * (closed ? (k + 1) % count : Math.min(count - 1, k + 1));
    const t = [0, 1, 2].map((a) => foot[after + a] - foot[before + a]);
    const tt = t[0] ** 2 + t[1] ** 2 + t[2] ** 2 || 1;
    const along = (t[0] * facing[3 * k] + t[1] * facing[3 * k + 1] + t[2] * facing[3 * k + 2]) / tt;
    set(
      out,
      k,
      [0, 1, 2].map((a) => facing[3 * k + a] - along * t[a]),
    );
  }
  return out;
}

/** Sets a way, made as long as one; straight up where it has no length. */
function set(out: Float64Array, k: number, way: readonly number[]): void {
  const length = Math.hypot(...way);
  for (let a = 0; a < 3; a++) out[3 * k + a] = length > 1e-9 ? way[a] / length : a === 2 ? 1 : 0;
}

/** Stands an end on the board, its ruling lying on it. */
function levelled(out: Float64Array, foot: Float64Array, k: number, boardMm: number): void {
  foot[3 * k + 2] = boardMm;
  set(out, k, [out[3 * k], out[3 * k + 1], 0]);
}

/** Where lines meet, their walls share one ruling: the mean of theirs. */
function meetAtEnds(drafts: readonly Draft[], { boardMm }: WallRequest): void {
  const ends = drafts.flatMap((draft) =>
    draft.line.closed ? [] : [0, draft.foot.length / 3 - 1].map((k) => ({ draft, k })),
  );
  const placeOf = ({ draft, k }: (typeof ends)[number]) => draft.foot.subarray(3 * k, 3 * k + 3);
  const done = new Set<(typeof ends)[number]>();
  for (const end of ends) {
    if (done.has(end)) continue;
    const [x, y, z] = placeOf(end);
    const here = ends.filter((other) => {
      const [u, v, w] = placeOf(other);
      return Math.hypot(u - x, v - y, w - z) < MEETS_MM;
    });
    const mean = [0, 1, 2].map((a) => here.reduce((sum, { draft, k }) => sum + draft.out[3 * k + a], 0));
    const level = boardMm !== null && z - boardMm < 1e-6;
    for (const other of here) {
      done.add(other);
      other.draft.foot.set([x, y, z], 3 * other.k);
      set(other.draft.out, other.k, level ? [mean[0], mean[1], 0] : mean);
    }
  }
}

function finished({ line, foot, out }: Draft, { nearest, widthMm, boardMm }: WallRequest): Wall {
  const count = foot.length / 3;
  const room = Float64Array.from({ length: count }, (_, k) =>
    Math.min(roomAt(foot, out, k, nearest, widthMm, boardMm), unfoldedAt(foot, out, k, line.closed)),
  );
  const widthsMm = sloped(room, line.closed);
  const head = foot.map((value, n) => value + widthsMm[Math.floor(n / 3)] * out[n]);
  const wall = { foot, head, widthsMm };
  const { sections, closed } = line;
  return {
    ...(closed ? comeRound(wall) : wall),
    sections: [sections[0] + 1, sections[1] + 1],
    closed,
    narrowed: narrowedOf(foot, widthsMm, widthMm),
    folds: foldsOf(foot, head, closed),
  };
}

/** How far a ruling may reach before another part of the piece, or the board, is nearer to it than to its own, mm. */
function roomAt(
  foot: Float64Array,
  out: Float64Array,
  k: number,
  nearest: NearestField,
  widthMm: number,
  boardMm: number | null,
): number {
  const [x, y, z] = foot.subarray(3 * k, 3 * k + 3);
  const [dx, dy, dz] = out.subarray(3 * k, 3 * k + 3);
  const most = boardMm !== null && dz < -1e-9 ? Math.min(widthMm, Math.max(0, (z - boardMm) / -dz)) : widthMm;
  for (let s = ROOM_STEP_MM; s < most; s += ROOM_STEP_MM) {
    if (nearest.distance(x + s * dx, y + s * dy, z + s * dz) < OWN_SHARE * s) return s - ROOM_STEP_MM;
  }
  return most;
}

/** Where rulings close in on each other, the outer edge keeps this share of the foot's length at least. */
const LEAST_SHARE = 0.15;

/** How wide the wall may be before its rulings cross the ones beside them, mm: in a hollow they close in on each other. */
function unfoldedAt(foot: Float64Array, out: Float64Array, k: number, closed: boolean): number {
  const count = foot.length / 3;
  let most = Number.POSITIVE_INFINITY;
  for (const from of [k - 1, k]) {
    if (!closed && (from < 0 || from + 1 >= count)) continue;
    const [a, b] = [3 * ((from + count) % count), 3 * ((from + 1) % count)];
    let [length2, closing] = [0, 0];
    for (let x = 0; x < 3; x++) {
      const leg = foot[b + x] - foot[a + x];
      length2 += leg * leg;
      closing -= leg * (out[b + x] - out[a + x]);
    }
    if (closing > 0) most = Math.min(most, ((1 - LEAST_SHARE) * length2) / closing);
  }
  return most;
}

/** Widths with no steps: none is greater than its neighbours' by more than the slope. */
function sloped(room: Float64Array, closed: boolean): Float64Array {
  const out = room.slice();
  const count = out.length;
  const step = WIDTH_SLOPE * RULING_MM;
  for (let round = 0; round < (closed ? 2 : 1); round++) {
    for (let k = closed ? 0 : 1; k < count; k++) out[k] = Math.min(out[k], out[(k + count - 1) % count] + step);
    for (let k = closed ? count - 1 : count - 2; k >= 0; k--) out[k] = Math.min(out[k], out[(k + 1) % count] + step);
  }
  return out;
}

/** A closed wall with its first place once more at its end. */
function comeRound({ foot, head, widthsMm }: { foot: Float64Array; head: Float64Array; widthsMm: Float64Array }) {
  const again = (values: Float64Array, width: number) => Float64Array.from([...values, ...values.subarray(0, width)]);
  return { foot: again(foot, 3), head: again(head, 3), widthsMm: again(widthsMm, 1) };
}

function narrowedOf(foot: Float64Array, widthsMm: Float64Array, wantedMm: number): Narrowed[] {
  const out: Narrowed[] = [];
  let from = -1;
  for (let k = 0; k <= widthsMm.length; k++) {
    const narrow = k < widthsMm.length && widthsMm[k] < wantedMm - TOLD_MM;
    if (narrow && from < 0) from = k;
    if (narrow || from < 0) continue;
    let least = from;
    for (let n = from; n < k; n++) if (widthsMm[n] < widthsMm[least]) least = n;
    const [x, y, z] = foot.subarray(3 * least, 3 * least + 3);
    out.push({ at: [x, y, z], widthMm: widthsMm[least], lengthMm: (k - from) * RULING_MM });
    from = -1;
  }
  return out;
}

/** Places where the outer edge runs backwards. */
function foldsOf(foot: Float64Array, head: Float64Array, closed: boolean): (readonly [number, number, number])[] {
  const count = foot.length / 3;
  const out: (readonly [number, number, number])[] = [];
  let before = false;
  for (let k = 0; k < (closed ? count : count - 1); k++) {
    const [a, b] = [3 * k, 3 * ((k + 1) % count)];
    const along = [0, 1, 2].reduce((sum, x) => sum + (foot[b + x] - foot[a + x]) * (head[b + x] - head[a + x]), 0);
    if (along < 0 && !before) out.push([foot[a], foot[a + 1], foot[a + 2]]);
    before = along < 0;
  }
  return out;
}
