/** Which plan is taken: suggestions in the order of what the survey thinks of them, until one is proven to come off. */
import type { JobContext } from "../../job/context.ts";
import type { Layout } from "../../parting/layout/layout.ts";
import { sectionsForPulls } from "../../parting/search/givenPulls.ts";
import type { PartingPrices } from "../../parting/search/price.ts";
import type { PlanSearch } from "../../parting/search/suggest.ts";
import type { Suggestion } from "../../parting/search/trial.ts";
import type { FillChoice } from "../../release/fills.ts";
import type { Direction } from "../../space/directions.ts";
import { SECTION_COUNTS, type SectionCount } from "../document/document.ts";
import type { SurveyStage } from "./surveyStage.ts";

export interface Wanted {
  /** Pulls that were chosen by hand; null to have them suggested. */
  readonly pulls: readonly Direction[] | null;
  readonly sections: "auto" | SectionCount;
  readonly prices: PartingPrices;
  /** May the piece be lifted off its board or laid over? */
  readonly mayLift: boolean;
}

/** What a plan is proven by, wherever its lines come from. */
export interface ProofRequest {
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  /** Fills thicker than this are not made of silicone, mm. */
  readonly mostSiliconeMm: number;
  /** Sections that are suggested are no smaller, mm2. */
  readonly leastSectionMm2: number;
  /** What was chosen by hand for single fills. */
  readonly fills: readonly FillChoice[];
  readonly shellMm: number;
}

/** A plan to be looked for. */
export interface SearchRequest extends ProofRequest, Wanted {
  readonly layout: null;
}

/** Lines that were laid by hand, to be proven as they are. */
export interface LaidRequest extends ProofRequest {
  readonly layout: Layout;
}

export type SectionsRequest = SearchRequest | LaidRequest;

/**
 * Plans worth proving by the survey's word, cheapest first: of every number of sections that gains, with a lift and
 * without one; of a hasty search one alone.
 */
export function suggestions(survey: SurveyStage, wanted: Wanted, ctx: JobContext): Suggestion[] {
  const { pulls, sections, prices, mayLift } = wanted;
  if (pulls) return [sectionsForPulls({ ...survey.request, mayLift }, pulls, prices, ctx)];
  const { careful, counts } = survey.request.effort;
  const onBoard = survey.request.boardMm !== null;
  const foundWith = (way: boolean) => {
    const search = survey.search(prices, way, ctx);
    const plans =
      sections === "auto"
        ? everyCount(search, SECTION_COUNTS.slice(0, counts), prices, ctx)
        : [search.exactly(sections, ctx)];
    return plans.map((plan) => ({
      plan,
      lift: way ? liftOf(plan, prices, survey) : 0,
      price: weighedPrice(plan, prices),
    }));
  };
  const found = foundWith(mayLift || !onBoard);
  // Where a lift is in the cheapest plan, what it would cost to do without one is looked for too.
  if (careful && found.some(({ lift }) => lift > 0)) found.push(...foundWith(false));
  found.sort((a, b) => a.price + a.lift - b.price - b.lift);
  return (careful ? found : found.slice(0, 1)).map(({ plan }) => plan);
}

/** The best plan of just so many sections, what a lift costs counted. */
export function exactSuggestion(survey: SurveyStage, wanted: Wanted, count: number, ctx: JobContext): Suggestion {
  const { prices, mayLift } = wanted;
  const foundWith = (way: boolean) => {
    const plan = survey.search(prices, way, ctx).exactly(count, ctx);
    const lift = way ? liftOf(plan, prices, survey) : 0;
    return { plan, lift, price: weighedPrice(plan, prices) + lift };
  };
  const found = [foundWith(mayLift || survey.request.boardMm === null)];
  if (found[0].lift > 0) found.push(foundWith(false));
  return found.reduce((best, other) => (other.price < best.price ? other : best)).plan;
}

/** What a lift adds to the price of a plan of which some section most likely leaves downwards past the board. */
export function liftOf(plan: Pick<Suggestion, "pulls">, prices: PartingPrices, survey: SurveyStage): number {
  return survey.request.boardMm !== null && plan.pulls.some((pull) => pull[2] < LEVEL) ? prices.lift : 0;
}

/** Pulls that sink no more than this, as a sine, are level. */
const LEVEL = -0.02;

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
