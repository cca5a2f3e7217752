/** A plan's figures as they are shown: its geometry, and what follows from it at today's rates. */
import { heavierThanWeighed } from "../../materials/silicone.ts";
import type { Fixings } from "../../takeoff/fixings.ts";
import type { Rates } from "../../takeoff/rates.ts";
import type { JacketTotals } from "../../takeoff/totals.ts";
import { coatSilicones, type PlanDocument } from "../document/document.ts";
import { type Identity, NOBODY_KNOWN } from "../document/identity.ts";
import { type FiguresAtRates, figuresAtRates } from "./atRates.ts";
import type { BundleFigures, PlanBundle } from "./bundle.ts";
import type { GeometryReport } from "./report.ts";

/** Ids of what single decisions go by, in the order of what they are of. */
export interface PlanIds {
  readonly sections: readonly string[];
  readonly lines: readonly string[];
}

export interface PlanFigures extends BundleFigures, FiguresAtRates {
  /** In a glance there are none of lines and fills. */
  readonly ids: PlanIds & { readonly fills: readonly string[] };
}

/** A plan as it is shown. */
export interface ShownPlan extends Omit<PlanBundle, "figures"> {
  readonly figures: PlanFigures;
}

/**
 * @param identity see `identified`
 * @param fixings what is counted on walls and jacket, where they are worked out
 */
export function figuresOf(
  geometry: BundleFigures,
  document: PlanDocument,
  rates: Rates,
  identity: Pick<Identity, "sections" | "lines" | "fills"> = NOBODY_KNOWN,
  fixings?: Fixings,
): PlanFigures {
  const idsOf = (known: readonly { readonly id: string }[]) => known.map(({ id }) => id);
  const ids = { sections: idsOf(identity.sections), lines: idsOf(identity.lines), fills: idsOf(identity.fills) };
  const { report } = geometry;
  const own = { ...geometry, report: weighedAs(report, document) };
  return { ...own, ...figuresAtRates(told({ report, ids }), document, rates, fixings), ids };
}

/** A report whose walls and sections carry their ids: what was decided for single ones goes by them. */
export function told({ report, ids }: { readonly report: GeometryReport; readonly ids: PlanIds }) {
  return {
    ...report,
    walls: report.walls.map((wall, k) => ({ ...wall, id: ids.lines[k] })),
    sections: report.sections.map((section, k) => ({ ...section, id: ids.sections[k] })),
  };
}

type WeighedPlan = Pick<PlanDocument, "jacket" | "materials">;

/** The report with the jacket's masses by what its coats are of. */
export function weighedAs<Report extends Pick<BundleFigures["report"], "jacket">>(
  report: Report,
  document: WeighedPlan,
): Report {
  return { ...report, jacket: { ...report.jacket, ...times(report.jacket, heavierCoats(document)) } };
}

/** The jacket's totals as results hold them, from a report that is weighed by the plan's own silicones. */
export function jacketTotalsOf(
  { jacket }: Pick<BundleFigures["report"], "jacket">,
  document: WeighedPlan,
): JacketTotals {
  return {
    ...jacket,
    ...times(
      jacket,
      heavierCoats(document).map((heavier) => 1 / heavier),
    ),
  };
}

/** A jacket's masses, each coat's times its own factor, the whole by what they come to. */
function times<Coat extends { readonly massG: number }>(
  { siliconeG, coats }: { readonly siliconeG: number; readonly coats: readonly Coat[] },
  factors: readonly number[],
) {
  const all = (masses: readonly { readonly massG: number }[]) => masses.reduce((sum, { massG }) => sum + massG, 0);
  const scaled = coats.map((coat, k) => ({ ...coat, massG: coat.massG * (factors[k] ?? 1) }));
  const before = all(coats);
  return { siliconeG: siliconeG * (before > 0 ? all(scaled) / before : (factors[0] ?? 1)), coats: scaled };
}

function heavierCoats({ jacket, materials }: WeighedPlan): number[] {
  return coatSilicones(jacket).map((silicone) => heavierThanWeighed(silicone, materials.own));
}
