/**
 * Suggests sections: surveys the pulls on a coarse mesh of the jacket, starts from the best sets of pulls, and turns
 * labels and pulls in turn, each to its best for the other as it stands, until nothing gains (the alternation of
 * Lloyd 1982). Every section stays one connected piece. What is made least is money: fill, parting line, and locks
 * too deep to fill at a price that drives them out.
 */
import type { JobContext } from "../../job/context.ts";
import { type Direction, dot } from "../../space/directions.ts";
import { surveyRow } from "../../survey/survey.ts";
import { labellingEnergy } from "../graph/energy.ts";
import { vertexGraph } from "../graph/graph.ts";
import { type Patches, patchesOf, patchSums } from "../graph/patches.ts";
import { piecesOf, type RegionSize, type Regions, regionSizes } from "../graph/regions.ts";
import { splitRegion } from "../graph/split.ts";
import { shortened } from "../lines/shorten.ts";
import { type TrialStart, trialsFrom } from "./alternate.ts";
import { PullChooser, type PullSet } from "./choosePulls.ts";
import { type Given, Holding } from "./held.ts";
import { hollowsOf } from "./plugs.ts";
import { handlingCost, linePerMm, type PartingPrices } from "./price.ts";
import { lineWeights, type PricedPull, Pricing, type Seams, seamsOf } from "./pricing.ts";
import { turnedBy } from "./pullRange.ts";
import type { SuggestRequest, SurveyTable } from "./request.ts";
import { costsAt, label, regionCosts, type Suggestion, suggestionOf, type Trial } from "./trial.ts";

/** Vertices to a patch of the search. */
const PATCH_VERTICES = 6;

/** Looks for plans: once made from a survey, it answers for any number of sections. */
export class PlanSearch {
  private readonly pricing: Pricing;
  private readonly vertices: Seams;
  private readonly patches: Patches;
  private readonly coarse: Seams;
  /** Pieces that the surface is in. */
  private readonly bodies: number;
  private readonly holding: Holding;
  private readonly given: TrialStart | null;
  /** Surveyed pulls, then the held ones: pulls x patches. */
  private readonly table: Float32Array;
  private readonly heldPrices: readonly Float32Array[];
  private readonly priced: readonly PricedPull[];
  private readonly found = new Map<number, Trial>();
  private readonly toldOf = new WeakMap<Trial, Suggestion>();
  private readonly tight = new WeakMap<Suggestion, Suggestion>();
  private readonly exact = new Map<number, Trial>();
  private readonly sizesOf = new WeakMap<Regions, readonly RegionSize[]>();
  private readonly chooser: PullChooser;
  private readonly chosen = new Map<number, readonly PullSet[]>();

  constructor(
    private readonly request: SuggestRequest,
    private readonly survey: SurveyTable,
    private readonly prices: PartingPrices,
    ctx: JobContext,
    /** A plan as it lies, of which something is held while the rest is looked for. */
    given: Given | null = null,
  ) {
    const held = given?.held ?? [];
    this.pricing = new Pricing(request, prices);
    this.vertices = seamsOf(vertexGraph(request.coarse, lineWeights(request, prices)), prices);
    this.patches = patchesOf(this.vertices.graph, this.vertices.near, PATCH_VERTICES);
    this.coarse = seamsOf(this.patches.graph, prices);
    this.bodies = piecesOf(this.vertices.near);
    this.holding = Holding.of(held, this.vertices.graph.vertices);
    const onPatches = this.holding.onPatches(this.patches);
    this.heldPrices = this.pricing
      .surveyAll(
        held.map(({ pull }) => pull),
        ctx,
      )
      .map(({ price }) => price);
    const pulls = [...survey.directions, ...held.map(({ pull }) => pull)];
    const count = this.patches.graph.vertices;
    this.table = new Float32Array(ctx.team.buffer(4 * pulls.length * count));
    this.priced = pulls.map((pull, d) => {
      const price = this.table.subarray(d * count, (d + 1) * count);
      patchSums(this.patches, this.bareOf(d), price);
      return { pull, price: onPatches.rule(price, this.heldAt(d)), held: this.heldAt(d) };
    });
    const always = held.map((_, h) => survey.directions.length + h);
    this.chooser = new PullChooser(this.table, pulls.length, count, always);
    this.given = given && this.asGiven(given, ctx);
  }

  /** The plan that was given, its pulls priced on the vertices. */
  private asGiven({ pulls, label: start }: Given, ctx: JobContext): TrialStart {
    const fresh = pulls.filter((pull) => typeof pull !== "number");
    const surveyed = this.pricing.surveyAll(fresh, ctx).values();
    const priced = pulls.map((pull): PricedPull => {
      if (typeof pull === "number") return this.pricedOnVertices(this.survey.directions.length + pull);
      const found = surveyed.next().value as PricedPull;
      return { ...found, price: this.holding.rule(found.price, null) };
    });
    return { set: pulls.map((_, s) => s), pulls: priced, labels: start };
  }

  /** The held section that a pull of the table is of; null for a surveyed one. */
  private heldAt(pull: number): number | null {
    const surveyed = this.survey.directions.length;
    return pull < surveyed ? null : pull - surveyed;
  }

  /** The price at every vertex of a pull of the table, whatever is held. */
  private bareOf(pull: number): Float32Array {
    const held = this.heldAt(pull);
    if (held !== null) return this.heldPrices[held].slice();
    const vertices = this.vertices.graph.vertices;
    return this.pricing.of(this.survey.directions[pull], surveyRow(this.survey.cost, pull, vertices));
  }

  private pricedOnVertices(pull: number): PricedPull {
    const held = this.heldAt(pull);
    return { pull: this.priced[pull].pull, price: this.holding.rule(this.bareOf(pull), held), held };
  }

  /** No plan has fewer sections: what is held, and one more for the rest; one for every body that stands apart. */
  get fewest(): number {
    return Math.max(2, this.holding.held.length + 1, this.bodies);
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
    const trial = this.straightTrial();
    return trial && this.told(trial);
  }

  private straightTrial(): Trial | null {
    const { directions } = this.survey;
    const { positions: p } = this.request.coarse;
    const { areasMm2 } = this.pricing;
    let best: Trial | null = null;
    directions.forEach((along, d) => {
      const against = directions.findIndex((other) => dot(other, along) < -1 + 1e-7);
      if (against < d) return;
      // On the board, one of two that are not level could leave only after a lift.
      if (this.request.boardMm !== null && Math.abs(along[2]) > LEVEL) return;
      const places = Float64Array.from(areasMm2, (_, v) => dot(along, [p[3 * v], p[3 * v + 1], p[3 * v + 2]]));
      const middle = places.reduce((sum, place, v) => sum + place * areasMm2[v], 0) / sumOf(areasMm2);
      const pulls = [d, against].map((k) => this.pricedOnVertices(k));
      const label = Uint8Array.from(places, (place) => (place >= middle ? 0 : 1));
      const { graph, seamCost } = this.vertices;
      const energy = labellingEnergy({ graph, costs: pulls.map(({ price }) => price), seamCost }, label);
      if (!best || energy < best.energy)
        best = { pulls, regions: { of: Int32Array.from(label), label: [0, 1] }, energy };
    });
    return best;
  }

  /** A plan of this search with its lines drawn tight. */
  tightened(plan: Suggestion): Suggestion {
    const held = this.tight.get(plan) ?? this.drawnTight(plan);
    this.tight.set(plan, held);
    return held;
  }

  private drawnTight(plan: Suggestion): Suggestion {
    const { coarse: mesh, nearest, spacingMm, boardMm } = this.request;
    const { near } = this.vertices;
    const { label, before, after } = shortened({
      mesh,
      nearest,
      near,
      label: plan.label,
      prices: plan.prices,
      areasMm2: this.pricing.areasMm2,
      linePerMm: linePerMm(this.prices),
      lineWeight: lineWeights(this.request, this.prices),
      edgeMm: spacingMm,
      boardMm,
    });
    return { ...plan, label, energy: plan.energy - (before - after) };
  }

  private exactTrial(sections: number, ctx: JobContext): Trial {
    const cheapest = this.bestTrial(Math.max(this.fewest, sections), ctx);
    const known = this.exact.get(sections);
    if (known) return known;
    if (sections <= this.fewest) {
      return cheapest.regions.label.length < sections ? (this.straightTrial() ?? cheapest) : cheapest;
    }
    // No search ended with so many: the largest section of the next smaller plan is split.
    const fewer = this.exactTrial(sections - 1, ctx);
    const areas = this.sizes(fewer.regions).map((size, r) => (this.holds(fewer, r) ? 0 : size.areaMm2));
    return this.noted(this.split(fewer, areas.indexOf(Math.max(...areas))));
  }

  /** Keeps the cheapest plan of every number of sections; scraps make no section. */
  private noted(trial: Trial): Trial {
    const count = trial.regions.label.length;
    const areas = this.sizes(trial.regions).map(({ areaMm2 }) => areaMm2);
    const least = LEAST_SHARE * areas.reduce((sum, areaMm2) => sum + areaMm2, 0);
    const fewer = this.exact.get(count - 1);
    const saved = fewer ? this.paid(fewer) - this.paid(trial) : Infinity;
    const scrap = Math.min(...areas) < least && saved < this.prices.setupPerSection + this.prices.waitPerSection;
    if (scrap) return trial;
    const held = this.exact.get(count);
    if (!held || this.paid(trial) < this.paid(held)) this.exact.set(count, trial);
    return trial;
  }

  private bestTrial(wanted: number, ctx: JobContext): Trial {
    const sections = Math.max(this.fewest, wanted);
    const known = this.found.get(sections);
    if (known) return known;
    const starts = this.startingSets(sections).map((set) => ({ set, pulls: this.priced, labels: null }));
    const trials = trialsFrom(this.coarse, starts, sections, this.request.effort.turns, ctx);
    trials.sort((a, b) => a.energy - b.energy);
    const { careful, finalists: kept } = this.request.effort;
    const fewer = sections > this.fewest ? this.bestTrial(sections - 1, ctx) : null;
    // All that is worked out on the vertices, side by side.
    const chosen = trials.slice(0, kept).map((trial) => this.onVertices(trial));
    if (this.given) chosen.push(this.given);
    const plugs = fewer && careful ? this.plugStarts(fewer) : [];
    const worked = trialsFrom(this.vertices, [...chosen, ...plugs], sections, 0, ctx);
    const finalists = worked.slice(0, chosen.length);
    const candidates = careful ? [...finalists, this.turned(least(finalists), sections, ctx)] : finalists;
    if (fewer) {
      const plugged = worked.slice(chosen.length).filter((trial) => this.savesASection(trial, fewer));
      candidates.unshift(fewer, this.handier(fewer), ...plugged);
    }
    for (const trial of candidates) this.noted(trial);
    const best = candidates.reduce((held, trial) => (this.paid(trial) < this.paid(held) ? trial : held));
    this.found.set(sections, best);
    return best;
  }

  private told(trial: Trial): Suggestion {
    const held = this.toldOf.get(trial) ?? { ...suggestionOf(trial), handling: this.handlingOf(trial) };
    this.toldOf.set(trial, held);
    return held;
  }

  private paid(trial: Trial): number {
    return trial.energy + this.handlingOf(trial);
  }

  private handlingOf(trial: Trial): number {
    return this.sizes(trial.regions).reduce((sum, size) => sum + handlingCost(size, this.prices), 0);
  }

  /** Area and greatest extent of each region. */
  private sizes(regions: Regions): readonly RegionSize[] {
    const held =
      this.sizesOf.get(regions) ?? regionSizes(regions, this.request.coarse.positions, this.pricing.areasMm2);
    this.sizesOf.set(regions, held);
    return held;
  }

  /** The plan with its unhandiest section split in two along a short loop; both keep its pull. */
  private handier(trial: Trial): Trial {
    const costs = this.sizes(trial.regions).map((size, r) =>
      this.holds(trial, r) ? 0 : handlingCost(size, this.prices),
    );
    const worst = costs.indexOf(Math.max(...costs));
    return costs[worst] > 0 ? this.split(trial, worst) : trial;
  }

  private holds({ pulls, regions }: Trial, region: number): boolean {
    return pulls[regions.label[region]].held !== null;
  }

  /** The plan with one section split in two. */
  private split(trial: Trial, region: number): Trial {
    const { graph, seamCost } = this.vertices;
    const { positions } = this.request.coarse;
    const regions = splitRegion(graph, seamCost, trial.regions, region, positions, this.pricing.areasMm2);
    let seam = 0;
    for (let e = 0; e < seamCost.length; e++) {
      const [a, b] = [graph.edges[2 * e], graph.edges[2 * e + 1]];
      const parted = regions.of[a] !== regions.of[b];
      if (parted && trial.regions.of[a] === trial.regions.of[b]) seam += seamCost[e];
    }
    return { pulls: trial.pulls, regions, energy: trial.energy + seam };
  }

  /** Sets of pulls to start from: the cheapest pairs, threes and so on, and plain contrary pairs along the axes. */
  private startingSets(sections: number): (readonly number[])[] {
    const { directions } = this.survey;
    const { starts } = this.request.effort;
    const sets: (readonly number[])[] = [];
    const { fewest } = this;
    for (let size = fewest; size <= Math.max(fewest, Math.min(sections, 4)); size++) {
      const keep = size === sections ? starts : Math.ceil(starts / 2);
      for (const { pulls } of this.chosenSets(size).slice(0, keep)) sets.push(pulls);
    }
    if (sections > 2 || this.holding.held.length > 0) return sets;
    return [...sets, ...axisPairs(directions, this.survey.axes)];
  }

  /** The cheapest sets of so many pulls, cheapest first. */
  private chosenSets(size: number): readonly PullSet[] {
    const held = this.chosen.get(size) ?? this.chooser.sets(size, this.request.effort.starts);
    this.chosen.set(size, held);
    return held;
  }

  /** The same plan, to be worked out on the vertices. */
  private onVertices({ regions, pulls: taken }: Trial): TrialStart {
    const pulls = regions.label.map((l) => this.pricedOnVertices(this.priced.indexOf(taken[l])));
    return { set: pulls.map((_, r) => r), pulls, labels: this.patches.of.map((patch) => regions.of[patch]) };
  }

  /** A plan with a plug in each of its dearest hollows, one at a time. */
  private plugStarts(trial: Trial): TrialStart[] {
    const { of, label: labels } = trial.regions;
    const pulls = labels.map((l) => trial.pulls[l]);
    const priceAt = Float32Array.from(of, (r, v) => pulls[r].price[v]);
    return hollowsOf(of, priceAt, this.vertices.near, HOLLOWS).map((members): TrialStart => {
      const start = of.slice();
      for (const v of members) start[v] = pulls.length;
      const plug = this.pricedOnVertices(this.cheapestFor(Uint32Array.from(members)));
      return { set: [...pulls, plug].map((_, s) => s), pulls: [...pulls, plug], labels: start };
    });
  }

  /** Does a plan save more than the section costs that it has more than another? */
  private savesASection(trial: Trial, fewer: Trial): boolean {
    return this.paid(trial) < this.paid(fewer) - this.prices.setupPerSection - this.prices.waitPerSection;
  }

  /** The surveyed pull that costs some vertices least. */
  private cheapestFor(members: Uint32Array): number {
    const { directions, cost } = this.survey;
    const vertices = this.vertices.graph.vertices;
    let best = 0;
    let least = Infinity;
    directions.forEach((pull, d) => {
      const sum = this.pricing.sumOf(pull, surveyRow(cost, d, vertices), members, least);
      if (sum >= least) return;
      least = sum;
      best = d;
    });
    return best;
  }

  /** Turns each region's pull a little to where the region pays least for it, and labels once more. */
  private turned(trial: Trial, sections: number, ctx: JobContext): Trial {
    const pulls = trial.regions.label.map((l) => trial.pulls[l]);
    const costs = regionCosts(trial, (r) => pulls[r].price);
    // Gains below this are the survey's own noise.
    const least = LEAST_GAIN * trial.energy;
    for (const turnDeg of TURNS_DEG) {
      const tried = pulls.flatMap(({ pull }, r) =>
        (costs[r] > 0 && pulls[r].held === null ? this.sidesOf(pull, turnDeg) : []).map((side) => ({ r, side })),
      );
      const surveyed = this.pricing.surveyAll(
        tried.map(({ side }) => side),
        ctx,
      );
      for (const { price } of surveyed) this.holding.rule(price, null);
      tried.forEach(({ r }, k) => {
        const cost = costsAt(trial, surveyed[k].price)[r];
        if (cost >= costs[r] * 0.99 - least) return;
        costs[r] = cost;
        pulls[r] = surveyed[k];
      });
    }
    const next = label(this.vertices, pulls, sections, trial.regions.of);
    return next.energy < trial.energy ? next : trial;
  }

  /** Pulls tilted to six sides. */
  private sidesOf(pull: Direction, turnDeg: number): Direction[] {
    return Array.from({ length: 6 }, (_, side) => turnedBy(pull, turnDeg, side * 60));
  }
}

function sumOf(values: Float32Array): number {
  return values.reduce((sum, value) => sum + value, 0);
}

function least(trials: readonly Trial[]): Trial {
  return trials.reduce((best, trial) => (trial.energy < best.energy ? trial : best));
}

/** A pull is level where it rises or sinks no more than this, as a sine. */
const LEVEL = 0.02;
/** Hollows of a plan that a plug is tried in. */
const HOLLOWS = 2;
/** A section smaller than this share of the jacket must save what a section costs. */
const LEAST_SHARE = 0.03;
/** A pull is turned for no less than this share of a plan's cost. */
const LEAST_GAIN = 0.003;
/** Turns tried on each pull, degrees, coarse to fine. */
const TURNS_DEG = [5, 2];

/** Pairs of contrary pulls along the plain axes and the body's own, where both were surveyed. */
function axisPairs(directions: readonly Direction[], own: readonly Direction[]): (readonly [number, number])[] {
  const axes: readonly Direction[] = [[0, 0, 1], [1, 0, 0], [0, 1, 0], ...own];
  const pairs = new Map<string, readonly [number, number]>();
  for (const axis of axes) {
    const along = directions.findIndex((d) => dot(d, axis) > 1 - 1e-7);
    const against = directions.findIndex((d) => dot(d, axis) < -1 + 1e-7);
    if (along >= 0 && against >= 0) pairs.set([along, against].sort((a, b) => a - b).join(), [along, against]);
  }
  return [...pairs.values()];
}
