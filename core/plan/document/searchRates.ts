/**
 * The workshop's rates that a search for sections goes by. A document keeps those its lines were suggested at: so a
 * change of prices changes what a plan costs, at once, and not where its lines run.
 */
export interface SearchRates {
  readonly siliconePerKgMinor: number;
  readonly hourMinor: number;
  /** Building and clearing a metre of parting wall. */
  readonly wallMinPerM: number;
  /** Setting up one more section. */
  readonly sectionSetupMin: number;
  /** Finishing a metre of seam on one cast. */
  readonly finishMinPerM: number;
  /** What an hour of waiting costs the shop: room, and work that cannot begin. */
  readonly waitHourMinor: number;
  /** Every kilogram of a section over the lift limit: a second pair of hands, a hoist. */
  readonly overLiftPerKgMinor: number;
  /** Every metre of a section over the handling size. */
  readonly overHandlingPerMMinor: number;
  /** Lifting the piece in its mould off the board, or laying it over: minutes of hands, all of them together. */
  readonly liftMin: number;
  /** Laying, smoothing and taking out again a litre of fill that is no silicone: clay, webs, plugs. */
  readonly fillMinPerL: number;
  /** How many times dearer a line is held to be that runs through a zone to keep clear. */
  readonly keepClearWeight: number;
}

/** The names of these rates. */
export const SEARCH_RATES = [
  "siliconePerKgMinor",
  "hourMinor",
  "wallMinPerM",
  "sectionSetupMin",
  "finishMinPerM",
  "waitHourMinor",
  "overLiftPerKgMinor",
  "overHandlingPerMMinor",
  "liftMin",
  "fillMinPerL",
  "keepClearWeight",
] as const satisfies readonly (keyof SearchRates)[];

/** Of a workshop's rates those a search goes by. */
export function searchRatesOf(rates: SearchRates): SearchRates {
  return Object.fromEntries(SEARCH_RATES.map((name) => [name, rates[name]])) as unknown as SearchRates;
}

/** Would a search at these rates go by the same figures? */
export function sameSearchRates(a: SearchRates, b: SearchRates): boolean {
  return SEARCH_RATES.every((name) => a[name] === b[name]);
}
