/** The keys on a plan's jacket, and the sheet that says where each is glued. */
import { type JacketKey, jacketKeys } from "../keys/jacketKeys.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { type Box, placeInWords } from "../survey/place.ts";
import type { PlanDocument } from "./document/document.ts";

/** What of a plan keys are placed on: its skins, thinned or whole. */
export interface KeyGround {
  readonly sections: readonly { readonly skin: TriangleMesh; readonly pull: Direction }[];
  readonly lines: readonly { readonly points: Float32Array }[];
  readonly jacketMm: number;
  readonly giveMm: number;
}

/** The keys of a plan's lines by what else they depend on: page and buying list ask for the same. */
const placedBefore = new WeakMap<KeyGround["lines"], { readonly key: string; readonly keys: JacketKey[] }>();

export function builtKeys(ground: KeyGround, { shell, seat, zones }: PlanDocument): JacketKey[] {
  const { jacketMm, giveMm } = ground;
  const key = JSON.stringify([shell.jacketKeys, seat.onBoard, zones.fragile, jacketMm, giveMm]);
  const held = placedBefore.get(ground.lines);
  if (held?.key === key) return held.keys;
  const keys = jacketKeys({
    ...ground,
    zones: [zones.fragile],
    boardMm: seat.onBoard ? 0 : null,
    keys: shell.jacketKeys,
  });
  placedBefore.set(ground.lines, { key, keys });
  return keys;
}

/**
 * Where every key is glued: a row each, to be pinned beside the piece.
 * @param odd the key that is made otherwise, so that the jacket goes in one way only; null where none is
 */
export function keysCsv(keys: readonly JacketKey[], box: Box, odd: number | null = null): string {
  const mm = (value: number) => String(Math.round(value));
  const rows = keys.map(({ section, at, toLineMm, biteMm }, k) =>
    [
      k + 1,
      section,
      `"${placeInWords(at, box, (height) => `${mm(height)} mm`)}"`,
      mm(at[2] - box.min[2]),
      mm(at[0] - (box.min[0] + box.max[0]) / 2),
      mm(at[1] - (box.min[1] + box.max[1]) / 2),
      mm(toLineMm),
      biteMm.toFixed(1),
      k === odd ? "make it otherwise" : "",
    ].join(","),
  );
  const head = "key,section,place,up_mm,right_of_middle_mm,behind_middle_mm,to_parting_line_mm,bite_mm,note";
  return `${[head, ...rows].join("\n")}\n`;
}
