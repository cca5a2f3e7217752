/** The way to the thread that counts bolts, straps and keys; it is begun with the first plan, and holds the last one. */
import * as Comlink from "comlink";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { type FixedPlan, fixingsOf } from "../../core/plan/fixings.ts";
import type { Fixings } from "../../core/takeoff/fixings.ts";
import type { FixingsApi } from "./fixings.worker.ts";

let api: Comlink.Remote<FixingsApi> | null = null;
let holds: FixedPlan | null = null;

/** @returns null where another plan was counted meanwhile */
export async function countFixings(
  plan: FixedPlan,
  document: PlanDocument,
  lineIds: readonly string[],
): Promise<Fixings | null> {
  if (typeof Worker === "undefined") return fixingsOf(plan, document, lineIds);
  api ??= Comlink.wrap<FixingsApi>(
    new Worker(new URL("./fixings.worker.ts", import.meta.url), { type: "module", name: "fixings" }),
  );
  if (holds !== plan) {
    holds = plan;
    const { walls, skins, lines, figures, survey } = plan;
    await api.hold({ walls, skins, lines, figures, survey });
  }
  const fixings = await api.count(document, lineIds);
  return holds === plan ? fixings : null;
}
