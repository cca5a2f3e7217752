/**
 * Bolts and keys of the shown plan, counted again when something was decided about the shell; and its solids, once they are
 * worked out.
 */
import { useEffect, useMemo, useRef, useState } from "react";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { Identity } from "../../core/plan/document/identity.ts";
import type { PlanBundle } from "../../core/plan/results/bundle.ts";
import type { Fixings } from "../../core/takeoff/fixings.ts";
import { countFixings } from "../workers/fixings.ts";
import { madeFrom, solidsFor, useSolids } from "./solids.ts";

interface Counted {
  /** What it was counted for. */
  readonly of: string;
  readonly bundle: PlanBundle;
  readonly fixings: Fixings;
}

/**
 * Counted after the plan was shown, on a thread of its own: the page stays awake.
 * @param bundle of a settled plan; null while there is none
 * @returns what was counted last, null before that; and whether it is of the plan as it stands
 */
export function useFixings(
  bundle: PlanBundle | null,
  document: PlanDocument | null,
  identity: Pick<Identity, "lines"> | null,
): { fixings: Fixings | undefined; current: boolean } {
  const lineIds = identity?.lines.map(({ id }) => id).join() ?? "";
  const of = document
    ? JSON.stringify([
        ...[document.shell, document.seat, document.brief, document.zones.fragile, document.jacket.coats],
        ...[document.jacket.rimWidthMm, lineIds],
      ])
    : "";
  const [counted, setCounted] = useState<Counted | null>(null);
  const latest = useRef(document);
  latest.current = document;
  useEffect(() => {
    if (!bundle) return;
    let overtaken = false;
    const plan = latest.current;
    if (!plan) return;
    countFixings(bundle, plan, lineIds ? lineIds.split(",") : []).then(
      (fixings) => {
        if (fixings && !overtaken) setCounted({ of, bundle, fixings });
      },
      // The plan stands without them: what was counted before stays.
      (error: unknown) => console.error("Bolts and keys could not be counted.", error),
    );
    return () => {
      overtaken = true;
    };
  }, [bundle, of, lineIds]);
  const shell = document?.shell;
  const made = useSolids((held) => held.made);
  const solids = bundle && shell ? solidsFor(made, madeFrom(bundle.walls, shell)) : null;
  const fixings = counted?.fixings;
  const withSolids = useMemo(
    () => fixings && (solids ? { ...fixings, laidMm3: solids.sections.map(({ laidMm3 }) => laidMm3) } : fixings),
    [fixings, solids],
  );
  return { fixings: withSolids, current: counted !== null && counted.of === of && counted.bundle === bundle };
}
