/**
 * A plan on offer: what a suggestion would cost, worked out on the survey's own mesh. It is an estimate: only the plan
 * that is taken is measured and proven on the jacket itself.
 */
import { areaAndVolume, boxSize, meshBox, type TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../survey/directions.ts";
import { cutSections, type PartingLine } from "./cut.ts";
import { vertexAt } from "./hand/surface.ts";
import { networkLengthMm } from "./network.ts";
import { type CostParts, costParts, type PartingPrices, type PricedPlan, totalCost } from "./price.ts";
import { type SuggestRequest, surveyPull } from "./request.ts";
import { labelsOf, sectionPotentials } from "./sections.ts";
import type { Suggestion } from "./trial.ts";

export interface PlanOffer {
  readonly sections: readonly {
    readonly pull: Direction;
    readonly areaMm2: number;
    readonly greatestMm: number;
    readonly massG: number;
    readonly fillMm3: number;
    /** Space too thick to fill: above 0, the plan will not come off as it is. */
    readonly deepMm3: number;
  }[];
  readonly lineMm: number;
  readonly fillMm3: number;
  readonly deepMm3: number;
  readonly parts: CostParts;
  readonly cost: number;
  /** Section of each vertex of the survey's mesh, for its picture. */
  readonly label: Uint8Array;
  readonly lines: readonly PartingLine[];
}

/** Locks of every section of a plan, whose potentials on the survey's mesh are given, mm3. */
export type LockGuess = (
  pulls: readonly Direction[],
  potentials: readonly Float32Array[],
) => readonly { readonly fillMm3: number; readonly deepMm3: number }[];

export function offerOf(
  request: SuggestRequest,
  found: Suggestion,
  prices: PartingPrices,
  locksOf: LockGuess,
): PlanOffer {
  const { coarse, spacingMm } = request;
  const suggestion = lowestFirst(found, coarse);
  const locked = suggestion.pulls.map(() => new Uint8Array(suggestion.label.length));
  const potentials = sectionPotentials(coarse, suggestion.label, suggestion.pulls, locked, request.clear, spacingMm);
  const { skins, lines, lengthMm } = cutSections(coarse, potentials);
  const locks = locksOf(suggestion.pulls, potentials);
  const sections = suggestion.pulls.map((pull, s) => {
    const { areaMm2 } = areaAndVolume(skins[s]);
    const { fillMm3, deepMm3 } = locks[s];
    const greatestMm = areaMm2 > 0 ? Math.max(...boxSize(meshBox(skins[s]))) : 0;
    return { pull, areaMm2, greatestMm, massG: areaMm2 * prices.shellGPerMm2, fillMm3, deepMm3 };
  });
  const plan: PricedPlan = {
    fillMm3: sections.reduce((sum, section) => sum + section.fillMm3, 0),
    lineMm: lengthMm,
    clearMm: clearLengthMm(request, lines),
    sections,
  };
  const parts = costParts(plan, prices);
  return {
    sections,
    lineMm: lengthMm,
    fillMm3: plan.fillMm3,
    deepMm3: sections.reduce((sum, section) => sum + section.deepMm3, 0),
    parts,
    cost: totalCost(parts),
    label: suggestion.label,
    lines,
  };
}

/** How much of some lines runs through zones to keep clear, mm. */
function clearLengthMm({ coarse: mesh, nearest, clear }: SuggestRequest, lines: readonly PartingLine[]): number {
  if (!clear) return 0;
  const surface = { mesh, nearest };
  const network = lines.map((line) => ({
    points: Float64Array.from(line.points),
    closed: line.closed,
    left: 0,
    right: 1,
  }));
  return networkLengthMm(network, (x, y, z) => clear[vertexAt(surface, x, y, z)]);
}

/** Numbers the sections from the lowest up, as they are built. */
function lowestFirst(suggestion: Suggestion, mesh: TriangleMesh): Suggestion {
  const sum = suggestion.pulls.map(() => 0);
  const count = suggestion.pulls.map(() => 0);
  suggestion.label.forEach((s, v) => {
    sum[s] += mesh.positions[3 * v + 2];
    count[s]++;
  });
  const height = (s: number) => sum[s] / Math.max(1, count[s]);
  const order = suggestion.pulls.map((_, s) => s).sort((a, b) => height(a) - height(b) || a - b);
  const number = order.map((_, s) => order.indexOf(s));
  return {
    ...suggestion,
    pulls: order.map((s) => suggestion.pulls[s]),
    label: suggestion.label.map((s) => number[s]),
  };
}

/** Deep locks of fewer lines than this, as deep as may be filled, do not count. */
const NOISE_LINES = 12;

/** Deep locks no larger than this are the survey's own roughness. */
export function deepFloorMm3(spacingMm: number, fillDepthMm: number): number {
  return NOISE_LINES * spacingMm ** 2 * fillDepthMm;
}

/** Space of a suggestion that would be too thick to fill, by the survey, mm3. */
export function deepMm3Of(request: SuggestRequest, { pulls, label }: Suggestion): number {
  return pulls.reduce((sum, pull, s) => sum + surveyedLocks(request, pull, label, s).deepMm3, 0);
}

/** Locks by the survey alone, column by column, mm3. */
export function guessBySurvey(request: SuggestRequest): LockGuess {
  return (pulls, potentials) => {
    const label = labelsOf(potentials);
    return pulls.map((pull, s) => surveyedLocks(request, pull, label, s));
  };
}

/** Locks of a section by the survey: what can be filled, and what is too thick to. */
function surveyedLocks(request: SuggestRequest, pull: Direction, label: Uint8Array, section: number) {
  const cost = surveyPull(request, pull);
  let all = 0;
  let deepMm3 = 0;
  for (let v = 0; v < label.length; v++) {
    if (label[v] !== section) continue;
    all += cost.lockMm3[v];
    deepMm3 += cost.deepMm3[v];
  }
  const least = deepFloorMm3(request.spacingMm, request.fillDepthMm);
  return { fillMm3: Math.max(0, all - deepMm3), deepMm3: deepMm3 > least ? deepMm3 : 0 };
}
