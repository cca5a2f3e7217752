/**
 * Suggests sections: surveys the pulls on a coarse mesh of the jacket, starts from the best sets of pulls, and turns
 * labels and pulls in turn, each to its best for the other as it stands, until nothing gains (the alternation of
 * Lloyd 1982). Every section stays one connected piece. What is made least is money: fill, parting line, and locks
 * too deep to fill at a price that drives them out.
 */
import type { JobContext } from "../../job/context.ts";
import { shortened } from "../lines/shorten.ts";
import { trialsFrom } from "./alternate.ts";
import type { Given } from "./held.ts";
import { linePerMm, type PartingPrices } from "./price.ts";
import { lineWeights } from "./pricing.ts";
import type { SuggestRequest, SurveyTable } from "./request.ts";
import { SearchGround } from "./searchGround.ts";
import { type Suggestion, suggestionOf, type Trial } from "./trial.ts";
import { handier, isHeld, plugStarts, splitInTwo, straightTrial, turned } from "./variations.ts";

/** Looks for plans: once made from a survey, it answers for any number of sections. */
export class PlanSearch {
  private readonly ground: SearchGround;
  /** The best plan of at most so many sections, and of just so many. */
  private readonly found = new Map<number, Trial>();
  private readonly exact = new Map<number, Trial>();
  private readonly toldOf = new WeakMap<Trial, Suggestion>();
  private readonly tight = new WeakMap<Suggestion, Suggestion>();

  /** @param given a plan as it lies, of which something is held while the rest is looked for */
  constructor(
    request: SuggestRequest,
    survey: SurveyTable,
    prices: PartingPrices,
    ctx: JobContext,
    given: Given | null = null,
  ) {
    this.ground = new SearchGround(request, survey, prices, ctx, given);
  }

  /** No plan has fewer sections: what is held, and one more for the rest; one for every body that stands apart. */
  get fewest(): number {
    return this.ground.fewest;
  }

  /** The best plan found with at most `sections` sections, handling counted; never dearer than with fewer. */
  best(sections: number, ctx: JobContext): Suggestion {
    return this.told(this.bestTrial(sections, ctx));
  }

  /** The best plan found with just so many sections: for those who want that many. */
  exactly(sections: number, ctx: JobContext): Suggestion {
    return this.told(this.exactTrial(sections, ctx));
  }

  /**
   * The plan made without looking: the cheapest pair of contrary pulls, parted straight across through the middle. What
   * a search has to beat.
   */
  straightPair(): Suggestion | null {
    const trial = straightTrial(this.ground);
    return trial && this.told(trial);
  }

  /** A plan of this search with its lines drawn tight. */
  tightened(plan: Suggestion): Suggestion {
    const held = this.tight.get(plan) ?? this.drawnTight(plan);
    this.tight.set(plan, held);
    return held;
  }

  private drawnTight(plan: Suggestion): Suggestion {
    const { request, vertices, pricing, prices } = this.ground;
    const { coarse: mesh, nearest, spacingMm, boardMm } = request;
    const { label, before, after } = shortened({
      mesh,
      nearest,
      near: vertices.near,
      label: plan.label,
      prices: plan.prices,
      areasMm2: pricing.areasMm2,
      linePerMm: linePerMm(prices),
      lineWeight: lineWeights(request, prices),
      edgeMm: spacingMm,
      boardMm,
    });
    return { ...plan, label, energy: plan.energy - (before - after) };
  }

  private exactTrial(sections: number, ctx: JobContext): Trial {
    const { ground } = this;
    const cheapest = this.bestTrial(Math.max(this.fewest, sections), ctx);
    const known = this.exact.get(sections);
    if (known) return known;
    if (sections <= this.fewest) {
      return cheapest.regions.label.length < sections ? (straightTrial(ground) ?? cheapest) : cheapest;
    }
    // No search ended with so many: the largest section of the next smaller plan is split.
    const fewer = this.exactTrial(sections - 1, ctx);
    const areas = ground.sizes(fewer.regions).map((size, r) => (isHeld(fewer, r) ? 0 : size.areaMm2));
    return this.noted(splitInTwo(ground, fewer, areas.indexOf(Math.max(...areas))));
  }

  private bestTrial(wanted: number, ctx: JobContext): Trial {
    const sections = Math.max(this.fewest, wanted);
    const known = this.found.get(sections);
    if (known) return known;
    const candidates = this.candidates(sections, ctx);
    for (const trial of candidates) this.noted(trial);
    const { ground } = this;
    const best = candidates.reduce((held, trial) => (ground.paid(trial) < ground.paid(held) ? trial : held));
    this.found.set(sections, best);
    return best;
  }

  /** Plans of at most so many sections: looked for on the patches, worked out on the vertices, and varied. */
  private candidates(sections: number, ctx: JobContext): Trial[] {
    const { ground } = this;
    const { turns, careful, finalists: kept } = ground.request.effort;
    const starts = ground.startingSets(sections).map((set) => ({ set, pulls: ground.priced, labels: null }));
    const trials = trialsFrom(ground.coarse, starts, sections, turns, ctx);
    trials.sort((a, b) => a.energy - b.energy);
    const fewer = sections > this.fewest ? this.bestTrial(sections - 1, ctx) : null;
    // All that is worked out on the vertices, side by side.
    const chosen = trials.slice(0, kept).map((trial) => ground.onVertices(trial));
    if (ground.given) chosen.push(ground.given);
    const plugs = fewer && careful ? plugStarts(ground, fewer) : [];
    const worked = trialsFrom(ground.vertices, [...chosen, ...plugs], sections, 0, ctx);
    const finalists = worked.slice(0, chosen.length);
    const candidates = careful ? [...finalists, turned(ground, least(finalists), sections, ctx)] : finalists;
    if (!fewer) return candidates;
    const plugged = worked.slice(chosen.length).filter((trial) => this.savesASection(trial, fewer));
    return [fewer, handier(ground, fewer), ...plugged, ...candidates];
  }

  /** Keeps the cheapest plan of every number of sections; scraps make no section. */
  private noted(trial: Trial): Trial {
    const { ground } = this;
    const count = trial.regions.label.length;
    const areas = ground.sizes(trial.regions).map(({ areaMm2 }) => areaMm2);
    const leastMm2 = LEAST_SHARE * areas.reduce((sum, areaMm2) => sum + areaMm2, 0);
    const fewer = this.exact.get(count - 1);
    if (Math.min(...areas) < leastMm2 && fewer && !this.savesASection(trial, fewer)) return trial;
    const held = this.exact.get(count);
    if (!held || ground.paid(trial) < ground.paid(held)) this.exact.set(count, trial);
    return trial;
  }

  private told(trial: Trial): Suggestion {
    const held = this.toldOf.get(trial) ?? { ...suggestionOf(trial), handling: this.ground.handlingOf(trial) };
    this.toldOf.set(trial, held);
    return held;
  }

  /** Does a plan save more than the section costs that it has more than another? */
  private savesASection(trial: Trial, fewer: Trial): boolean {
    const { setupPerSection, waitPerSection } = this.ground.prices;
    return this.ground.paid(trial) < this.ground.paid(fewer) - setupPerSection - waitPerSection;
  }
}

function least(trials: readonly Trial[]): Trial {
  return trials.reduce((best, trial) => (trial.energy < best.energy ? trial : best));
}

/** A section smaller than this share of the jacket must save what a section costs. */
const LEAST_SHARE = 0.03;
