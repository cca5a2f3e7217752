/**
 * The stages of a plan, in their order. To add one: a file beside this one, and its line here. Keys, what is kept, the
 * share of progress, and what an edit works out again all follow from what the stage's file declares.
 */
import type { PlanDocument } from "../document/document.ts";
import { cavityStage } from "./cavity.ts";
import { jacketStage } from "./jacket.ts";
import { partingStage } from "./parting.ts";
import { pieceStage } from "./piece.ts";
import { ribsStage } from "./ribs.ts";
import type { OutOf, Stage, Terms } from "./stage.ts";
import { surveyStage } from "./survey.ts";
import { wallsStage } from "./walls.ts";
import { waysStage } from "./ways.ts";
import { zonesStage } from "./zones.ts";

export const STAGES = {
  piece: pieceStage,
  jacket: jacketStage,
  survey: surveyStage,
  parting: partingStage,
  zones: zonesStage,
  walls: wallsStage,
  cavity: cavityStage,
  ways: waysStage,
  ribs: ribsStage,
} as const;

export type StageName = keyof typeof STAGES;
export const STAGE_NAMES = Object.keys(STAGES) as StageName[];
export type ResultOf<Name extends StageName> = OutOf<(typeof STAGES)[Name]>;

/** A stage by its name, with its types put aside. */
export function stageOf(name: string): Stage<unknown, unknown, Record<string, unknown>> {
  return STAGES[name as StageName] as never;
}

/** Text that names a stage's result by everything it depends on, but for the scan. */
export function stageKey(name: StageName, document: PlanDocument, terms: Terms): string {
  const { after, reads } = stageOf(name);
  const earlier = after.map((before) => stageKey(before as StageName, document, terms));
  return JSON.stringify([name, reads(document, terms), earlier]);
}

/** How much of a whole plan is done. @param what is reported on @param fraction of that, 0..1 */
export function shareOfPlan(what: string, fraction: number): number {
  let done = 0;
  for (const { progress } of Object.values(STAGES)) {
    for (const [name, share] of Object.entries(progress)) {
      if (name === what) return done + share * fraction;
      done += share;
    }
  }
  return done;
}
