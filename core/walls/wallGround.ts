/** What parting walls stand on, as plain data: what it is worked out from, and what is made of it. */
import type { NearestField } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import type { BodyData } from "../release/body.ts";
import type { CellsData } from "../release/cells.ts";
import type { Direction } from "../space/directions.ts";

/** Rulings stand so far apart, mm. */
export const RULING_MM = 5;
/** Walls are never wider than this off the jacket, mm. */
export const MOST_WIDTH_MM = 120;

/** What ends the room for a flange, by its number in `limit`. */
export const ROOM_LIMITS = ["none", "form", "board", "fold", "release", "sections"] as const;
export type RoomLimit = (typeof ROOM_LIMITS)[number];

/** One wall's ground; a closed one has its first place once more at its end. */
export interface WallGround {
  /** Numbers of the sections it parts: the one on the left of its line first, seen from outside. */
  readonly sections: readonly [number, number];
  readonly closed: boolean;
  /** The line on the jacket: xyz per place, mm. */
  readonly foot: Float32Array;
  /** The way out at every place, of length one. */
  readonly out: Float32Array;
  /** How far a flange may reach at every place, mm. */
  readonly roomMm: Float32Array;
  /** What ends it there, by its place among `ROOM_LIMITS`. */
  readonly limit: Uint32Array;
  /** How far the wall leans off square, degrees; above 0 towards the section on the left. */
  readonly leanDeg: Float32Array;
  /** Sine of the wall's draft along the pull of the section on its left, and on its right: 2 per place. */
  readonly draft: Float32Array;
  /** Distance of the jacket from the back of the flange, see `nutRoom.ts`. */
  readonly nutMm: Float32Array;
}

/** A section as its flanges leave with it. */
export interface LeavingSection {
  readonly pull: Direction;
  readonly travelMm: number;
  readonly lifted: boolean;
}

export interface GroundRequest {
  /** What the shell is built on: jacket and fills. */
  readonly mesh: TriangleMesh;
  /** The places nearest to that. */
  readonly nearest: NearestField;
  /** The same as a field, to follow ways through. */
  readonly body: BodyData;
  readonly lines: readonly PartingLine[];
  /** In the order they are built: the last one leaves first. */
  readonly sections: readonly LeavingSection[];
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  /** Thickness of a flange, mm. */
  readonly flangeMm: number;
  readonly boardMm: number | null;
  /** What flanges must pass on their way; null where only the jacket is looked at. */
  readonly others: {
    readonly cells: CellsData;
    /** The cell of each section, in the order they are built. */
    readonly cellOf: readonly number[];
    /** Each section's part of the jacket, in the same order. */
    readonly skins: readonly TriangleMesh[];
    readonly shellMm: number;
    /** How far flanges reach where there is room, mm: what others must pass. */
    readonly flangesReachMm: number;
  } | null;
}

/** A wall before its room is known: its foot, the way out at every place, and how far that leans. */
export interface Draft {
  readonly line: PartingLine;
  readonly foot: Float64Array;
  readonly out: Float64Array;
  readonly leanDeg: Float64Array;
}
