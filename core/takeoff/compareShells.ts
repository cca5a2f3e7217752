/** The shell systems, and the silicones, held against each other on one plan. */
import { jacketThicknessMm, usualGiveMm } from "../jacket/coat.ts";
import { entryOf, type SiliconeId } from "../materials/catalogue.ts";
import { minutesAt } from "../materials/mixing.ts";
import { siliconeMassG, siliconeOf } from "../materials/silicone.ts";
import { EMPTY_STORE, type Store } from "../materials/stock.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { DAY_MIN, inLine } from "../schedule/line.ts";
import { shellSystem, shellSystems, typicalLayup } from "../shell/index.ts";
import type { ShellLaid } from "../shell/layup.ts";
import { spanLimitMm } from "../shell/span.ts";
import { buyingMinor, buyingRows } from "./buying.ts";
import type { Fixings } from "./fixings.ts";
import type { Rates } from "./rates.ts";
import { type Takeoff, takeoff } from "./takeoff.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

interface Compared {
  readonly id: string;
  readonly name: string;
  readonly isOwn: boolean;
  readonly laid: ShellLaid;
}

export interface ComparedShell {
  /** Of the system, or of the lay-up that was kept. */
  readonly id: string;
  readonly name: string;
  readonly system: string;
  readonly thicknessMm: number;
  readonly heaviestG: number;
  readonly totalG: number;
  readonly handsMin: number;
  /** From Monday morning till the mould is ready, days. */
  readonly days: number;
  /** Everything that is bought for the plan, in packs; and the hours of hands. */
  readonly materialsMinor: number;
  readonly handsMinor: number;
  /** What it may span without a rib, mm. */
  readonly spanMm: number;
}

export interface PlanTotals {
  readonly jacket: JacketTotals;
  readonly parting: PartingTotals;
  readonly rates: Rates;
  readonly fixings?: Fixings;
  readonly store?: Store;
  /** As 2026-11-30. */
  readonly today: string;
}

/** Every system at its typical figures, the plan's own at the plan's; then the lay-ups that were kept. */
export function compareShells(document: PlanDocument, totals: PlanTotals): ComparedShell[] {
  const { shell } = document;
  const typical = shellSystems.map(({ id }): Compared => {
    const isOwn = id === shell.system;
    const laid = isOwn ? shell : { ...typicalLayup(id), sections: [] };
    return { id, name: shellSystem(id).name, isOwn, laid };
  });
  const kept = shell.variants.map(
    ({ id, name, ...layup }): Compared => ({
      ...{ id, name, isOwn: false },
      laid: { ...layup, sections: [] },
    }),
  );
  return [...typical, ...kept].map(({ id, name, isOwn, laid: { system, figures, order, sections } }) => {
    const plan = { ...document, shell: { ...shell, system, figures, order, sections } };
    // Solids are of the plan's own system: another is estimated.
    const fixings = totals.fixings && (isOwn ? totals.fixings : withoutSolids(totals.fixings));
    const taken = takeoff(plan, totals.jacket, totals.parting, totals.rates, fixings);
    return {
      ...{ id, name, system },
      thicknessMm: taken.thicknessMm,
      heaviestG: Math.max(0, ...taken.sectionMassesG),
      totalG: taken.shellG,
      spanMm: spanLimitMm(plan.shell),
      ...workOf(taken, totals, document),
    };
  });
}

function withoutSolids({ solidsMm3: _solidsMm3, ...fixings }: Fixings): Fixings {
  return fixings;
}

/** Work begins on a Monday at eight. */
const BEGIN_MIN = 8 * 60;

function workOf(
  { tasks, handsMin, finishMin, materials }: Takeoff,
  { rates, store = EMPTY_STORE, today }: PlanTotals,
  { materials: { own } }: PlanDocument,
) {
  const last = inLine(tasks, BEGIN_MIN).at(-1);
  return {
    handsMin,
    days: last ? (last.readyMin - BEGIN_MIN) / DAY_MIN : 0,
    materialsMinor: buyingMinor(buyingRows(materials, store, today, own)),
    handsMinor: Math.round(((handsMin + finishMin) / 60) * rates.hourMinor),
  };
}

export interface ComparedSilicone {
  readonly id: SiliconeId;
  readonly massG: number;
  readonly potMin: number;
  /** Waits between and after its coats, minutes at the plan's temperature. */
  readonly waitMin: number;
  readonly shrinkPercent: number;
  /** What the plan's jacket must be bought of it, in packs. */
  readonly priceMinor: number;
}

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
    const { siliconeG, materials } = takeoff(plan, totals.jacket, totals.parting, totals.rates, totals.fixings);
    const { potMin, tackMin, cureMin } = siliconeOf(id);
    const lines = materials.filter(({ material }) => material === id);
    return {
      id,
      massG: siliconeG,
      potMin: minutesAt(potMin, temperatureC),
      waitMin: minutesAt(waits * tackMin + cureMin, temperatureC),
      shrinkPercent: entryOf(id).figures.shrinkPercent ?? 0,
      priceMinor: buyingMinor(buyingRows(lines, totals.store ?? EMPTY_STORE, totals.today)),
    };
  });
}

/** A poured block stands out round the piece by so much, mm. */
const BLOCK_WALL_MM = 25;

/** Silicone of a block poured round the piece in a box, g: what a brushed jacket saves. */
export function pouredBlockG(sizeMm: readonly number[], pieceMm3: number, densityGPerCm3: number): number {
  const [wide, deep, high] = sizeMm;
  const boxMm3 = (wide + 2 * BLOCK_WALL_MM) * (deep + 2 * BLOCK_WALL_MM) * (high + BLOCK_WALL_MM);
  return siliconeMassG(Math.max(0, boxMm3 - pieceMm3), densityGPerCm3);
}

/** A jacket of another thickness, estimated. */
export interface ComparedJacket {
  readonly thicknessMm: number;
  readonly siliconeG: number;
  readonly priceMinor: number;
  /** How deep a section may press into it, mm. */
  readonly giveMm: number;
}

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
): ComparedJacket[] {
  const ownMm = jacketThicknessMm(document.jacket.coats);
  const volume = (mm: number) => mm * (insideMm2 + ((outsideMm2 - insideMm2) * mm) / (2 * ownMm));
  return JACKETS_MM.map((thicknessMm) => {
    const grams = (siliconeG * volume(thicknessMm)) / volume(ownMm);
    return { thicknessMm, siliconeG: grams, priceMinor: grams * gramMinor, giveMm: usualGiveMm(thicknessMm) };
  });
}
