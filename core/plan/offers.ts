/** Plans side by side: what each number of sections would cost, and why one would take it. */
import type { JobContext } from "../job/context.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import { deepFloorMm3, type LockGuess, offerOf, type PlanOffer } from "../parting/offer.ts";
import type { PartingPrices } from "../parting/price.ts";
import type { SuggestRequest } from "../parting/request.ts";
import { Cells } from "../release/cells.ts";
import { measureLocks } from "../release/locks.ts";
import { formatMass } from "../units/index.ts";
import { SECTION_COUNTS } from "./document.ts";
import { RESIDUE_STEPS } from "./freeing.ts";
import type { SurveyStage } from "./surveyStage.ts";

export interface ComparedPlan extends PlanOffer {
  /** Hours of hands and of waiting that its sections and lines take. */
  readonly hours: number;
  /** Against the plan with one section fewer, in a sentence. */
  readonly reason: string;
}

const ORDINALS = ["", "", "second", "third", "fourth", "fifth", "sixth"];

/** Offers the best plan of every number of sections, each as it is found. */
export async function comparePlans(
  survey: SurveyStage,
  prices: PartingPrices,
  shellMm: number,
  hoursOf: (plan: PlanOffer) => number,
  ctx: JobContext,
  tell: (plan: ComparedPlan) => Promise<void> | void = () => {},
): Promise<ComparedPlan[]> {
  const search = survey.search(prices, ctx);
  const locksOf = guessOnSurveyMesh(survey.request, shellMm, ctx);
  const plans: ComparedPlan[] = [];
  for (const [k, count] of SECTION_COUNTS.entries()) {
    ctx.checkCancelled();
    ctx.progress("compare", k / SECTION_COUNTS.length);
    const offer = offerOf(survey.request, search.tightened(search.exactly(count, ctx)), prices, locksOf);
    const plan = { ...offer, hours: hoursOf(offer) };
    const told = { ...plan, reason: reasonFor(plan, plans.at(-1)) };
    plans.push(told);
    await tell(told);
  }
  ctx.progress("compare", 1);
  return plans;
}

/** Lines to the survey's spacing, across a pull and along it: its mesh is no finer, but a lock's edges are. */
const LINES_PER_SPACING = 2;

/**
 * Locks measured as they will be on the jacket, on the survey's mesh in its stead: what the survey adds up column by
 * column does not know that a thin lock which is part of a thick one stays open with it.
 */
export function guessOnSurveyMesh(request: SuggestRequest, shellMm: number, ctx: JobContext): LockGuess {
  const { coarse: jacket, nearest, boardMm, fillDepthMm } = request;
  const spacingMm = request.spacingMm / LINES_PER_SPACING;
  const least = deepFloorMm3(spacingMm, fillDepthMm);
  const common = {
    jacket,
    spacingMm,
    alongMm: spacingMm,
    boardMm,
    fillDepthMm,
    residueMm: RESIDUE_STEPS * spacingMm,
    shellMm,
  };
  return (pulls, potentials) =>
    measureLocks(
      pulls.map((pull, section) => ({ ...common, pull, section })),
      Cells.of(nearest, potentials, ctx.team),
      ctx,
    ).map(({ fillMm3, openMm3 }) => ({ fillMm3, deepMm3: openMm3 > least ? openMm3 : 0 }));
}

/** Why one would or would not take a plan rather than the one with a section fewer. */
export function reasonFor(
  plan: PlanOffer & { readonly hours: number },
  fewer: (PlanOffer & { readonly hours: number }) | undefined,
): string {
  if (plan.deepMm3 > 0 && !fewer) return "Some of it would lock too deep to fill.";
  if (!fewer) return "The fewest sections there can be.";
  const nth = ORDINALS[plan.sections.length] ?? `${plan.sections.length}th`;
  const savedG = siliconeMassG(fewer.fillMm3 - plan.fillMm3);
  const hours = plan.hours - fewer.hours;
  const freed = fewer.deepMm3 > 0 && plan.deepMm3 === 0 ? " frees what was locked," : "";
  const silicone =
    Math.abs(savedG) < 10
      ? " saves no silicone"
      : ` ${savedG > 0 ? "saves" : "takes"} ${formatMass(Math.abs(savedG))} of silicone`;
  const time = `${hours >= 0 ? "costs" : "saves"} ${Math.abs(hours).toFixed(1)} h`;
  return `A ${nth} section${freed}${silicone} and ${time}.`;
}

/** The cheapest of several plans; of those that come off whole, where any does. */
export function cheapest<T extends Pick<PlanOffer, "deepMm3" | "cost">>(plans: readonly T[]): T | null {
  const free = plans.filter((plan) => plan.deepMm3 === 0);
  const among = free.length > 0 ? free : plans;
  return among.length === 0 ? null : among.reduce((best, plan) => (plan.cost < best.cost ? plan : best));
}
