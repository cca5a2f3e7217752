/** Plans side by side: what each number of sections costs, each proven, and why one would take it. */
import type { JobContext } from "../../job/context.ts";
import { siliconeMassG } from "../../materials/silicone.ts";
import { boxSize, meshBox } from "../../mesh/mesh.ts";
import { vertexAt } from "../../parting/layout/surface.ts";
import type { PartingLine } from "../../parting/lines/cut.ts";
import { networkLengthMm } from "../../parting/lines/network.ts";
import {
  type CostParts,
  costParts,
  type PartingPrices,
  type PricedPlan,
  totalCost,
} from "../../parting/search/price.ts";
import type { SuggestRequest } from "../../parting/search/request.ts";
import type { Direction } from "../../space/directions.ts";
import { formatMass } from "../../units/index.ts";
import type { SectionCount } from "../document/document.ts";
import type { ProvenParting } from "../proof/parting.ts";

export interface PlanOffer {
  readonly sections: readonly {
    readonly pull: Direction;
    readonly areaMm2: number;
    readonly greatestMm: number;
    readonly massG: number;
    readonly fillMm3: number;
    readonly releases: boolean;
  }[];
  readonly lineMm: number;
  readonly fillMm3: number;
  /** Sections that do not come off. */
  readonly held: number;
  /** Does any section leave only after a lift? */
  readonly lifted: boolean;
  readonly parts: CostParts;
  readonly cost: number;
  /** Section of each vertex of the survey's mesh, for its picture. */
  readonly label: Uint8Array;
  readonly lines: readonly PartingLine[];
}

export interface ComparedPlan extends PlanOffer {
  /** Hours of hands and of waiting that its sections and lines take. */
  readonly hours: number;
  /** Against the plan with fewer sections before it, in a sentence. */
  readonly reason: string;
}

/** Numbers of sections that are compared. */
export const COMPARED_COUNTS: readonly SectionCount[] = [2, 3, 4, 5, 6];

/** A proven plan with its cost in the prices' own money. */
export function offerOf(plan: ProvenParting, survey: SuggestRequest, prices: PartingPrices): PlanOffer {
  const sections = plan.sections.map(({ pull, areaMm2, fillMm3, releases, skin }) => ({
    ...{ pull, areaMm2, fillMm3, releases },
    greatestMm: Math.max(...boxSize(meshBox(skin))),
    massG: areaMm2 * prices.shellGPerMm2,
  }));
  const lifted = plan.sections.some((section) => section.lifted);
  const clearMm = clearLengthMm(survey, plan.drawn);
  const laidMm3 = plan.clayMm3 + plan.plugMm3;
  const priced: PricedPlan = {
    fillMm3: plan.fillMm3,
    laidMm3,
    lineMm: plan.partingLengthMm,
    clearMm,
    sections,
    lifted,
  };
  const parts = costParts(priced, prices);
  return {
    ...{ sections, lifted, parts },
    lineMm: plan.partingLengthMm,
    fillMm3: plan.fillMm3,
    held: Math.max(sections.filter(({ releases }) => !releases).length, plan.circle.length),
    cost: totalCost(parts),
    label: plan.surveyLabel,
    lines: plan.lines,
  };
}

/** How much of some lines runs through zones to keep clear, mm. */
function clearLengthMm({ coarse: mesh, nearest, clear }: SuggestRequest, lines: readonly PartingLine[]): number {
  if (!clear) return 0;
  const surface = { mesh, nearest };
  const network = lines.map(({ points, closed }) => ({ points: Float64Array.from(points), closed, left: 0, right: 1 }));
  return networkLengthMm(network, (x, y, z) => clear[vertexAt(surface, x, y, z)]);
}

/**
 * Offers the best plan of every number of sections, each as soon as it is proven.
 * @param plan works out and proves the plan of so many sections
 */
export async function comparePlans(
  plan: (sections: SectionCount) => ProvenParting,
  offer: (plan: ProvenParting) => PlanOffer,
  hoursOf: (plan: PlanOffer) => number,
  ctx: JobContext,
  tell: (plan: ComparedPlan) => Promise<void> | void = () => {},
): Promise<ComparedPlan[]> {
  const plans: ComparedPlan[] = [];
  for (const [k, count] of COMPARED_COUNTS.entries()) {
    ctx.checkCancelled();
    ctx.progress("compare", k / COMPARED_COUNTS.length);
    const found = offer(plan(count));
    // The same plan again: more sections than the piece gives room for.
    if (plans.some(({ sections }) => sections.length === found.sections.length)) continue;
    const hours = hoursOf(found);
    const told = { ...found, hours, reason: reasonFor({ ...found, hours }, plans.at(-1)) };
    plans.push(told);
    await tell(told);
  }
  ctx.progress("compare", 1);
  return plans;
}

const ORDINALS = ["", "", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];

/** Why one would or would not take a plan rather than the one with fewer sections. */
export function reasonFor(
  plan: PlanOffer & { readonly hours: number },
  fewer: (PlanOffer & { readonly hours: number }) | undefined,
): string {
  if (!fewer) return plan.held > 0 ? "With so few, some of it is held." : "The fewest sections there can be.";
  const nth = ORDINALS[plan.sections.length] ?? `${plan.sections.length}th`;
  const savedG = siliconeMassG(fewer.fillMm3 - plan.fillMm3);
  const hours = plan.hours - fewer.hours;
  const freed = fewer.held > 0 && plan.held === 0 ? " frees what was held," : "";
  const fill =
    Math.abs(savedG) < 10
      ? " saves no fill"
      : ` ${savedG > 0 ? "saves" : "takes"} ${formatMass(Math.abs(savedG))} of fill`;
  const time = `${hours >= 0 ? "costs" : "saves"} ${Math.abs(hours).toFixed(1)} h`;
  return `A ${nth} section${freed}${fill} and ${time}.`;
}

/** The cheapest of several plans; of those that come off whole, where any does. */
export function cheapest<T extends Pick<PlanOffer, "held" | "cost">>(plans: readonly T[]): T | null {
  const free = plans.filter((plan) => plan.held === 0);
  const among = free.length > 0 ? free : plans;
  return among.length === 0 ? null : among.reduce((best, plan) => (plan.cost < best.cost ? plan : best));
}
