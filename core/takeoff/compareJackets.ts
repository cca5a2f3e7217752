/** Silicones, jackets of other thicknesses, and a poured block, held against each other on one plan. */
import { GIVE_FORMULA, jacketThicknessMm, usualGiveMm } from "../jacket/coat.ts";
import { entryOf, type SiliconeId } from "../materials/catalogue.ts";
import { minutesAt } from "../materials/mixing.ts";
import type { Working } from "../materials/property.ts";
import { siliconeMassG, siliconeOf } from "../materials/silicone.ts";
import { EMPTY_STORE } from "../materials/stock.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { MM2_PER_M2, MM3_PER_LITRE } from "../units/index.ts";
import { buyingMinor, buyingRows } from "./buying.ts";
import type { PlanTotals } from "./compareShells.ts";
import type { Rates } from "./rates.ts";
import { takeoff } from "./takeoff.ts";
import { jacketMassWorking, materialsWorking, minutesWorking, shrinkWorking } from "./workings.ts";

export interface ComparedSilicone {
  readonly id: SiliconeId;
  readonly massG: number;
  readonly potMin: number;
  /** Waits between and after its coats, minutes at the plan's temperature. */
  readonly waitMin: number;
  readonly shrinkPercent: number;
  /** What the plan's jacket must be bought of it, in packs. */
  readonly priceMinor: number;
  /** How each of these comes about; worked out when it is asked for. */
  readonly workings: () => Readonly<Record<SiliconeFigure, Working>>;
}

/** The figures of a silicone that open to how they come about. */
export type SiliconeFigure = "mass" | "pot" | "wait" | "shrink" | "price";

/** Silicones that are brushed or trowelled. */
export const BRUSHED: readonly SiliconeId[] = [
  "tin-brushable-low",
  "tin-brushable",
  "tin-brushable-fast",
  "tin-soft",
  "tin-trowel",
  "platinum-brushable",
  "platinum-soft-fast",
];

export function compareSilicones(document: PlanDocument, totals: PlanTotals): ComparedSilicone[] {
  const { temperatureC } = document.mixing;
  const waits = document.jacket.coats.length - 1;
  return BRUSHED.map((id) => {
    const coats = document.jacket.coats.map((coat) => ({ ...coat, silicone: null }));
    const plan = { ...document, jacket: { ...document.jacket, silicone: id, coats } };
    const { own } = plan.materials;
    const taken = takeoff(plan, totals.jacket, totals.parting, totals.rates, totals.fixings);
    const { siliconeG, materials, coatsG, fillG } = taken;
    const { potMin, tackMin, cureMin } = siliconeOf(id);
    const lines = materials.filter(({ material }) => material === id);
    const bought = buyingRows(lines, totals.store ?? EMPTY_STORE, totals.today);
    return {
      id,
      massG: siliconeG,
      potMin: minutesAt(potMin, temperatureC),
      waitMin: minutesAt(waits * tackMin + cureMin, temperatureC),
      shrinkPercent: entryOf(id).figures.shrinkPercent ?? 0,
      priceMinor: buyingMinor(bought),
      workings: () => ({
        mass: jacketMassWorking(id, coatsG, fillG, own),
        pot: minutesWorking([{ name: "pot life", minutes: potMin }], temperatureC),
        wait: minutesWorking(
          [
            { name: `${waits} waits between coats, together`, minutes: waits * tackMin },
            { name: "cure of the last", minutes: cureMin },
          ],
          temperatureC,
        ),
        shrink: shrinkWorking(entryOf(id).figures.shrinkPercent ?? 0),
        price: materialsWorking(bought, totals.rates, own),
      }),
    };
  });
}

/** A poured block stands out round the piece by so much, mm. */
const BLOCK_WALL_MM = 25;

/** Silicone of a block poured round the piece in a box: what a brushed jacket saves. */
export function pouredBlock(
  sizeMm: readonly number[],
  pieceMm3: number,
  densityGPerCm3: number,
): { readonly massG: number; readonly working: Working } {
  const [wide, deep, high] = sizeMm;
  const box = [wide + 2 * BLOCK_WALL_MM, deep + 2 * BLOCK_WALL_MM, high + BLOCK_WALL_MM];
  const boxMm3 = box[0] * box[1] * box[2];
  return {
    massG: siliconeMassG(Math.max(0, boxMm3 - pieceMm3), densityGPerCm3),
    working: {
      formula: "(box round the piece − piece) × density; the box stands off on four sides and over the top",
      inputs: [
        { name: "stands off", value: BLOCK_WALL_MM, unit: "mm" },
        { name: "box", value: boxMm3 / MM3_PER_LITRE, unit: "l" },
        { name: "piece", value: pieceMm3 / MM3_PER_LITRE, unit: "l" },
        { name: "density", value: densityGPerCm3, unit: "g/cm³" },
      ],
    },
  };
}

/** A jacket of another thickness, estimated. */
export interface ComparedJacket {
  readonly thicknessMm: number;
  readonly siliconeG: number;
  readonly priceMinor: number;
  /** How deep a section may press into it, mm. */
  readonly giveMm: number;
  readonly workings: () => Readonly<Record<JacketFigure, Working>>;
}

/** The figures of a jacket that open to how they come about. */
export type JacketFigure = "mass" | "price" | "give";

/** Thicknesses that jackets are compared at, mm. */
const JACKETS_MM = [4, 6, 8, 10, 12];

/**
 * Jackets of other thicknesses on this piece. Areas between its own face and the jacket's are taken to grow evenly with the
 * thickness, so that volumes go by t (A + (B - A) t / 2T), and by what this plan's own jacket was measured to take.
 * @param areasMm2 of the piece, and of the outside of the plan's jacket
 * @param gramMinor price of a gram of its silicone, minor units
 */
export function compareJackets(
  document: PlanDocument,
  siliconeG: number,
  [insideMm2, outsideMm2]: readonly [number, number],
  gramMinor: number,
  { currency }: Rates,
): ComparedJacket[] {
  const ownMm = jacketThicknessMm(document.jacket.coats);
  const volume = (mm: number) => mm * (insideMm2 + ((outsideMm2 - insideMm2) * mm) / (2 * ownMm));
  return JACKETS_MM.map((thicknessMm) => {
    const grams = (siliconeG * volume(thicknessMm)) / volume(ownMm);
    return {
      ...{ thicknessMm, siliconeG: grams, priceMinor: grams * gramMinor, giveMm: usualGiveMm(thicknessMm) },
      workings: () => ({
        mass: {
          formula: "this plan's silicone × V(t) ÷ V(T), with V(t) = t × (A + (B − A) × t ÷ 2 T)",
          inputs: [
            { name: "this plan's silicone", value: siliconeG / 1000, unit: "kg" },
            { name: "thickness t", value: thicknessMm, unit: "mm" },
            { name: "the plan's thickness T", value: ownMm, unit: "mm" },
            { name: "face of the piece A", value: insideMm2 / MM2_PER_M2, unit: "m²" },
            { name: "outside of the jacket B", value: outsideMm2 / MM2_PER_M2, unit: "m²" },
          ],
        },
        price: {
          formula: "silicone × what a kilogram costs in the packs bought for the plan, with its waste",
          inputs: [
            { name: "silicone", value: grams / 1000, unit: "kg" },
            { name: "a kilogram, its waste with it", value: (1000 * gramMinor) / 100, unit: currency },
          ],
        },
        give: { formula: GIVE_FORMULA, inputs: [{ name: "thickness", value: thicknessMm, unit: "mm" }] },
      }),
    };
  });
}
