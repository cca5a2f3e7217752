/**
 * How far a flange may reach at every place of a line: until another part of the piece, or the board, is nearer to it than
 * its own foot; until its rulings would cross each other in a hollow; and no further than it still leaves with its section
 * along the pull, and its neighbour along theirs, without biting into the jacket deeper than the rubber gives.
 */
import type { NearestField } from "../field/nearest.ts";
import type { JobContext } from "../job/context.ts";
import { measureBites } from "../release/bite.ts";
import { Body } from "../release/body.ts";
import { alongAt, leftOf } from "./lean.ts";
import { narrowPastOthers } from "./pastOthers.ts";
import { type Draft, type GroundRequest, MOST_WIDTH_MM, ROOM_LIMITS, type RoomLimit } from "./wallGround.ts";

export interface Room {
  readonly roomMm: Float64Array;
  /** By their places among `ROOM_LIMITS`. */
  readonly limit: Uint8Array;
}

/** Room is looked for in steps no shorter than this, mm. */
const ROOM_STEP_MM = 2;
/**
 * Out along a ruling the distance from the jacket grows, by half of the way at least: rulings may stand aslant in a hollow.
 * Where it falls behind this share, another part of the piece is nearer.
 */
const OWN_SHARE = 0.5;
/** A flange that comes nearer to another part again keeps so far off it, mm: its shell is laid there. */
const OTHER_CLEAR_MM = 20;
/** Where rulings close in on each other, the outer edge keeps this share of the foot's length at least. */
const LEAST_SHARE = 0.15;

/** Flanges are followed out at every so many rulings, at steps of so much of their width, mm. */
const EVERY_RULINGS = 2;
const REACH_STEP_MM = 5;
/** The wall's own face is followed out this far on either side of it, mm. */
const FACE_MM = 0.5;
/** What of a flange's back lies as near to the jacket as this is part of the shell there, mm. */
const IN_SHELL_MM = 2;

export function roomsOf(drafts: readonly Draft[], request: GroundRequest, ctx: JobContext): Room[] {
  const { nearest, boardMm, others, sections, flangeMm } = request;
  const rooms = drafts.map(({ line, foot, out }): Room => {
    const count = foot.length / 3;
    const roomMm = new Float64Array(count);
    const limit = new Uint8Array(count);
    for (let k = 0; k < count; k++) {
      const board = boardRoom(foot, out, k, boardMm);
      const fold = unfoldedAt(foot, out, k, line.closed);
      const form = formRoom(foot, out, k, nearest, Math.min(MOST_WIDTH_MM, board, fold));
      const bounds: readonly (readonly [RoomLimit, number])[] = [
        ["none", MOST_WIDTH_MM],
        ["board", board],
        ["fold", fold],
        ["form", form],
      ];
      for (const [kind, mm] of bounds) {
        if (kind !== "none" && mm >= roomMm[k]) continue;
        roomMm[k] = mm;
        limit[k] = ROOM_LIMITS.indexOf(kind);
      }
    }
    return { roomMm, limit };
  });
  narrowToLeave(drafts, rooms, request, ctx);
  if (others) {
    const roomsMm = rooms.map(({ roomMm }) => roomMm);
    const narrowed = (wall: number, k: number) => {
      rooms[wall].limit[k] = ROOM_LIMITS.indexOf("sections");
    };
    narrowPastOthers(drafts, roomsMm, { ...others, sections, flangeMm, boardMm }, narrowed, ctx);
  }
  return rooms;
}

function boardRoom(foot: Float64Array, out: Float64Array, k: number, boardMm: number | null): number {
  const dz = out[3 * k + 2];
  return boardMm !== null && dz < -1e-9 ? Math.max(0, (foot[3 * k + 2] - boardMm) / -dz) : Number.POSITIVE_INFINITY;
}

/** How far a ruling may reach before another part of the piece is nearer to it than its own, mm. */
function formRoom(foot: Float64Array, out: Float64Array, k: number, nearest: NearestField, mostMm: number): number {
  const [x, y, z] = foot.subarray(3 * k, 3 * k + 3);
  const [dx, dy, dz] = out.subarray(3 * k, 3 * k + 3);
  let known = 0;
  let farthest = 0;
  for (let s = ROOM_STEP_MM; s < mostMm; ) {
    const away = nearest.distance(x + s * dx, y + s * dy, z + s * dz);
    if (away < OWN_SHARE * s || (away < farthest - ROOM_STEP_MM && away < OTHER_CLEAR_MM)) return known;
    farthest = Math.max(farthest, away);
    known = s;
    // The distance falls by no more than a millimetre a millimetre: before this it cannot fall behind.
    const behind = (away + s) / (1 + OWN_SHARE);
    const crowded = s + Math.max(0, away - OTHER_CLEAR_MM);
    s = Math.max(s + ROOM_STEP_MM, Math.min(behind, crowded));
  }
  return mostMm;
}

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

/** Narrows the rooms to what leaves with both sections: the face of the wall and the flange's back. Changes the rooms. */
function narrowToLeave(
  drafts: readonly Draft[],
  rooms: readonly Room[],
  { body: data, sections, giveMm, flangeMm, boardMm }: GroundRequest,
  ctx: JobContext,
): void {
  const body = new Body(data);
  const points: number[] = [];
  const section: number[] = [];
  const asked: { readonly wall: number; readonly k: number; readonly reachMm: number }[] = [];
  const note = (wall: number, k: number, reachMm: number, s: number, place: readonly number[]) => {
    points.push(...place);
    section.push(s);
    asked.push({ wall, k, reachMm });
  };
  drafts.forEach(({ line, foot, out }, wall) => {
    for (let k = 0; k < foot.length / 3; k += EVERY_RULINGS) {
      const up = [out[3 * k], out[3 * k + 1], out[3 * k + 2]] as const;
      const left = leftOf(alongAt(foot, k, line.closed), up);
      for (let reachMm = REACH_STEP_MM; reachMm <= rooms[wall].roomMm[k]; reachMm += REACH_STEP_MM) {
        line.sections.forEach((s, side) => {
          for (const aside of [FACE_MM, flangeMm]) {
            const off = side === 0 ? aside : -aside;
            const place = [0, 1, 2].map((a) => foot[3 * k + a] + reachMm * up[a] + off * left[a]);
            if (body.at(place[0], place[1], place[2]) < (aside === FACE_MM ? 0 : IN_SHELL_MM)) continue;
            note(wall, k, reachMm, s, place);
          }
        });
      }
    }
  });
  const pulls = sections.map(({ pull }) => pull);
  const request = {
    body: data,
    points: Float32Array.from(points),
    section: Uint8Array.from(section),
    pulls,
    fineMm: giveMm,
  };
  const bites = measureBites(request, ctx);
  asked.forEach(({ wall, k, reachMm }, n) => {
    const { pull, travelMm, lifted } = sections[section[n]];
    const low = points[3 * n + 2] + travelMm * pull[2];
    const hitsBoard = boardMm !== null && !lifted && pull[2] < 0 && low < boardMm - SLIDES_MM;
    if (bites[n] <= giveMm && !hitsBoard) return;
    const { roomMm, limit } = rooms[wall];
    // The rulings between two that are followed are narrowed with them.
    for (let near = Math.max(0, k - EVERY_RULINGS + 1); near < Math.min(roomMm.length, k + EVERY_RULINGS); near++) {
      if (roomMm[near] <= reachMm - REACH_STEP_MM) continue;
      roomMm[near] = reachMm - REACH_STEP_MM;
      limit[near] = ROOM_LIMITS.indexOf("release");
    }
  });
}

/** What would come lower than the board by no more than this slides on it, mm. */
const SLIDES_MM = 1;
