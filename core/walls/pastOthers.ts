/**
 * Do flanges pass the sections that are still there, and sections the flanges of those? Places of a section are moved along its
 * pull past what leaves later. A place of its flange that bites into the shell of such a section,
 *
 *   bite = max over s > 0 of min(phi(y), T - phi(y), lead(y))        y = x + s d
 *
 * the measure that sections block each other by (`core/release/blocks.ts`: phi the distance from the jacket, lead how far y is
 * inside the other's cell), or into its flange, narrows its own flange there. A place of its shell that bites into a flange
 * narrows that one. What is no more than a third of a shell's thickness is trimmed by hand.
 */
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { Cells, type CellsData } from "../release/cells.ts";
import { edgeShare } from "../shell/edge.ts";
import { FlangeSpace, type InFlange } from "./flangeSpace.ts";
import { alongAt, leftOf } from "./lean.ts";
import { type Draft, type LeavingSection, RULING_MM } from "./wallGround.ts";

export interface PastOthers {
  readonly cells: CellsData;
  /** The cell of each section, in the order they are built. */
  readonly cellOf: readonly number[];
  readonly sections: readonly LeavingSection[];
  /** Each section's part of the jacket, in the same order. */
  readonly skins: readonly TriangleMesh[];
  readonly shellMm: number;
  readonly flangeMm: number;
  /** How far flanges reach, where there is room, mm. */
  readonly flangesReachMm: number;
  readonly boardMm: number | null;
}

/** Flanges are followed at every so many rulings, at steps of so much of their width, mm. */
const PAST_RULINGS = 4;
const REACH_STEP_MM = 15;
/** Ways are looked at in steps no shorter than these, mm: what bites deeper than is trimmed is longer along a way. */
const STEP_MM = 3;
const PAST_FLANGES_STEP_MM = 8;
const TRIM_SHARE = 1 / 3;
/** A flange is followed just off its wall and just within its back, as shares of its thickness. */
const ASIDE = [0.1, 0.9];
/** Places of a section's shell that are followed, this share of its thickness off the jacket. */
const PLACES = 1000;
const OFF_SHARE = 0.9;
/** A flange does not stand in the way of what is so near to it on the same wall, mm: there it is the wall that is in the way. */
const OWN_MM = 100;
/** Nor in that of a shell that begins no farther from it. */
const BESIDE_MM = 60;

/** How far the flanges of every wall may reach past what is still there. Changes the rooms and tells which. */
export function narrowPastOthers(
  drafts: readonly Draft[],
  roomsMm: readonly Float64Array[],
  request: PastOthers,
  narrowed: (wall: number, ruling: number) => void,
  ctx: JobContext,
): void {
  const cells = new Cells(request.cells);
  const spaceNow = () => {
    const reaches = roomsMm.map((roomMm) => roomMm.map((mm) => Math.min(mm, request.flangesReachMm)));
    return new FlangeSpace(drafts, reaches, request.flangeMm);
  };
  const narrow = (wall: number, ruling: number, mm: number) => {
    const roomMm = roomsMm[wall];
    for (let k = Math.max(0, ruling - PAST_RULINGS + 1); k < Math.min(roomMm.length, ruling + PAST_RULINGS); k++) {
      if (roomMm[k] <= mm) continue;
      roomMm[k] = mm;
      narrowed(wall, k);
    }
  };
  const first = new Past(cells, spaceNow(), request);
  drafts.forEach((draft, wall) => {
    ctx.checkCancelled();
    flangeRooms(draft, wall, roomsMm[wall], first, request).forEach((mm, n) => {
      narrow(wall, n * PAST_RULINGS, mm);
    });
  });
  ctx.checkCancelled();
  const second = new Past(cells, spaceNow(), request);
  for (const { wall, ruling, outMm } of shellsIntoFlanges(drafts, second, request))
    narrow(wall, ruling, Math.max(0, outMm - REACH_STEP_MM));
}

/** What stands in a section's way. */
class Past {
  private readonly point = new Float64Array(3);
  private readonly trimMm: number;

  constructor(
    readonly cells: Cells,
    private readonly flanges: FlangeSpace,
    private readonly request: PastOthers,
  ) {
    this.trimMm = TRIM_SHARE * request.shellMm;
  }

  /**
   * Follows a place of a section on its way out.
   * @param ofShells does what it would bite of shells count?
   * @param counts is a flange looked at?
   * @returns the flange that it bites into first; "shell" where it is a shell; null where it passes
   */
  met(
    section: number,
    start: readonly number[],
    ofShells: boolean,
    counts: (wall: number, ruling: number) => boolean,
  ): InFlange | "shell" | null {
    const { cells, flanges, point, trimMm } = this;
    const { cellOf, sections, shellMm, flangesReachMm, boardMm } = this.request;
    const { pull, travelMm } = sections[section];
    const nearMm = Math.max(shellMm, flangesReachMm);
    const stepMm = ofShells ? STEP_MM : PAST_FLANGES_STEP_MM;
    const later = (by: number, wall: number, ruling: number) => by >= 0 && by < section && counts(wall, ruling);
    for (let moved = stepMm; moved < travelMm; ) {
      for (let a = 0; a < 3; a++) point[a] = start[a] + moved * pull[a];
      if (boardMm !== null && point[2] < boardMm) return null;
      const free = cells.roughMm(point) - cells.slackMm - nearMm;
      if (free < 0) {
        const away = ofShells ? cells.distance(point) : Number.POSITIVE_INFINITY;
        if (away < shellMm) {
          const { section: cell, leadMm } = cells.leadAt(point[0], point[1], point[2]);
          const by = cellOf.indexOf(cell);
          if (by >= 0 && by < section && Math.min(away, shellMm - away, leadMm) > trimMm) return "shell";
        }
        const flange = flanges.at(point, later);
        if (flange && flange.depthMm > trimMm) return flange;
      }
      moved += Math.max(stepMm, free);
    }
    return null;
  }
}

/** For every ruling of a wall that is followed, how far its flange may reach, mm; infinite where nothing is in the way. */
function flangeRooms(
  { line, foot, out }: Draft,
  wall: number,
  roomMm: Float64Array,
  past: Past,
  { sections, shellMm, flangeMm }: PastOthers,
): Float64Array {
  const count = foot.length / 3;
  const room = new Float64Array(Math.ceil(count / PAST_RULINGS)).fill(Number.POSITIVE_INFINITY);
  for (let n = 0; n < room.length; n++) {
    const k = n * PAST_RULINGS;
    const up = [out[3 * k], out[3 * k + 1], out[3 * k + 2]] as const;
    const left = leftOf(alongAt(foot, k, line.closed), up);
    const isFar = (other: number, ruling: number) => {
      const rulings = Math.abs(ruling - k);
      return other !== wall || RULING_MM * (line.closed ? Math.min(rulings, count - rulings) : rulings) >= OWN_MM;
    };
    line.sections.forEach((s, side) => {
      // Sections built before it leave after it.
      if (s === 0 || !sections[s]) return;
      for (let reachMm = shellMm; reachMm <= Math.min(roomMm[k], room[n]); reachMm += REACH_STEP_MM) {
        const passes = ASIDE.every((share) => {
          const off = (side === 0 ? 1 : -1) * share * flangeMm;
          const start = [0, 1, 2].map((a) => foot[3 * k + a] + reachMm * up[a] + off * left[a]);
          return past.met(s, start, true, isFar) === null;
        });
        if (!passes) room[n] = Math.max(0, reachMm - REACH_STEP_MM);
      }
    });
  }
  return room;
}

/** The flanges that the shells of sections which leave before them run into, beyond what lies beside them. */
function shellsIntoFlanges(drafts: readonly Draft[], past: Past, { skins, shellMm, flangeMm }: PastOthers): InFlange[] {
  const found: InFlange[] = [];
  const start = [0, 0, 0];
  const isFar = (wall: number, ruling: number) => {
    const { foot } = drafts[wall];
    return Math.hypot(...start.map((mm, a) => mm - foot[3 * ruling + a])) > BESIDE_MM;
  };
  skins.forEach((skin, section) => {
    if (section === 0) return;
    const { normals } = vertexNormals(skin);
    const p = skin.positions;
    const every = 3 * Math.max(1, Math.floor(p.length / 3 / PLACES));
    for (let v = 0; v < p.length; v += every) {
      const { leadMm } = past.cells.leadAt(p[v], p[v + 1], p[v + 2]);
      // Beside its walls a shell is as thick as its flanges.
      const offMm = OFF_SHARE * (shellMm + Math.max(0, flangeMm - shellMm) * edgeShare(leadMm, flangeMm));
      for (let a = 0; a < 3; a++) start[a] = p[v + a] + offMm * normals[v + a];
      const met = past.met(section, start, false, isFar);
      if (met && met !== "shell") found.push(met);
    }
  });
  return found;
}
