/** Sections for the user's own pulls. */
import type { JobContext } from "../../job/context.ts";
import type { Direction } from "../../space/directions.ts";
import { labellingEnergy } from "../graph/energy.ts";
import { vertexGraph } from "../graph/graph.ts";
import { labelVertices } from "../graph/labelling.ts";
import { onePerLabel, regionsOf } from "../graph/regions.ts";
import { shortened } from "../lines/shorten.ts";
import { linePerMm, type PartingPrices } from "./price.ts";
import { lineWeights, SurveyPricing, seamsOf } from "./pricing.ts";
import type { SuggestRequest } from "./request.ts";
import { labelsOfRegions, type Suggestion } from "./trial.ts";

/** Labels for given pulls: one section a pull, in their order, with lines drawn tight. */
export function sectionsForPulls(
  request: SuggestRequest,
  pulls: readonly Direction[],
  prices: PartingPrices,
  ctx: JobContext,
): Suggestion {
  const { coarse: mesh, nearest, spacingMm: edgeMm, boardMm } = request;
  const lineWeight = lineWeights(request, prices);
  const pricing = new SurveyPricing(request, prices);
  const { graph, near, seamCost } = seamsOf(vertexGraph(mesh, lineWeight), prices);
  const costs = pricing.surveyAll(pulls, ctx).map(({ price }) => price);
  const problem = { graph, costs, seamCost };
  const loose = labelsOfRegions(onePerLabel(problem, regionsOf(labelVertices(problem), near)));
  const { areasMm2 } = pricing;
  const tight = {
    mesh,
    nearest,
    near,
    prices: costs,
    areasMm2,
    linePerMm: linePerMm(prices),
    lineWeight,
    edgeMm,
    boardMm,
  };
  const { label, before, after } = shortened({ ...tight, label: loose });
  return {
    pulls,
    label,
    energy: labellingEnergy(problem, loose) - (before - after),
    handling: 0,
    held: pulls.map(() => null),
    prices: costs,
  };
}
