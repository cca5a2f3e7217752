/** Plans side by side: what each number of sections would cost, and why one would take it. */
import type { JobContext } from "../job/context.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import { offerOf, type PlanOffer } from "../parting/offer.ts";
import type { PartingPrices } from "../parting/price.ts";
import { formatMass } from "../units/index.ts";
import { SECTION_COUNTS } from "./document.ts";
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
  hoursOf: (plan: PlanOffer) => number,
  ctx: JobContext,
  tell: (plan: ComparedPlan) => Promise<void> | void = () => {},
): Promise<ComparedPlan[]> {
  const search = survey.search(prices, ctx);
  const plans: ComparedPlan[] = [];
  for (const [k, count] of SECTION_COUNTS.entries()) {
    ctx.checkCancelled();
    ctx.progress("compare", k / SECTION_COUNTS.length);
    const offer = offerOf(survey.request, search.tightened(search.exactly(count, ctx)), prices);
    const plan = { ...offer, hours: hoursOf(offer) };
    const told = { ...plan, reason: reasonFor(plan, plans.at(-1)) };
    plans.push(told);
    await tell(told);
  }
  ctx.progress("compare", 1);
  return plans;
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
