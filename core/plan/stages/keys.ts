/** Keys that hosts keep results by; all of them follow from what the stages declare that they read. */
import type { Rates } from "../../takeoff/rates.ts";
import type { PlanDocument } from "../document/document.ts";
import { searchRequest } from "./parting.ts";
import { effortOf, type Fineness } from "./steps.ts";
import { STAGE_NAMES, type StageName, stageKey } from "./table.ts";

/** What a host knows of a plan beside its document; the grid step follows from the piece and the fineness. */
export interface HostTerms {
  readonly rates: Rates;
  readonly fineness: Fineness;
}

const termsOf = ({ rates, fineness }: HostTerms) => ({ rates, stepMm: 0, effort: effortOf(fineness) });

/** Text that names a plan by all its geometry depends on; hosts hash it into a key. */
export function resultKeyText(scanSha256: string, document: PlanDocument, terms: HostTerms, version: number): string {
  const stages = STAGE_NAMES.map((name) => stageKey(name, document, termsOf(terms)));
  return JSON.stringify([version, scanSha256, terms.fineness, stages]);
}

/** Text that names what a stage makes of an open scan. */
export function hostStageKey(name: StageName, document: PlanDocument, terms: HostTerms): string {
  return stageKey(name, document, termsOf(terms));
}

/** Text that names all that a comparison of plans depends on. */
export function comparisonKey(document: PlanDocument, terms: HostTerms): string {
  const { pulls: _pulls, sections: _sections, ...request } = searchRequest(document, terms);
  return JSON.stringify([hostStageKey("survey", document, terms), request]);
}
