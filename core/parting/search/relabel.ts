/** The sections of a plan laid again on another body: the same pulls, no more sections, the lines where they cost least. */
import type { JobContext } from "../../job/context.ts";
import { type Direction, sameDirection } from "../../space/directions.ts";
import { labellingEnergy } from "../graph/energy.ts";
import { vertexGraph } from "../graph/graph.ts";
import { labelVertices } from "../graph/labelling.ts";
import { mergeRegions, mergeSmall, piecesOf, regionSizes, regionsOf } from "../graph/regions.ts";
import { splitRegion } from "../graph/split.ts";
import { shortened } from "../lines/shorten.ts";
import { linePerMm, type PartingPrices } from "./price.ts";
import { lineWeights, SurveyPricing, seamsOf } from "./pricing.ts";
import type { SuggestRequest } from "./request.ts";
import type { Suggestion } from "./trial.ts";

/**
 * @param sections at most so many; just so many where `exact`
 * @param drawn the section of every vertex as it was before: it stays so where the lines would leave less than two
 * @param leastMm2 no section is smaller, mm2
 * @param exact what is short of them is split off the largest section; else only sections that shared a pull are
 */
export function relabelled(
  request: SuggestRequest,
  pulls: readonly Direction[],
  sections: number,
  exact: boolean,
  drawn: Uint8Array,
  leastMm2: number,
  prices: PartingPrices,
  ctx: JobContext,
): Suggestion {
  const { coarse: mesh, nearest, spacingMm: edgeMm, boardMm } = request;
  const lineWeight = lineWeights(request, prices);
  const pricing = new SurveyPricing(request, prices);
  const { graph, near, seamCost } = seamsOf(vertexGraph(mesh, lineWeight), prices);
  const distinct = pulls.filter((pull, k) => pulls.findIndex((other) => sameDirection(pull, other)) === k);
  const costs = pricing.surveyAll(distinct, ctx).map(({ price }) => price);
  const problem = { graph, costs, seamCost };
  const most = Math.max(sections, piecesOf(near));
  const labelled = mergeRegions(problem, regionsOf(labelVertices(problem), near), most);
  let regions = mergeSmall(problem, labelled, pricing.areasMm2, leastMm2);
  if (regions.label.length < Math.min(2, pulls.length)) {
    const label = pulls.map((pull) => distinct.findIndex((other) => sameDirection(pull, other)));
    regions = { of: Int32Array.from(drawn), label };
  }
  const twice = pulls.length - distinct.length;
  const wanted = exact ? sections : Math.min(sections, regions.label.length + twice);
  while (regions.label.length < wanted) {
    const areas = regionSizes(regions, mesh.positions, pricing.areasMm2).map(({ areaMm2 }) => areaMm2);
    const largest = areas.indexOf(Math.max(...areas));
    regions = splitRegion(graph, seamCost, regions, largest, mesh.positions, pricing.areasMm2);
  }
  const loose = Uint8Array.from(regions.of);
  const own = regions.label.map((l) => costs[l]);
  const tight = {
    mesh,
    nearest,
    near,
    prices: own,
    areasMm2: pricing.areasMm2,
    linePerMm: linePerMm(prices),
    lineWeight,
    edgeMm,
    boardMm,
  };
  const { label, before, after } = shortened({ ...tight, label: loose });
  const ofPulls = Uint8Array.from(loose, (r) => regions.label[r]);
  return {
    pulls: regions.label.map((l) => distinct[l]),
    label,
    energy: labellingEnergy(problem, ofPulls) - (before - after),
    handling: 0,
    held: regions.label.map(() => null),
    prices: own,
  };
}
