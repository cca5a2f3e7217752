/** The shell systems, and the lay-ups that were kept, held against each other on one plan. */
import type { Working } from "../materials/property.ts";
import { EMPTY_STORE, type Store } from "../materials/stock.ts";
import { layTerms, type PlanDocument } from "../plan/document/document.ts";
import { DAY_MIN, inLine } from "../schedule/line.ts";
import { shellSystem, shellSystems, typicalLayup } from "../shell/index.ts";
import type { ShellLaid } from "../shell/layup.ts";
import { spanLimitMm } from "../shell/span.ts";
import { type BuyingRow, buyingMinor, buyingRows } from "./buying.ts";
import { areMeasured, type Fixings } from "./fixings.ts";
import type { Rates } from "./rates.ts";
import { type Takeoff, takeoff } from "./takeoff.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";
import {
  materialsWorking,
  readyWorking,
  sectionMassWorking,
  shellMassWorking,
  spanWorking,
  thicknessWorking,
  wagesWorking,
} from "./workings.ts";

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
  /** From Monday morning until the mould is ready, days. */
  readonly days: number;
  /** Everything that is bought for the plan, in packs; and the hours of hands. */
  readonly materialsMinor: number;
  readonly handsMinor: number;
  /** What it may span without a rib, mm. */
  readonly spanMm: number;
  /** How each of these comes about; worked out when it is asked for. */
  readonly workings: () => Readonly<Record<ShellFigure, Working>>;
}

/** The figures of a shell that open to how they come about. */
export const SHELL_FIGURES = [
  ...(["thickness", "heaviest", "total", "hands"] as const),
  ...(["ready", "materials", "wages", "spans"] as const),
];
export type ShellFigure = (typeof SHELL_FIGURES)[number];

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
    const bought = boughtFor(taken, totals, document);
    const timed = inLine(taken.tasks, BEGIN_MIN);
    return {
      ...{ id, name, system },
      thicknessMm: taken.thicknessMm,
      heaviestG: Math.max(0, ...taken.sectionMassesG),
      totalG: taken.shellG,
      handsMin: taken.handsMin,
      days: timed.length > 0 ? (timed[timed.length - 1].readyMin - BEGIN_MIN) / DAY_MIN : 0,
      materialsMinor: buyingMinor(bought),
      handsMinor: Math.round(((taken.handsMin + taken.finishMin) / 60) * totals.rates.hourMinor),
      spanMm: spanLimitMm(plan.shell),
      workings: () => ({
        ...massWorkings(taken, totals.parting, fixings),
        thickness: thicknessWorking(plan.shell, layTerms(plan)),
        hands: taken.handsWorking,
        ready: readyWorking(timed),
        materials: materialsWorking(bought, totals.rates, document.materials.own),
        wages: wagesWorking(taken.handsMin, taken.finishMin, totals.rates),
        spans: spanWorking(plan.shell),
      }),
    };
  });
}

function massWorkings(
  { sectionMassesG, sectionsLaid }: Takeoff,
  { sections }: PartingTotals,
  fixings: Fixings | undefined,
): Readonly<Record<"heaviest" | "total", Working>> {
  const numbers = sections.map(({ number }) => number);
  const heaviest = sectionMassesG.indexOf(Math.max(...sectionMassesG));
  const total = shellMassWorking(sectionMassesG, numbers);
  const laid = sectionsLaid[heaviest];
  return { total, heaviest: laid ? sectionMassWorking(laid, areMeasured(sectionsLaid, fixings)) : total };
}

function withoutSolids({ laidMm3: _laidMm3, ...fixings }: Fixings): Fixings {
  return fixings;
}

/** Work begins on a Monday at eight. */
const BEGIN_MIN = 8 * 60;

function boughtFor(
  { materials }: Takeoff,
  { store = EMPTY_STORE, today }: PlanTotals,
  { materials: { own } }: PlanDocument,
): BuyingRow[] {
  return buyingRows(materials, store, today, own);
}
