/** Which plan is taken: suggestions in the order of what the survey thinks of them, till one is proven to come off. */
import type { JobContext } from "../job/context.ts";
import { sectionsForPulls } from "../parting/givenPulls.ts";
import { deepMm3Of } from "../parting/offer.ts";
import type { PartingPrices } from "../parting/price.ts";
import type { PlanSearch } from "../parting/suggest.ts";
import type { Suggestion } from "../parting/trial.ts";
import type { Direction } from "../survey/directions.ts";
import { SECTION_COUNTS, type SectionCount } from "./document.ts";
import type { SurveyStage } from "./surveyStage.ts";

export interface Wanted {
  /** Pulls that were chosen by hand; null to have them suggested. */
  readonly pulls: readonly Direction[] | null;
  readonly sections: "auto" | SectionCount;
  readonly prices: PartingPrices;
}

/** How a plan is proven; measures in mm3. */
export interface Proving<Plan, Laid, Bare, Freed> {
  /** All the ways its lines may be laid, the best first; a way is laid when its turn comes. */
  ways(plan: Plan): readonly (() => Laid)[];
  /** Its locks before any fill. */
  bare(laid: Laid): Bare;
  /** Is it held for sure, whatever is filled? Such a plan is proven only when no other comes off. */
  hopeless(bare: Bare): boolean;
  /** Would one come to the same as the other? */
  alike(a: Bare, b: Bare): boolean;
  /** Fills what can be filled, and measures again. */
  free(laid: Laid, bare: Bare): Freed;
  /** What still holds it. */
  holdingMm3(freed: Freed): number;
}

export interface Proven<Laid, Freed> {
  readonly laid: Laid;
  readonly freed: Freed;
}

interface Weighed<Laid, Freed> extends Proven<Laid, Freed> {
  readonly heldMm3: number;
}

/**
 * The first plan that is proven to come off, for what the survey says of one is a guess; else the one that is held least.
 * What is held for sure, or alike to another way of laying the same plan that was proven to be held, is proven last.
 * @param plans the best first
 * @throws Error where there is no plan
 */
export function firstFree<Plan, Laid, Bare, Freed>(
  plans: Iterable<Plan>,
  proving: Proving<Plan, Laid, Bare, Freed>,
): Proven<Laid, Freed> {
  const prove = (laid: Laid, bare: Bare): Weighed<Laid, Freed> => {
    const freed = proving.free(laid, bare);
    return { laid, freed, heldMm3: proving.holdingMm3(freed) };
  };
  const putOff: { readonly laid: Laid; readonly bare: Bare }[] = [];
  let best: Weighed<Laid, Freed> | null = null;
  for (const plan of plans) {
    let held: Bare | null = null;
    for (const lay of proving.ways(plan)) {
      const laid = lay();
      const bare = proving.bare(laid);
      if (proving.hopeless(bare) || (held !== null && proving.alike(held, bare))) {
        putOff.push({ laid, bare });
        continue;
      }
      const proven = prove(laid, bare);
      if (proven.heldMm3 === 0) return proven;
      best = lessHeld(best, proven);
      held = bare;
    }
  }
  for (const { laid, bare } of putOff) best = lessHeld(best, prove(laid, bare));
  if (!best) throw new Error("There was no plan to choose from.");
  return best;
}

function lessHeld<L, F>(best: Weighed<L, F> | null, other: Weighed<L, F>): Weighed<L, F> {
  return best && best.heldMm3 <= other.heldMm3 ? best : other;
}

/** The plans to prove, cheapest first, each with its lines drawn tight when its turn comes; of a hasty search one alone. */
export function* suggestions(survey: SurveyStage, wanted: Wanted, ctx: JobContext): Generator<Suggestion> {
  const { pulls, sections, prices } = wanted;
  if (pulls) {
    yield sectionsForPulls(survey.request, pulls, prices, ctx);
    return;
  }
  const search = survey.search(prices, ctx);
  const { careful, counts } = survey.request.effort;
  const drawn = (plan: Suggestion) => (careful ? search.tightened(plan) : plan);
  if (sections !== "auto") {
    yield drawn(search.exactly(sections, ctx));
    return;
  }
  // Those the survey finds free come first: to prove one that locks costs as much time as to prove one that does not.
  const found = everyCount(search, SECTION_COUNTS.slice(0, counts), prices, ctx)
    .map((plan) => ({ plan, locks: deepMm3Of(survey.request, plan) > 0, price: weighedPrice(plan, prices) }))
    .sort((a, b) => Number(a.locks) - Number(b.locks) || a.price - b.price);
  for (const { plan } of careful ? found : found.slice(0, 1)) yield drawn(plan);
}

/** Plans of two sections, three and so on, until one more is not worth it. */
function everyCount(
  search: PlanSearch,
  counts: readonly SectionCount[],
  prices: PartingPrices,
  ctx: JobContext,
): Suggestion[] {
  const found: Suggestion[] = [];
  for (const count of counts) {
    ctx.progress("parting", (0.5 * found.length) / counts.length);
    const plan = search.best(count, ctx);
    const gained = found.every((other) => weighedPrice(plan, prices) < weighedPrice(other, prices));
    // With one more allowed the best may be the one before: it is not proven twice.
    if (!found.includes(plan)) found.push(plan);
    if (!gained) break;
  }
  return found;
}

/** One section more must save this share of a plan's price: the survey's prices are no surer than that. */
const WORTH_SHARE = 0.01;

/** What plans are tried in the order of: of two as good as equal, the one with fewer sections comes first. */
export function weighedPrice(
  { energy, handling, pulls }: Pick<Suggestion, "energy" | "handling" | "pulls">,
  { setupPerSection, waitPerSection }: Pick<PartingPrices, "setupPerSection" | "waitPerSection">,
): number {
  const price = energy + handling + pulls.length * (setupPerSection + waitPerSection);
  return price * (1 + WORTH_SHARE) ** pulls.length;
}
