/** From a jacket to sections: suggest or take pulls, label, measure locks, fill them, cut the filled jacket. */
import type { Jacket } from "../jacket/jacket.ts";
import type { JobContext } from "../job/context.ts";
import type { Layout } from "../parting/hand/layout.ts";
import { assemble, type Sections } from "./assemble.ts";
import { firstFree, suggestions, type Wanted } from "./choosing.ts";
import { type FreeRequest, freeSections, lockedAlike, lockedBare, tooDeep } from "./freeing.ts";
import { drawnOut, type LaidOut, laidByHand, runOn } from "./laidOut.ts";
import type { SurveyStage } from "./surveyStage.ts";

export interface SectionsRequest extends Wanted {
  /** Lines that were laid by hand; null where there are none. */
  readonly layout: Layout | null;
  readonly fillDepthMm: number;
  readonly shellMm: number;
}

export function planSections(jacket: Jacket, survey: SurveyStage, request: SectionsRequest, ctx: JobContext): Sections {
  const { layout, fillDepthMm, shellMm } = request;
  const { fillRounds: rounds, careful, order } = survey.request.effort;
  const nearest = survey.nearest(jacket, ctx);
  // From one suggestion to the next all lines differ; from one edit by hand to the next few do.
  const memory = layout && survey.memory;
  const asked = ({ pulls, potentials, fillWith }: LaidOut): FreeRequest => {
    const open = fillWith.map((wanted) => wanted === "open");
    return { jacket, nearest, pulls, potentials, fillDepthMm, open, shellMm, rounds, memory };
  };
  if (layout) {
    const laid = laidByHand(layout, jacket, nearest, survey.request);
    return assemble(freeSections(asked(laid), ctx), laid, shellMm, jacket, nearest, survey.request, ctx);
  }
  const { laid, freed } = firstFree(suggestions(survey, request, ctx), {
    // Lines run on as a hand would; where that locks, they keep to the horizons.
    ways: (suggestion) => {
      const kept = drawnOut(suggestion, jacket, survey.request);
      return order ? [() => runOn(kept, jacket, nearest, survey.request), () => kept] : [() => kept];
    },
    bare: (way) => lockedBare(asked(way), ctx),
    hopeless: (bare) => careful && tooDeep(bare),
    alike: (a, b) => careful && lockedAlike(a, b),
    free: (way, bare) => freeSections(asked(way), ctx, bare),
    holdingMm3: ({ last }) => last.reduce((sum, lock) => sum + lock.holdingMm3, 0),
  });
  const plan = assemble(freed, laid, shellMm, jacket, nearest, survey.request, ctx);
  if (request.pulls) return plan;
  return { ...plan, sections: plan.sections.map((section, k) => ({ ...section, origin: k })) };
}
