/**
 * Where cutting a limb off, and moulding it alone, is the better way: where the plan is held although everything was tried,
 * or where one fill alone costs more than the cutting.
 */
import type { FillPart } from "../release/fills.ts";
import type { PlannedSection } from "./assemble.ts";

export interface CutOff {
  /** A place at the limb, mm: of the deepest bite, or in the fill. */
  readonly at: readonly [number, number, number];
  /** The fill it would do without, mm3; 0 where the plan is held. */
  readonly fillMm3: number;
}

export interface CutOffPrices {
  /** What a fill costs in silicone, which stands for the work of laying it in clay as well, a mm3. */
  readonly fillPerMm3: number;
  /** What it costs to cut a limb off. */
  readonly cutOff: number;
}

/** @param fills of a plan, in the order of the plan's report */
export function cutOffOf(
  sections: readonly Pick<PlannedSection, "biteMm" | "biteAt" | "releases">[],
  fills: readonly Pick<FillPart, "at" | "volumeMm3" | "kind">[],
  prices: CutOffPrices,
): CutOff | null {
  const held = sections.filter(({ releases, biteAt }) => !releases && biteAt).sort((a, b) => b.biteMm - a.biteMm);
  if (held[0]?.biteAt) return { at: held[0].biteAt, fillMm3: 0 };
  const largest = [...fills].sort((a, b) => b.volumeMm3 - a.volumeMm3)[0];
  if (!largest || largest.volumeMm3 * prices.fillPerMm3 <= prices.cutOff) return null;
  return { at: largest.at, fillMm3: largest.volumeMm3 };
}
