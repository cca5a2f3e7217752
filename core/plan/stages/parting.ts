/** The sections, suggested or of lines laid by hand, filled and proven. */
import { jacketThicknessMm, usualGiveMm } from "../../jacket/coat.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import { thickestOf } from "../../shell/index.ts";
import { allLayups } from "../../shell/layup.ts";
import { partingPrices } from "../../takeoff/prices.ts";
import type { PlanDocument } from "../document/document.ts";
import type { ProofRequest, SearchRequest, SectionsRequest } from "../proof/choosing.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { planSections } from "../proof/sections.ts";
import type { SurveyStage } from "../proof/surveyStage.ts";
import { stage, type Terms } from "./stage.ts";

/** What proves a plan, wherever its lines come from. */
export function proofRequest({ parting, jacket, shell }: PlanDocument): ProofRequest {
  const { mostSiliconeMm, leastSectionMm2, fills } = parting;
  return {
    giveMm: parting.giveMm ?? usualGiveMm(jacketThicknessMm(jacket.coats)),
    shellMm: thickestOf(allLayups(shell)).shellMm,
    ...{ mostSiliconeMm, leastSectionMm2, fills },
  };
}

/** What plans are looked for by: of all stages these alone read prices, and only where lines are suggested. */
export function searchRequest(document: PlanDocument, { rates }: Pick<Terms, "rates">): SearchRequest {
  const { pulls, sections, suggestedAt } = document.parting;
  const prices = partingPrices(document, suggestedAt ?? rates);
  return { ...proofRequest(document), layout: null, pulls, sections, prices, mayLift: !document.brief.immovable };
}

export const partingStage = stage({
  name: "parting",
  after: ["jacket", "survey"],
  reads: (document, terms): SectionsRequest =>
    document.parting.layout
      ? { ...proofRequest(document), layout: document.parting.layout }
      : searchRequest(document, terms),
  progress: { survey: 0.2, parting: 0.35 },
  make: (request, { jacket, survey }: { readonly jacket: Jacket; readonly survey: SurveyStage }, ctx): ProvenParting =>
    planSections(jacket, survey, request, ctx),
});
