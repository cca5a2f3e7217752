/** The keys on the shown plan's jacket. */
import { useMemo } from "react";
import type { JacketKey } from "../../../core/keys/jacketKeys.ts";
import { keysOf } from "../../../core/plan/fixings.ts";
import type { StationProps } from "../station.ts";

export type ShownKeys = readonly JacketKey[];

export function useJacketKeys({ document, planning }: Pick<StationProps, "document" | "planning">): ShownKeys {
  const { bundle, quality } = planning;
  // Placed once the sections stand: a first glance would have them jump.
  return useMemo(() => (bundle && quality === "settled" ? keysOf(bundle, document) : []), [bundle, quality, document]);
}
