/**
 * What a parting costs, in the workshop's own money: fill, line, sections, and what is too heavy or too large to handle.
 * The one formula by which plans are looked for, compared and reported.
 *
 *   silicone fill x price + fill of clay and plugs x laying + line x (wall + finishing x casts), times a weight through zones to keep clear
 *     + sections x (set-up + wait) + a lift where a section leaves downwards past the board
 *     + kilograms over the lift limit x its price + metres over the handling size x its price
 */

/** Prices in one unit of money; masses in g, lengths in mm. */
export interface PartingPrices {
  readonly fillPerMm3: number;
  /** Of a fill that is no silicone: the work of laying it. */
  readonly laidFillPerMm3: number;
  /** Building and clearing the parting wall, a millimetre of line. */
  readonly wallPerMm: number;
  /** Finishing the seam on every cast of the edition, a millimetre of line. */
  readonly finishPerMm: number;
  /** How many times dearer a line is that runs through a zone to keep clear. */
  readonly keepClearWeight: number;
  readonly setupPerSection: number;
  /** What waiting for one more section to set costs the shop. */
  readonly waitPerSection: number;
  /** Lifting the piece once, where a section leaves downwards past the board. */
  readonly lift: number;
  readonly shellGPerMm2: number;
  readonly liftLimitG: number;
  readonly overLiftPerG: number;
  readonly handlingMm: number;
  readonly overHandlingPerMm: number;
}

/** What of a plan the price depends on. */
export interface PricedPlan {
  readonly fillMm3: number;
  /** Of it, what is no silicone; all of it is taken for silicone while that is not known. */
  readonly laidMm3?: number;
  readonly lineMm: number;
  /** Of it, through zones to keep clear. */
  readonly clearMm: number;
  readonly sections: readonly { readonly areaMm2: number; readonly greatestMm: number }[];
  /** Does any of them leave only after the piece has been lifted? */
  readonly lifted: boolean;
}

export const COST_PARTS = ["fill", "wall", "finishing", "zones", "setup", "wait", "lift", "handling"] as const;
export type CostPart = (typeof COST_PARTS)[number];
export type CostParts = Readonly<Record<CostPart, number>>;

export function costParts(plan: PricedPlan, prices: PartingPrices): CostParts {
  const { laidMm3 = 0 } = plan;
  return {
    fill: (plan.fillMm3 - laidMm3) * prices.fillPerMm3 + laidMm3 * prices.laidFillPerMm3,
    wall: plan.lineMm * prices.wallPerMm,
    finishing: plan.lineMm * prices.finishPerMm,
    zones: plan.clearMm * linePerMm(prices) * (prices.keepClearWeight - 1),
    setup: plan.sections.length * prices.setupPerSection,
    wait: plan.sections.length * prices.waitPerSection,
    lift: plan.lifted ? prices.lift : 0,
    handling: plan.sections.reduce((sum, section) => sum + handlingCost(section, prices), 0),
  };
}

/** What one section costs in handling; 0 while it is within the lift limit and the handling size. */
export function handlingCost(section: PricedPlan["sections"][number], prices: PartingPrices): number {
  const overG = Math.max(0, section.areaMm2 * prices.shellGPerMm2 - prices.liftLimitG);
  const overMm = Math.max(0, section.greatestMm - prices.handlingMm);
  return overG * prices.overLiftPerG + overMm * prices.overHandlingPerMm;
}

export function totalCost(parts: CostParts): number {
  return COST_PARTS.reduce((sum, part) => sum + parts[part], 0);
}

/** What a millimetre of line costs in all. */
export function linePerMm(prices: PartingPrices): number {
  return prices.wallPerMm + prices.finishPerMm;
}
