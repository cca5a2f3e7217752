/** What of a wall cannot be built as it stands: stretches without room for a flange, and where a section drags on it. */
import { RULING_MM, type WallGround } from "./wallGround.ts";
import type { Narrowed, Wall } from "./walls.ts";

/** A flange narrower than this holds nothing, mm. */
const NO_FLANGE_MM = 15;
/** Shorter stretches are bridged by what is beside them, mm. */
export const BRIDGED_MM = 60;
/** Sine of a draft that drags: half a degree the wrong way. */
const DRAGS = -0.009;

/** Stretches too narrow for a flange, and too long to be bridged. */
export function withoutFlange({ narrowed }: Pick<Wall, "narrowed">): Narrowed[] {
  return narrowed.filter(({ widthMm, lengthMm }) => widthMm < NO_FLANGE_MM && lengthMm >= BRIDGED_MM);
}

/** Along how much of a wall the section that leaves first drags, leaned as it is, mm. */
export function dragsMm({ sections: [left, right], draft }: Pick<WallGround, "sections" | "draft">): number {
  let mm = 0;
  for (let k = left > right ? 0 : 1; k < draft.length; k += 2) if (draft[k] < DRAGS) mm += RULING_MM;
  return mm;
}
