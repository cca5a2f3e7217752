/** The work of a plan in the order it is done, and the hours of hands it takes. */
import { jacketThicknessMm } from "../jacket/coat.ts";
import { seamSchool, seamTakeoff } from "../jacket/seam.ts";
import { minutesAt } from "../materials/mixing.ts";
import type { Working } from "../materials/property.ts";
import { siliconeOf } from "../materials/silicone.ts";
import { coatSilicones, type PlanDocument } from "../plan/document/document.ts";
import type { Task } from "../schedule/line.ts";
import { type ShellTakeoff, shellSystem } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import { MM2_PER_M2, MM3_PER_LITRE } from "../units/index.ts";
import type { Rates } from "./rates.ts";
import { type Sealing, sealingTasks } from "./sealings.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

/** Webs, then coats, then what is filled over them, then sections from the lowest up, then opening. */
export function tasksOf(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  shell: ShellTakeoff,
  rates: Rates,
  sealed: readonly Sealing[],
): Task[] {
  const { seam } = document.jacket;
  const fills = laidLitres(parting);
  const hands = (id: string, name: string, handsMin: number): Task[] =>
    handsMin > 0 ? [{ id, name, handsMin, waitMin: 0 }] : [];
  const makeSeam = hands("seam", `Jacket seam: ${seamSchool(seam.school).name.toLowerCase()}`, seamMin(document));
  const isLifted = parting.sections.some(({ lifted }) => lifted);
  return [
    ...hands("webs", "Webs of clay", fills.webs * rates.fillMinPerL),
    ...(seam.school === "cut" ? [] : makeSeam),
    ...sealingTasks(sealed, "coats", document),
    ...coatTasks(document, jacket, rates),
    ...hands("fills", "Clay and plugs for fills", fills.overJacket * rates.fillMinPerL),
    ...sealingTasks(sealed, "sections", document),
    ...sectionTasks(document, parting, shell, rates),
    ...hands("lift", "Lift the piece in its mould", isLifted ? rates.liftMin : 0),
    ...(seam.school === "cut" ? makeSeam : []),
  ];
}

function coatTasks(document: PlanDocument, jacket: JacketTotals, rates: Rates): Task[] {
  const { temperatureC } = document.mixing;
  return coatSilicones(document.jacket).map((silicone, k, all) => {
    const { tackMin, cureMin } = siliconeOf(silicone, document.materials.own);
    return {
      id: `coat-${k + 1}`,
      name: `Coat ${k + 1}`,
      handsMin: (jacket.outerAreaMm2 / MM2_PER_M2) * rates.coatMinPerM2,
      waitMin: minutesAt(k === all.length - 1 ? cureMin : tackMin, temperatureC),
    };
  });
}

/** Each section by its own area; a wall is shared by the two sections it parts. */
function sectionTasks(
  document: PlanDocument,
  { sections, partingLengthMm }: PartingTotals,
  { sectionLayers }: ShellTakeoff,
  rates: Rates,
): Task[] {
  const alongMm = sections.reduce((sum, { lineMm }) => sum + lineMm, 0);
  return sections.map(({ number, id, areaMm2, lineMm }, k) => ({
    id: `section-${number}`,
    name: `Section ${number}`,
    handsMin:
      (areaMm2 / MM2_PER_M2) * sectionLayers[k] * rates.layerMinPerM2 +
      (alongMm > 0 ? (partingLengthMm / 1000) * (lineMm / alongMm) * rates.wallMinPerM : 0) +
      rates.sectionSetupMin,
    waitMin: waitMin(layupFor(document.shell, id).system, k === sections.length - 1),
  }));
}

/** Before the next section is built against one, or the shell is opened. */
function waitMin(system: string, isLast: boolean): number {
  const { setMin, restMin } = shellSystem(system);
  return (isLast ? restMin : setMin).value;
}

function seamMin({ jacket: { seam, coats } }: PlanDocument): number {
  return seamTakeoff(seam, jacketThicknessMm(coats)).makeMin;
}

/** Litres of fill that are laid by hand: webs under the jacket, clay and plugs over it. */
function laidLitres({ fillParts = [], clayMm3, plugMm3 }: PartingTotals): { webs: number; overJacket: number } {
  const webMm3 = fillParts.reduce((sum, { kind, volumeMm3 }) => sum + (kind === "web" ? volumeMm3 : 0), 0);
  return { webs: webMm3 / MM3_PER_LITRE, overJacket: Math.max(0, clayMm3 + plugMm3 - webMm3) / MM3_PER_LITRE };
}

/** How the hours of all tasks together come about. */
export function handsWorking(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  shell: ShellTakeoff,
  rates: Rates,
  sealed: readonly Sealing[],
): Working {
  const sealing = [...sealingTasks(sealed, "coats", document), ...sealingTasks(sealed, "sections", document)];
  const sealMin = sealing.reduce((sum, { handsMin }) => sum + handsMin, 0);
  const laidMm2 = parting.sections.reduce((sum, { areaMm2 }, k) => sum + areaMm2 * shell.sectionLayers[k], 0);
  const fills = laidLitres(parting);
  const lifts = parting.sections.some(({ lifted }) => lifted) ? 1 : 0;
  return {
    formula:
      "jacket × coats × min/m² + shell, every layer × min/m² + parting metres × min/m + sections × set-up + fills laid × min/l + lifts × min + jacket seam + sealing",
    inputs: [
      { name: "jacket", value: jacket.outerAreaMm2 / MM2_PER_M2, unit: "m²" },
      { name: "coats", value: document.jacket.coats.length, unit: `at ${rates.coatMinPerM2} min/m²` },
      { name: "shell, every layer", value: laidMm2 / MM2_PER_M2, unit: `m² at ${rates.layerMinPerM2} min/m²` },
      { name: "parting", value: parting.partingLengthMm / 1000, unit: `m at ${rates.wallMinPerM} min/m` },
      { name: "sections", value: parting.sections.length, unit: `at ${rates.sectionSetupMin} min` },
      { name: "fills laid", value: fills.webs + fills.overJacket, unit: `l at ${rates.fillMinPerL} min/l` },
      { name: "lifts", value: lifts, unit: `at ${rates.liftMin} min` },
      { name: "jacket seam", value: seamMin(document), unit: "min" },
      { name: "sealing", value: sealMin, unit: "min" },
    ],
  };
}
