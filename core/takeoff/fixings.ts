/**
 * What is counted and measured once walls and bodies stand: bolts through the flanges, keys between jacket and shell, and
 * the sections as solids, which come in the place of their estimates.
 */

import { insertLengthMm } from "../flange/fastenings.ts";
import { keyTray } from "../keys/jacketKeys.ts";
import type { JacketKeySettings } from "../keys/settings.ts";
import type { MaterialLine } from "../materials/property.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { type ShellSpan, shellDensities, shellTakeoff, thickestOf } from "../shell/index.ts";
import { allLayups, type Layup } from "../shell/layup.ts";
import { MM3_PER_CM3 } from "../units/index.ts";

/** Counted where walls and keys are placed; a first glance has none. */
export interface Fixings {
  readonly bolts: number;
  readonly jacketKeys: number;
  /** Through the shell's foot into the board. */
  readonly footBolts?: number;
  /** The area of the board under it, mm2; where it stands on one. */
  readonly boardMm2?: number;
  /** The length of every strap round the mould, mm. */
  readonly strapsMm?: readonly number[];
  /** What of each section as a solid is laid up, mm3, where they were worked out. */
  readonly laidMm3?: readonly number[];
}

/** Were the solids of all these sections worked out? */
export function areMeasured(sections: readonly unknown[], fixings: Pick<Fixings, "laidMm3"> | undefined): boolean {
  return fixings?.laidMm3?.length === sections.length;
}

/**
 * A shell's faces as large as sections have them that weigh what the solids do; as estimated where there are none.
 * @param layups one a section
 */
export function spanAsBuilt(estimated: ShellSpan, { laidMm3 }: Fixings, layups: readonly Layup[]): ShellSpan {
  if (!laidMm3 || !areMeasured(estimated.areasMm2, { laidMm3 })) return estimated;
  const { sectionMassesG } = shellTakeoff(layups, estimated);
  const shares = laidMm3.map((mm3, k) =>
    sectionMassesG[k] > 0 ? ((mm3 / MM3_PER_CM3) * shellDensities(layups[k]).dryGPerCm3) / sectionMassesG[k] : 1,
  );
  const scaled = (areasMm2: readonly number[]) => areasMm2.map((areaMm2, k) => areaMm2 * shares[k]);
  return { areasMm2: scaled(estimated.areasMm2), flangeAreasMm2: scaled(estimated.flangeAreasMm2) };
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

/** The longest bolt that goes through a flange and a washer and not beyond the insert in the other, mm. */
export function insertBoltMm(flangeMm: number, diameterMm: number): number {
  const mostMm = flangeMm + WASHER_MM + insertLengthMm(flangeMm, diameterMm);
  return LENGTHS_MM * Math.floor(mostMm / LENGTHS_MM);
}

/** The board that a foot is bolted to is taken to be so thick, mm. */
const BOARD_THICK_MM = 18;

export function boltLines({ bolts, footBolts = 0, strapsMm = [] }: Fixings, { shell }: PlanDocument): MaterialLine[] {
  const { diameterMm, hold } = shell.flanges.bolts;
  const { flangeMm } = thickestOf(allLayups(shell));
  const laidIn = hold === "inserts";
  return [
    {
      material: "bolts",
      use: "flanges",
      group: "sundries",
      quantity: bolts,
      unit: "pcs",
      working: {
        formula: `bolts on the drawing board, each with ${laidIn ? "a washer" : "a nut and two washers"}`,
        inputs: [
          { name: "diameter", value: diameterMm, unit: "mm" },
          laidIn
            ? {
                name: "length, through a flange and a washer into the insert",
                value: insertBoltMm(flangeMm, diameterMm),
                unit: "mm",
              }
            : {
                name: "length, through two flanges, washers and nut",
                value: boltLengthMm(flangeMm, diameterMm),
                unit: "mm",
              },
        ],
      },
    },
    {
      material: "inserts",
      use: "flanges",
      group: "sundries",
      quantity: laidIn ? bolts : 0,
      unit: "pcs",
      working: {
        formula: "one for every bolt, laid into the flange that is built first",
        inputs: [
          { name: "thread", value: diameterMm, unit: "mm" },
          { name: "length", value: insertLengthMm(flangeMm, diameterMm), unit: "mm" },
        ],
      },
    },
    {
      material: "bolts",
      use: "board",
      group: "sundries",
      quantity: footBolts,
      unit: "pcs",
      working: {
        formula: "holes of the foot on the footprint, each with a nut and two washers",
        inputs: [
          { name: "diameter", value: diameterMm, unit: "mm" },
          {
            name: `length, through the foot and a board of ${BOARD_THICK_MM} mm`,
            value: boltLengthMm((flangeMm + BOARD_THICK_MM) / 2, diameterMm),
            unit: "mm",
          },
        ],
      },
    },
    {
      material: "straps",
      use: "flanges",
      group: "sundries",
      quantity: strapsMm.length,
      unit: "pcs",
      working: {
        formula: "force that parts the sections ÷ (2 × what a strap bears), and at least two",
        inputs: [
          { name: "one bears", value: shell.casting.strapLoadN, unit: "N" },
          { name: "the longest, with its buckle", value: Math.round(Math.max(0, ...strapsMm)), unit: "mm" },
        ],
      },
    },
  ];
}

/** Silicone of the keys that are cast beforehand, g. */
export function jacketKeysG({ jacketKeys }: Fixings, settings: JacketKeySettings, densityGPerCm3: number): number {
  return siliconeMassG(keyTray(jacketKeys, settings).siliconeMm3, densityGPerCm3);
}
