/** What a plan's walls, its foot and its jacket are held by, counted for its buying list. */
import { jacketThicknessMm } from "../jacket/coat.ts";
import type { JacketKey } from "../keys/jacketKeys.ts";
import type { Fixings } from "../takeoff/fixings.ts";
import { builtFootprint } from "./builtFoot.ts";
import { builtKeys } from "./builtKeys.ts";
import { builtStraps, type StrapGround } from "./builtStraps.ts";
import { type FastenedWall, fastenedWalls } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanBundle } from "./results/bundle.ts";

export type FixedPlan = Pick<PlanBundle, "walls" | "skins" | "lines" | "figures" | "survey">;

/**
 * Of a shown plan.
 * @param lineIds of the parting lines, in their order
 */
export function fixingsOf(plan: FixedPlan, document: PlanDocument, lineIds: readonly string[]): Fixings {
  const walls = fastenedWalls(plan.walls, document, lineIds);
  const ground = { jacket: plan.survey, cavity: plan.figures.report.cavity };
  return fixingsFrom(ground, document, walls, keysOf(plan, document).length);
}

export function fixingsFrom(
  ground: StrapGround,
  document: PlanDocument,
  walls: readonly FastenedWall[],
  jacketKeys: number,
): Fixings {
  const straps = builtStraps(ground, document, walls);
  const footprint = builtFootprint({ piece: null, jacket: ground.jacket }, document, walls);
  return {
    bolts: walls.reduce((sum, { fastenings }) => sum + fastenings.bolts.length, 0),
    footBolts: footprint?.bolts.length ?? 0,
    ...(footprint ? { boardMm2: footprint.boardMm[0] * footprint.boardMm[1] } : {}),
    jacketKeys,
    strapsMm: straps.map(({ lengthMm }) => lengthMm),
  };
}

/** The keys on the jacket of a shown plan. */
export function keysOf(
  { skins, lines, figures: { report } }: Pick<FixedPlan, "skins" | "lines" | "figures">,
  document: PlanDocument,
): JacketKey[] {
  const sections = skins.map((skin, k) => ({ skin, pull: report.sections[k].pull }));
  const jacketMm = jacketThicknessMm(document.jacket.coats);
  return builtKeys({ sections, lines, jacketMm, giveMm: report.giveMm }, document);
}
