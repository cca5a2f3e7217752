/**
 * What follows from a plan's geometry with its document and the workshop's rates: quantities, work and money, where cutting
 * a limb off is worth considering, and the caution of a lift. In milliseconds: a change of price answers at once.
 */
import { pieceMassG } from "../../materials/pieceMaterial.ts";
import type { Fixings } from "../../takeoff/fixings.ts";
import type { Rates } from "../../takeoff/rates.ts";
import { type Takeoff, takeoff } from "../../takeoff/takeoff.ts";
import type { PlanDocument } from "../document/document.ts";
import type { PlanWarning } from "../proof/warning.ts";
import { type CutOff, cutOffOf } from "./cutOff.ts";
import type { GeometryReport } from "./report.ts";

export interface FiguresAtRates {
  readonly takeoff: Takeoff;
  /** Where cutting a limb off would be the better way; null where nothing speaks for it, or not all was left to the search. */
  readonly cutOff: CutOff | null;
  /** All warnings of the plan. */
  readonly warnings: readonly PlanWarning[];
}

export type RatedGeometry = Pick<
  GeometryReport,
  | "piece"
  | "jacket"
  | "sections"
  | "partingLengthMm"
  | "walls"
  | "spans"
  | "fillMm3"
  | "clayMm3"
  | "plugMm3"
  | "fillParts"
  | "warnings"
>;

export function figuresAtRates(
  geometry: RatedGeometry,
  document: PlanDocument,
  rates: Rates,
  fixings?: Fixings,
): FiguresAtRates {
  const { piece, jacket, sections, fillParts } = geometry;
  const figures = takeoff(document, jacket, geometry, rates, fixings);
  const lifted = sections.filter((section) => section.lifted).map(({ number }) => number);
  const { surface } = document.brief;
  const massG = pieceMassG(piece.volumeMm3, surface) + figures.siliconeG + figures.shellG;
  const lift: PlanWarning[] = lifted.length > 0 ? [{ kind: "lift", sections: lifted, massG, surface }] : [];
  return {
    takeoff: figures,
    cutOff: soughtFreely(document.parting) ? cutOffOf(sections, fillParts, rates) : null,
    warnings: [...geometry.warnings, ...lift],
  };
}

/** Was everything left to the search? Only then does a plan that is held mean that no way was found. */
function soughtFreely({ sections, pulls, layout, fills }: PlanDocument["parting"]): boolean {
  return sections === "auto" && !pulls && !layout && !fills.some(({ kind }) => kind === "open");
}
