/** A plan's figures as they are shown: its geometry, and what follows from it at today's rates. */
import type { SiliconeId } from "../../materials/catalogue.ts";
import { heavierThanWeighed } from "../../materials/silicone.ts";
import type { Fixings } from "../../takeoff/fixings.ts";
import type { Rates } from "../../takeoff/rates.ts";
import type { JacketTotals } from "../../takeoff/totals.ts";
import type { PlanDocument } from "../document/document.ts";
import { type Identity, NOBODY_KNOWN } from "../document/identity.ts";
import { type FiguresAtRates, figuresAtRates } from "./atRates.ts";
import type { BundleFigures, PlanBundle } from "./bundle.ts";

export interface PlanFigures extends BundleFigures, FiguresAtRates {
  /** Ids of its sections, lines and fills, in their order; in a glance there are none of lines and fills. */
  readonly ids: {
    readonly sections: readonly string[];
    readonly lines: readonly string[];
    readonly fills: readonly string[];
  };
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
  const walls = report.walls.map((wall, k) => ({ ...wall, id: ids.lines[k] }));
  const own = { ...geometry, report: weighedAs(report, document.jacket.silicone) };
  return { ...own, ...figuresAtRates({ ...report, walls }, document, rates, fixings), ids };
}

/** The report with the jacket's masses by its own silicone. */
export function weighedAs<Report extends Pick<BundleFigures["report"], "jacket">>(
  report: Report,
  silicone: SiliconeId,
): Report {
  const heavier = heavierThanWeighed(silicone);
  if (heavier === 1) return report;
  const { jacket } = report;
  const coats = jacket.coats.map((coat) => ({ ...coat, massG: coat.massG * heavier }));
  return { ...report, jacket: { ...jacket, siliconeG: jacket.siliconeG * heavier, coats } };
}

/** The jacket's totals as results hold them, from a report that is weighed by the plan's own silicone. */
export function jacketTotalsOf(
  { jacket }: Pick<BundleFigures["report"], "jacket">,
  silicone: SiliconeId,
): JacketTotals {
  const heavier = heavierThanWeighed(silicone);
  const coats = jacket.coats.map(({ massG }) => ({ massG: massG / heavier }));
  return { ...jacket, siliconeG: jacket.siliconeG / heavier, coats };
}
