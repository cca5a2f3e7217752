/** A plan's figures as they are shown: its geometry, and what follows from it at today's rates. */
import type { Rates } from "../../takeoff/rates.ts";
import type { PlanDocument } from "../document/document.ts";
import type { BundleFigures, PlanBundle } from "./bundle.ts";
import { type Reckoned, reckoned } from "./reckoned.ts";

export interface PlanFigures extends BundleFigures, Reckoned {}

/** A plan as it is shown. */
export interface ShownPlan extends Omit<PlanBundle, "figures"> {
  readonly figures: PlanFigures;
}

export function figuresOf(geometry: BundleFigures, document: PlanDocument, rates: Rates): PlanFigures {
  return { ...geometry, ...reckoned(geometry.report, document, rates) };
}
