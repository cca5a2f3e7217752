/**
 * Where cutting a limb off, and moulding it alone, is the better way: where the plan is held although everything was tried,
 * or where one fill alone costs more than the cutting.
 */
import type { FillPart } from "../../release/fills.ts";
import { fillMinor } from "../../takeoff/cost.ts";
import type { Rates } from "../../takeoff/rates.ts";
import type { PlannedSection } from "../proof/parting.ts";

export interface CutOff {
  /** A place at the limb, mm: of the deepest bite, or in the fill. */
  readonly at: readonly [number, number, number];
  /** The fill it would do without, mm3; 0 where the plan is held. */
  readonly fillMm3: number;
}

/** @param fills of a plan, in the order of the plan's report */
export function cutOffOf(
  sections: readonly Pick<PlannedSection, "biteMm" | "biteAt" | "releases">[],
  fills: readonly Pick<FillPart, "at" | "volumeMm3" | "kind">[],
  rates: Rates,
): CutOff | null {
  const held = sections.filter(({ releases, biteAt }) => !releases && biteAt).sort((a, b) => b.biteMm - a.biteMm);
  if (held[0]?.biteAt) return { at: held[0].biteAt, fillMm3: 0 };
  const costs = fills.map((fill) => fillMinor(fill, rates));
  const dearest = fills[costs.indexOf(Math.max(...costs))];
  if (!dearest || fillMinor(dearest, rates) <= (rates.cutOffMin * rates.hourMinor) / 60) return null;
  return { at: dearest.at, fillMm3: dearest.volumeMm3 };
}
