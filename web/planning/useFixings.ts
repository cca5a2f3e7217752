/**
 * Bolts and keys of the shown plan, counted anew when something was decided about the shell; and its solids, once they are
 * worked out.
 */
import { useMemo } from "react";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { Identity } from "../../core/plan/document/identity.ts";
import { fixingsOf } from "../../core/plan/fixings.ts";
import type { PlanBundle } from "../../core/plan/results/bundle.ts";
import type { Fixings } from "../../core/takeoff/fixings.ts";
import { madeFrom, solidsFor, useSolids } from "./solids.ts";

/** @param bundle of a settled plan; null while there is none */
export function useFixings(
  bundle: PlanBundle | null,
  document: PlanDocument | null,
  identity: Pick<Identity, "lines"> | null,
): Fixings | undefined {
  const shell = document?.shell;
  const seat = document?.seat;
  const fragile = document?.zones.fragile;
  const coats = document?.jacket.coats;
  const lineIds = identity?.lines.map(({ id }) => id).join() ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: what of the document bolts and keys depend on.
  const counted = useMemo(
    () => (bundle && document ? fixingsOf(bundle, document, lineIds ? lineIds.split(",") : []) : undefined),
    [bundle, shell, seat, fragile, coats, lineIds],
  );
  const made = useSolids((held) => held.made);
  const solids = bundle && shell ? solidsFor(made, madeFrom(bundle.walls, shell)) : null;
  return useMemo(
    () => counted && (solids ? { ...counted, solidsMm3: solids.sections.map(({ volumeMm3 }) => volumeMm3) } : counted),
    [counted, solids],
  );
}
