/** What suggestions are looked for on: the jacket's outside, coarse. Its table of pulls is made when it is first asked for. */
import type { Jacket } from "../../jacket/jacket.ts";
import { SurveyStage, surveyRequestFor } from "../proof/surveyStage.ts";
import { stage } from "./stage.ts";

export const surveyStage = stage({
  name: "survey",
  after: ["jacket"],
  reads: ({ survey, zones }, { effort }) => ({ draftDeg: survey.draftDeg, keepClear: zones.keepClear, effort }),
  progress: {},
  make: ({ draftDeg, keepClear, effort }, { jacket }: { readonly jacket: Jacket }, ctx) =>
    new SurveyStage(surveyRequestFor(jacket, draftDeg, keepClear, ctx, effort)),
});
