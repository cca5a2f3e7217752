/** What a shown plan's walls and jacket are held by, counted for its buying list. */
import { jacketThicknessMm } from "../jacket/coat.ts";
import type { JacketKey } from "../keys/jacketKeys.ts";
import type { Fixings } from "../takeoff/fixings.ts";
import { builtKeys } from "./builtKeys.ts";
import { fastenedWalls } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanBundle } from "./results/bundle.ts";

export type FixedPlan = Pick<PlanBundle, "walls" | "skins" | "lines" | "figures">;

/** @param lineIds of the parting lines, in their order */
export function fixingsOf(plan: FixedPlan, document: PlanDocument, lineIds: readonly string[]): Fixings {
  const walls = fastenedWalls(plan.walls, document, lineIds);
  return {
    bolts: walls.reduce((sum, { fastenings }) => sum + fastenings.bolts.length, 0),
    jacketKeys: keysOf(plan, document).length,
  };
}

/** The keys on the jacket of a shown plan. */
export function keysOf({ skins, lines, figures: { report } }: FixedPlan, document: PlanDocument): JacketKey[] {
  const sections = skins.map((skin, k) => ({ skin, pull: report.sections[k].pull }));
  const jacketMm = jacketThicknessMm(document.jacket.coats);
  return builtKeys({ sections, lines, jacketMm, giveMm: report.giveMm }, document);
}
