/**
 * How far a section moves along its pull before it stands clear of the body it was built on; from there a hand takes it
 * anywhere. Where its way would run into the board before that, the piece has to be lifted first, in its mould.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { Body, type BodyData } from "./body.ts";

/** Farther from the body than this a section stands clear, mm: room for a finger. */
const CLEAR_MM = 10;
/** Places of a skin that are followed. */
const SAMPLES = 1500;
/** A section that would come lower than the board by no more than this slides on it, mm. */
const SLIDES_MM = 1;

export interface Travel {
  readonly travelMm: number;
  /** Does the board stand in its way, so that the piece is lifted or laid over before it leaves? */
  readonly lifted: boolean;
}

/** @param shellMm thickness of the section, mm: its outside stands that far off its skin */
export function travelOf(skin: TriangleMesh, pull: Direction, data: BodyData, shellMm: number): Travel {
  const body = new Body(data);
  const { positions: p } = skin;
  const [dx, dy, dz] = pull;
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / SAMPLES));
  let travelMm = 0;
  let lowest = Infinity;
  for (let k = 0; k < p.length; k += every) {
    travelMm = Math.max(travelMm, clearAfterMm(body, p[k], p[k + 1], p[k + 2], dx, dy, dz));
    lowest = Math.min(lowest, p[k + 2]);
  }
  const { boardMm } = data;
  const sinks =
    boardMm !== null && lowest - Math.max(0, dz < 0 ? shellMm * -dz : 0) + travelMm * dz < boardMm - SLIDES_MM;
  return { travelMm, lifted: boardMm !== null && dz < 0 && sinks };
}

/** Where a way is last as near to the body as `CLEAR_MM`, mm along it; the board does not end it. */
function clearAfterMm(body: Body, x: number, y: number, z: number, dx: number, dy: number, dz: number): number {
  let last = 0;
  for (let s = 0; ; ) {
    const [px, py, pz] = [x + s * dx, y + s * dy, z + s * dz];
    const empty = body.emptyMm(px, py, pz, dx, dy, dz);
    if (empty === Infinity) return last;
    if (empty > 0) {
      s += empty;
      continue;
    }
    const f = body.at(px, py, pz);
    s += Math.max(f - CLEAR_MM, CLEAR_MM / 4);
    if (f < CLEAR_MM) last = s;
  }
}
