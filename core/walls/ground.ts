/**
 * What parting walls stand on: along every parting line the way out at each of its places, square to the jacket, leaned
 * where the draft asks for it, and how far a flange may reach there. How wide the walls are made is decided later, and
 * costs nothing: all that takes time is here.
 */
import type { JobContext } from "../job/context.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import { resample } from "../parting/lines/fair.ts";
import { dot } from "../space/directions.ts";
import { alongAt, leaned, leftOf } from "./lean.ts";
import { nutRoom } from "./nutRoom.ts";
import { roomsOf } from "./room.ts";
import { unfold } from "./unfold.ts";
import { type Draft, type GroundRequest, type LeavingSection, RULING_MM, type WallGround } from "./wallGround.ts";

/** Rulings are evened out over so much of the line, either way, mm: a board does not follow every pore. */
const EVENED_MM = 45;
/** Ends of lines this near each other meet, mm; ends this near the board stand on it. */
const MEETS_MM = 2;
const ON_BOARD_MM = 12;

export function wallGrounds(request: GroundRequest, ctx: JobContext): WallGround[] {
  const drafts = request.lines.map((line) => draftOf(line, request));
  meetAtEnds(drafts, request);
  const rooms = roomsOf(drafts, request, ctx);
  return drafts.map((draft, n) => {
    const { line, foot, out, leanDeg } = draft;
    const again = line.closed ? comeRound : (values: ArrayLike<number>) => Float32Array.from(values);
    ctx.checkCancelled();
    return {
      sections: [line.sections[0] + 1, line.sections[1] + 1],
      closed: line.closed,
      foot: again(foot, 3),
      out: again(out, 3),
      roomMm: again(rooms[n].roomMm, 1),
      limit: Uint32Array.from(again(rooms[n].limit, 1)),
      leanDeg: again(leanDeg, 1),
      draft: again(draftsAlong(draft, request.sections), 2),
      nutMm: nutRoom(draft, request),
    };
  });
}

/** A closed line's figures with the first once more at their end. */
function comeRound(values: ArrayLike<number>, width: number): Float32Array {
  const out = new Float32Array(values.length + width);
  out.set(values);
  for (let a = 0; a < width; a++) out[values.length + a] = values[a];
  return out;
}

function draftOf(line: PartingLine, { mesh, nearest, boardMm, sections }: GroundRequest): Draft {
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
  const onBoard = (k: number) => !line.closed && boardMm !== null && foot[3 * k + 2] - boardMm < ON_BOARD_MM;
  const ends = [0, count - 1];
  for (const k of ends) if (onBoard(k)) levelled(out, foot, k, boardMm ?? 0);
  const stays = (k: number) => ends.includes(k) && onBoard(k);
  unfold(foot, out, line.closed, stays);
  const [left, right] = line.sections;
  const first = Math.max(left, right);
  const leanDeg = leaned(foot, out, line.closed, sections[first].pull, first === left);
  // Leaned to either side one after the other, rulings may close in on each other again.
  unfold(foot, out, line.closed, stays);
  // A ruling on the board lies on it, leaned or not.
  for (const k of ends) if (onBoard(k)) levelled(out, foot, k, boardMm ?? 0);
  return { line, foot, out, leanDeg };
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
    const t = alongAt(foot, k, closed);
    const along = (t[0] * facing[3 * k] + t[1] * facing[3 * k + 1] + t[2] * facing[3 * k + 2]) / (dot(t, t) || 1);
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
function meetAtEnds(drafts: readonly Draft[], { boardMm }: GroundRequest): void {
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

/** Sines of the wall's draft along the pulls of its two sections. */
function draftsAlong({ line, foot, out }: Draft, sections: readonly LeavingSection[]): Float64Array {
  const [left, right] = line.sections.map((s) => sections[s].pull);
  const draft = new Float64Array((2 * foot.length) / 3);
  for (let k = 0; k < foot.length / 3; k++) {
    const normal = leftOf(alongAt(foot, k, line.closed), [out[3 * k], out[3 * k + 1], out[3 * k + 2]]);
    draft[2 * k] = dot(normal, left);
    draft[2 * k + 1] = -dot(normal, right);
  }
  return draft;
}
