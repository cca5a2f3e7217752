/** A planning that stands still, for tests of what shows it; what a test needs of it is put in. */

import { newPlan, type PlanDocument } from "../../core/plan/document/document.ts";
import { usePlan } from "../document/planStore.ts";
import type { Planning } from "../planning/usePlanning.ts";

const nothing = async () => ({ ok: false, cancelled: false, message: "not in this test" }) as const;

export function planningWith(some: Partial<Planning> = {}): Planning {
  return {
    bundle: null,
    quality: "settled",
    fixings: undefined,
    isCounted: true,
    before: null,
    glance: null,
    setGlance: () => {},
    standing: null,
    progress: null,
    problem: null,
    notice: null,
    geometry: null,
    takeFile: nothing,
    compare: nothing,
    ranges: nothing,
    remedies: nothing,
    rest: nothing,
    solids: nothing,
    prepare: () => {},
    cancel: () => {},
    again: () => {},
    comparedBy: "",
    resultKey: async () => "ab".repeat(32),
    ...some,
  };
}

/** Opens a plan in the store, as the page does. */
export function openDocument(document: PlanDocument = newPlan()): void {
  usePlan.setState({ partId: "piece", document, revision: 1 });
}

export function documentNow(): PlanDocument {
  const { document } = usePlan.getState();
  if (!document) throw new Error("No plan is open.");
  return document;
}
