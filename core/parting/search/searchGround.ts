/**
 * What plans are sought on: the survey's pulls and those of held sections, priced on patches of the surface for a quick
 * look round, and on its vertices for the answer.
 */
import type { JobContext } from "../../job/context.ts";
import { shared } from "../../job/team.ts";
import { type Direction, dot } from "../../space/directions.ts";
import { surveyRow } from "../../survey/survey.ts";
import { vertexGraph } from "../graph/graph.ts";
import { type Patches, patchesOf, patchSums } from "../graph/patches.ts";
import { piecesOf, type RegionSize, type Regions, regionSizes } from "../graph/regions.ts";
import type { TrialStart } from "./alternate.ts";
import { PullChooser, type PullSet } from "./choosePulls.ts";
import { type Given, Holding } from "./held.ts";
import { handlingCost, type PartingPrices } from "./price.ts";
import { lineWeights, type PricedPull, patchKernel, type Seams, SurveyPricing, seamsOf } from "./pricing.ts";
import type { SuggestRequest, SurveyTable } from "./request.ts";
import type { Trial } from "./trial.ts";

/** Vertices to a patch of the search. */
const PATCH_VERTICES = 6;

export class SearchGround {
  readonly pricing: SurveyPricing;
  readonly vertices: Seams;
  readonly patches: Patches;
  readonly coarse: Seams;
  readonly holding: Holding;
  /** A plan that was given as it lies, its pulls priced on the vertices. */
  readonly given: TrialStart | null;
  /** Surveyed pulls, then the held ones, priced on the patches. */
  readonly priced: readonly PricedPull[];
  /** No plan has fewer sections: what is held, and one more for the rest; one for every body that stands apart. */
  readonly fewest: number;
  private readonly heldPrices: readonly Float32Array[];
  private readonly sizesOf = new WeakMap<Regions, readonly RegionSize[]>();
  private readonly chooser: PullChooser;
  private readonly chosen = new Map<number, readonly PullSet[]>();

  constructor(
    readonly request: SuggestRequest,
    readonly survey: SurveyTable,
    readonly prices: PartingPrices,
    ctx: JobContext,
    /** A plan as it lies, of which something is held while the rest is looked for. */
    given: Given | null = null,
  ) {
    const held = given?.held ?? [];
    this.pricing = new SurveyPricing(request, prices);
    this.vertices = seamsOf(vertexGraph(request.coarse, lineWeights(request, prices)), prices);
    this.patches = patchesOf(this.vertices.graph, this.vertices.near, PATCH_VERTICES);
    this.coarse = seamsOf(this.patches.graph, prices);
    this.fewest = Math.max(2, held.length + 1, piecesOf(this.vertices.near));
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
    const table = new Float32Array(ctx.team.buffer(4 * pulls.length * count));
    const rowOf = (pull: number) => table.subarray(pull * count, (pull + 1) * count);
    this.priceOnPatches(rowOf, ctx);
    this.heldPrices.forEach((price, h) => {
      patchSums(this.patches, price, rowOf(survey.directions.length + h));
    });
    this.priced = pulls.map((pull, d) => {
      return { pull, price: onPatches.rule(rowOf(d), this.heldAt(d)), held: this.heldAt(d) };
    });
    const always = held.map((_, h) => survey.directions.length + h);
    this.chooser = new PullChooser(table, pulls.length, count, always);
    this.given = given && this.asGiven(given, ctx);
  }

  /** Prices the surveyed pulls on the patches. @param rowOf where each pull's go */
  private priceOnPatches(rowOf: (pull: number) => Float32Array, ctx: JobContext): void {
    const { coarse, draftDeg, boardMm, mayLift } = this.request;
    const patches = { of: shared(ctx.team, this.patches.of) };
    const about = { terms: { coarse, draftDeg, boardMm, mayLift }, prices: this.prices, patches };
    const { directions, cost } = this.survey;
    const shares = directions.map((pull, d) => ({
      ...about,
      pull,
      cost: surveyRow(cost, d, this.vertices.graph.vertices),
      priceOf: rowOf(d),
    }));
    ctx.team.run(patchKernel, shares, () => ctx.checkCancelled());
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

  /** A pull of the table, priced on the vertices. */
  pricedOnVertices(pull: number): PricedPull {
    const held = this.heldAt(pull);
    return { pull: this.priced[pull].pull, price: this.holding.rule(this.bareOf(pull), held), held };
  }

  /** The same plan, to be worked out on the vertices. */
  onVertices({ regions, pulls: taken }: Trial): TrialStart {
    const pulls = regions.label.map((l) => this.pricedOnVertices(this.priced.indexOf(taken[l])));
    return { set: pulls.map((_, r) => r), pulls, labels: this.patches.of.map((patch) => regions.of[patch]) };
  }

  /** Sets of pulls to start from: the cheapest pairs, threes and so on, and plain contrary pairs along the axes. */
  startingSets(sections: number): (readonly number[])[] {
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

  /** Area and greatest extent of each region. */
  sizes(regions: Regions): readonly RegionSize[] {
    const held =
      this.sizesOf.get(regions) ?? regionSizes(regions, this.request.coarse.positions, this.pricing.areasMm2);
    this.sizesOf.set(regions, held);
    return held;
  }

  /** What sections that are too heavy or too large to handle cost. */
  handlingOf({ regions }: Trial): number {
    return this.sizes(regions).reduce((sum, size) => sum + handlingCost(size, this.prices), 0);
  }

  /** What a plan costs but for its sections' set-up. */
  paid(trial: Trial): number {
    return trial.energy + this.handlingOf(trial);
  }

  /** The surveyed pull that costs some vertices least. */
  cheapestFor(members: Uint32Array): number {
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
}

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
