/** Counts bolts and keys of the shown plan off the page's own thread. */
import * as Comlink from "comlink";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { type FixedPlan, fixingsOf } from "../../core/plan/fixings.ts";
import type { Fixings } from "../../core/takeoff/fixings.ts";

let held: FixedPlan | null = null;

const api = {
  /** The plan that is counted from now on. */
  hold(plan: FixedPlan): void {
    held = plan;
  },
  count(document: PlanDocument, lineIds: readonly string[]): Fixings | null {
    return held && fixingsOf(held, document, lineIds);
  },
};

export type FixingsApi = typeof api;

Comlink.expose(api);
