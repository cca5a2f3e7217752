/** What holds sections and jacket, counted: bolts through the flanges, and keys between jacket and shell. */

import { keyTray } from "../keys/jacketKeys.ts";
import type { JacketKeySettings } from "../keys/settings.ts";
import type { MaterialLine } from "../materials/property.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import type { PlanDocument } from "../plan/document/document.ts";

/** Counted where walls and keys are placed; a first glance has none. */
export interface Fixings {
  readonly bolts: number;
  readonly jacketKeys: number;
}

/** A nut is so high for a bolt of diameter 1; a washer is so thick, and the thread stands out by so much, mm. */
const NUT_DIAMETERS = 0.8;
const WASHER_MM = 1.6;
const THREAD_OUT_MM = 3;
/** Bolts are sold in lengths of so many mm. */
const LENGTHS_MM = 5;

/** The shortest bolt that goes through two flanges, two washers and a nut, mm. */
export function boltLengthMm(flangeMm: number, diameterMm: number): number {
  const leastMm = 2 * flangeMm + 2 * WASHER_MM + NUT_DIAMETERS * diameterMm + THREAD_OUT_MM;
  return LENGTHS_MM * Math.ceil(leastMm / LENGTHS_MM);
}

export function boltLines({ bolts }: Fixings, { shell }: PlanDocument, flangeMm: number): MaterialLine[] {
  const { diameterMm } = shell.flanges.bolts;
  return [
    {
      material: "bolts",
      use: "flanges",
      group: "sundries",
      quantity: bolts,
      unit: "pcs",
      working: {
        formula: "bolts on the drawing board, each with a nut and two washers",
        inputs: [
          { name: "diameter", value: diameterMm, unit: "mm" },
          {
            name: "length, through two flanges, washers and nut",
            value: boltLengthMm(flangeMm, diameterMm),
            unit: "mm",
          },
        ],
      },
    },
  ];
}

/** Silicone of the keys that are cast beforehand, g. */
export function jacketKeysG({ jacketKeys }: Fixings, settings: JacketKeySettings): number {
  return siliconeMassG(keyTray(jacketKeys, settings).siliconeMm3);
}
