/**
 * Webs of clay are in place before the first coat, and the jacket runs over their two sides. So the jacket has less to
 * cover where a web's ends stand on the piece, and more along its sides; what is silicone less is clay more, for web and
 * jacket together fill the same space as before:
 *
 *   silicone + thickness (sides - ends),  clay = web - thickness (sides - ends), neither below nothing
 */
import type { FillPart } from "../release/fills.ts";

export interface WebTakeoff {
  /** How much more silicone the jacket takes; below 0 where it takes less, mm3. */
  readonly moreSiliconeMm3: number;
  readonly clayMm3: number;
}

/** @param thicknessMm of the jacket */
export function websOf(
  fills: readonly Pick<FillPart, "kind" | "volumeMm3" | "onJacketMm2" | "freeMm2">[],
  thicknessMm: number,
): WebTakeoff {
  let [moreSiliconeMm3, clayMm3] = [0, 0];
  for (const { kind, volumeMm3, onJacketMm2, freeMm2 } of fills) {
    if (kind !== "web") continue;
    const more = Math.min(volumeMm3, thicknessMm * (freeMm2 - onJacketMm2));
    moreSiliconeMm3 += more;
    clayMm3 += volumeMm3 - more;
  }
  return { moreSiliconeMm3, clayMm3 };
}
