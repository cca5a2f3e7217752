/** What pulls cost at every vertex of the survey's mesh, and what lines cost between them, in money. */

import type { JobContext } from "../../job/context.ts";
import type { Kernel } from "../../job/team.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import type { Direction } from "../../space/directions.ts";
import { type SurveyCost, surveyDirections, surveyRow } from "../../survey/survey.ts";
import { type Neighbours, neighbours, type VertexGraph } from "../graph/graph.ts";
import { type Patches, patchSums } from "../graph/patches.ts";
import { linePerMm, type PartingPrices } from "./price.ts";
import { type SuggestRequest, surveyRequest } from "./request.ts";

/** How much more a volume weighs that is too thick to fill: enough to be worth a long detour of the line. */
export const DEEP_WEIGHT = 20;
/** A pull that sinks by more than this, as a sine, leaves downwards. */
const LEVEL = -0.02;
/** A section moves about so far before it stands clear, mm: how high it must be to leave downwards above the board. */
const LOWER_MM = 200;
/** A patch short of the draft is charged as a lock this deep, mm. */
const DRAFT_DEPTH_MM = 12;

/** The seams of a graph, priced: what of a labelling stays the same from trial to trial. */
export interface Seams {
  readonly graph: VertexGraph;
  readonly near: Neighbours;
  readonly seamCost: Float32Array;
}

export function seamsOf(graph: VertexGraph, prices: PartingPrices): Seams {
  return { graph, near: neighbours(graph), seamCost: graph.seamMm.map((mm) => mm * linePerMm(prices)) };
}

/** How many times a line counts at each vertex, by the zones to keep clear; null where it is once everywhere. */
export function lineWeights({ clear }: SuggestRequest, { keepClearWeight }: PartingPrices): Float32Array | null {
  return clear && Float32Array.from(clear, (within) => (within ? keepClearWeight : 1));
}

/** What of a request prices depend on. */
export type PricingTerms = Pick<SuggestRequest, "coarse" | "draftDeg" | "boardMm" | "mayLift">;

/** Prices pulls on the vertices of the survey's mesh. */
export class Pricing {
  readonly areasMm2: Float32Array;
  private readonly normals: Float32Array;
  private readonly leastFacing: number;

  constructor(
    private readonly terms: PricingTerms,
    private readonly prices: PartingPrices,
  ) {
    const { normals, areasMm2 } = vertexNormals(terms.coarse);
    this.normals = normals;
    this.areasMm2 = areasMm2;
    this.leastFacing = Math.sin((terms.draftDeg * Math.PI) / 180);
  }

  /** The price of a pull at every vertex, from its locks there. */
  of(pull: Direction, cost: SurveyCost): Float32Array {
    const out = new Float32Array(cost.lockMm3.length);
    const [x, y, z] = pull;
    for (let v = 0; v < out.length; v++) out[v] = this.priceAt(v, x, y, z, cost.lockMm3[v], cost.deepMm3[v]);
    return out;
  }

  /**
   * What a pull costs some of the vertices together.
   * @param limit no price is below nothing: from here on the sum is not of interest, and is not finished
   */
  sumOf(pull: Direction, { lockMm3, deepMm3 }: SurveyCost, members: Uint32Array, limit = Infinity): number {
    let sum = 0;
    const [x, y, z] = pull;
    for (let k = 0; k < members.length && sum < limit; k++) {
      const v = members[k];
      sum += this.priceAt(v, x, y, z, lockMm3[v], deepMm3[v]);
    }
    return sum;
  }

  /** The price at a vertex of the pull (x, y, z), whose locks there have these volumes. */
  private priceAt(v: number, x: number, y: number, z: number, lockMm3: number, deepMm3: number): number {
    const { normals: n, leastFacing } = this;
    const facing = x * n[3 * v] + y * n[3 * v + 1] + z * n[3 * v + 2];
    // A section that comes down to the board on its way leaves only after a lift.
    if (!this.terms.mayLift && z < LEVEL && this.heightOf(v) < LOWER_MM * -z)
      return this.prices.fillPerMm3 * DEEP_WEIGHT * this.areasMm2[v] * LOWER_MM;
    const shortMm3 = facing < leastFacing ? this.areasMm2[v] * DRAFT_DEPTH_MM * (leastFacing - facing) : 0;
    return this.prices.fillPerMm3 * (lockMm3 + (DEEP_WEIGHT - 1) * deepMm3 + shortMm3);
  }

  private heightOf(vertex: number): number {
    const { coarse, boardMm } = this.terms;
    return boardMm === null ? Infinity : coarse.positions[3 * vertex + 2] - boardMm;
  }
}

/** Prices pulls that it surveys itself. */
export class SurveyPricing extends Pricing {
  constructor(
    private readonly request: SuggestRequest,
    prices: PartingPrices,
  ) {
    super(request, prices);
  }

  /** Surveys and prices several pulls side by side. */
  surveyAll(pulls: readonly Direction[], ctx: JobContext): PricedPull[] {
    const cost = surveyDirections(surveyRequest(this.request, pulls), { ...ctx, progress: () => {} });
    return pulls.map((pull, row) => ({
      pull,
      price: this.of(pull, surveyRow(cost, row, this.areasMm2.length)),
      held: null,
    }));
  }
}

/** One pull to be priced on patches of the surface. */
interface PatchShare {
  readonly terms: PricingTerms;
  readonly prices: PartingPrices;
  readonly patches: Pick<Patches, "of">;
  readonly pull: Direction;
  /** Its locks at every vertex. */
  readonly cost: SurveyCost;
  /** Out: its price on every patch. */
  readonly priceOf: Float32Array;
}

export const patchKernel: Kernel<PatchShare> = {
  name: "prices on patches",
  run({ terms, prices, patches, pull, cost, priceOf }) {
    priceOf.fill(0);
    patchSums(patches, new Pricing(terms, prices).of(pull, cost), priceOf);
  },
};

/** A pull and its price at every vertex (or patch). */
export interface PricedPull {
  readonly pull: Direction;
  readonly price: Float32Array;
  /** The held section whose pull this is; null for one that any section may take. */
  readonly held: number | null;
}
