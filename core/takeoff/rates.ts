/** The workshop's own rates: what materials, hands and waiting cost, and how long work takes. */
import type { Pack } from "../materials/entries/entry.ts";
import type { SearchRates } from "../plan/document/searchRates.ts";

/** All typical, all editable in the settings. */
export interface Rates extends SearchRates {
  readonly currency: string;
  /** The packs that the workshop buys a material in, and their prices; as in the catalogue where it says nothing. */
  readonly packs?: Readonly<Record<string, readonly Pack[]>>;
  /** Brushing a square metre of one coat, minutes of hands. */
  readonly coatMinPerM2: number;
  /** Laying a square metre of one layer of shell. */
  readonly layerMinPerM2: number;
  /** Cutting a limb off, with dowels and the dressing of the joint: what a great fill is weighed against. */
  readonly cutOffMin: number;
}

export const TYPICAL_RATES: Rates = {
  currency: "€",
  siliconePerKgMinor: 2400,
  hourMinor: 4200,
  coatMinPerM2: 25,
  layerMinPerM2: 20,
  wallMinPerM: 35,
  sectionSetupMin: 90,
  finishMinPerM: 3,
  waitHourMinor: 150,
  overLiftPerKgMinor: 150,
  overHandlingPerMMinor: 5000,
  liftMin: 60,
  fillMinPerL: 30,
  cutOffMin: 240,
  keepClearWeight: 5,
};
