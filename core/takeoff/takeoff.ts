/**
 * From a plan's document and the areas, lengths and volumes of its results to quantities, work and money: pure, in
 * milliseconds, the same on the page, the server and the command line. Results hold no money; this is where it comes in.
 */
import { jacketThicknessMm } from "../jacket/coat.ts";
import { seamTakeoff } from "../jacket/seam.ts";
import { materialName } from "../materials/catalogue.ts";
import type { Working } from "../materials/property.ts";
import { layTerms, type PlanDocument } from "../plan/document/document.ts";
import type { Task } from "../schedule/line.ts";
import { type SectionLaid, shellTakeoff, shellThicknesses } from "../shell/index.ts";
import { layupsFor } from "../shell/layup.ts";
import { checkFigures } from "../units/index.ts";
import { type Cost, costOf, fillMinor } from "./cost.ts";
import { type Fixings, spanAsBuilt } from "./fixings.ts";
import { spanOf } from "./flanges.ts";
import { potRows } from "./pots.ts";
import { type Quantities, quantitiesOf } from "./quantities.ts";
import type { Rates } from "./rates.ts";
import { coresG, ribsOf } from "./ribs.ts";
import { sealings } from "./sealings.ts";
import { sundryLines } from "./sundries.ts";
import { handsWorking, tasksOf } from "./tasks.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

export interface Takeoff extends Quantities, Cost {
  readonly thicknessMm: number;
  readonly sectionMassesG: readonly number[];
  /** What each section is laid on, and what of that weighs how much. */
  readonly sectionsLaid: readonly (SectionLaid & { readonly coresG: number })[];
  readonly shellG: number;
  /** What each of the fills costs, in their order, in minor units. */
  readonly fillsMinor: readonly number[];
  /** The work in the order it is done, with its waits: what says when the mould is ready. */
  readonly tasks: readonly Task[];
  readonly handsMin: number;
  /** Finishing the seams of every cast of the edition, minutes. */
  readonly finishMin: number;
  readonly handsWorking: Working;
}

/**
 * @param fixings what is counted on walls and jacket, where they are worked out
 * @throws ImpossibleFigure where a mass, a quantity or a time is less than nothing or no number
 */
export function takeoff(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  rates: Rates,
  fixings: Fixings = { bolts: 0, jacketKeys: 0 },
): Takeoff {
  const span = spanOf(document, parting);
  const layups = layupsFor(
    document.shell,
    parting.sections.map(({ id }) => id),
  );
  const terms = layTerms(document);
  const laid = shellTakeoff(layups, spanAsBuilt(span, fixings, layups), terms);
  const cores = coresG(ribsOf(document, parting), parting);
  const shell = { ...laid, sectionMassesG: laid.sectionMassesG.map((massG, k) => massG + cores[k]) };
  const quantities = quantitiesOf(document, jacket, parting, shell, fixings);
  const seam = seamTakeoff(document.jacket.seam, jacketThicknessMm(document.jacket.coats));
  const sealed = sealings(document, jacket, parting, fixings);
  const tasks = tasksOf(document, jacket, parting, shell, rates, sealed);
  const handsMin = tasks.reduce((sum, task) => sum + task.handsMin, 0);
  const finishMin = ((parting.partingLengthMm + seam.lengthMm) / 1000) * rates.finishMinPerM * document.brief.edition;
  const pots = potRows(document, parting, quantities, fixings);
  const materials = [...quantities.materials, ...sundryLines(document, pots, handsMin, fixings.jacketKeys)];
  const shellG = shell.sectionMassesG.reduce((sum, mass) => sum + mass, 0);
  const cost = costOf(
    {
      ...{ document, quantities, shell, materials, tasks, finishMin },
      sections: parting.sections.map(({ number }) => number),
    },
    rates,
  );
  const siliconeMinor = cost.units[document.jacket.silicone];
  checkFigures([
    ["mass of the silicone", quantities.siliconeG],
    ["mass of the fill", quantities.fillG],
    ["mass of the shell", shellG],
    ["time of finishing", finishMin],
    ...materials.map((line): [string, number] => [
      `quantity of ${materialName(line, document.materials.own)}`,
      line.quantity,
    ]),
    ...tasks.map((task): [string, number] => [`time of "${task.name}"`, task.handsMin]),
  ]);
  return {
    ...quantities,
    materials,
    thicknessMm: shellThicknesses(document.shell).shellMm,
    sectionMassesG: shell.sectionMassesG,
    sectionsLaid: shell.sectionsLaid.map((section, k) => ({ ...section, coresG: cores[k] })),
    shellG,
    fillsMinor: (parting.fillParts ?? []).map((part) => fillMinor(part, rates, siliconeMinor)),
    tasks,
    handsMin,
    finishMin,
    handsWorking: handsWorking(document, jacket, parting, shell, rates, sealed),
    ...cost,
  };
}
