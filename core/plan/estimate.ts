/** From sections to quantities, masses, hours and money. */

import { jacketThicknessMm } from "../jacket/coat.ts";
import { type SeamTakeoff, seamSchool, seamTakeoff } from "../jacket/seam.ts";
import { clayShareOf } from "../jacket/stops.ts";
import type { MaterialLine, Working } from "../materials/property.ts";
import { SILICONE, siliconeBuying, siliconeMassG } from "../materials/silicone.ts";
import type { PartingPrices, PricedPlan } from "../parting/price.ts";
import type { FillPart } from "../release/fills.ts";
import type { Task } from "../schedule/line.ts";
import { FLANGE_WIDTH_MM, type ShellTakeoff, shellSystem, shellTakeoff } from "../shell/index.ts";
import { MM2_PER_M2, MM3_PER_CM3 } from "../units/index.ts";
import type { PlanDocument } from "./document.ts";

/** The workshop's own rates. All typical, all editable in the settings. */
export interface Rates {
  readonly currency: string;
  readonly siliconePerKgMinor: number;
  readonly shellPerKgMinor: number;
  readonly hourMinor: number;
  /** Brushing a square metre of one coat, minutes of hands. */
  readonly coatMinPerM2: number;
  /** Laying a square metre of one layer of shell. */
  readonly layerMinPerM2: number;
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
  /** Cutting a limb off, with dowels and the dressing of the joint: what a great fill is weighed against. */
  readonly cutOffMin: number;
  /** How many times dearer a line is held to be that runs through a zone to keep clear. */
  readonly keepClearWeight: number;
}

export const TYPICAL_RATES: Rates = {
  currency: "€",
  siliconePerKgMinor: 2400,
  shellPerKgMinor: 350,
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
  cutOffMin: 240,
  keepClearWeight: 5,
};

export interface Estimate {
  readonly thicknessMm: number;
  readonly sectionMassesG: readonly number[];
  readonly siliconeG: number;
  /** Silicone of the fills. */
  readonly fillG: number;
  readonly shellG: number;
  /** What each of the fills costs, in their order, in minor units. */
  readonly fillsMinor: readonly number[];
  readonly materials: readonly MaterialLine[];
  /** The work in the order it is done, with its waits: what says when the mould is ready. */
  readonly tasks: readonly Task[];
  readonly handsMin: number;
  /** Finishing the seams of every cast of the edition, minutes. */
  readonly finishMin: number;
  readonly handsWorking: Working;
  readonly costMinor: number;
  readonly costWorking: Working;
}

/** What of a jacket an estimate depends on. */
export interface JacketTotals {
  readonly siliconeG: number;
  readonly outerAreaMm2: number;
  /** What closes through-holes. */
  readonly stopsMm3: number;
  /** What closes gaps at the foot. */
  readonly footClayMm3: number;
  readonly coats: readonly { readonly massG: number }[];
}

/** What of the sections an estimate depends on. */
export interface SectionTotals {
  readonly sections: readonly {
    readonly number: number;
    readonly areaMm2: number;
    readonly lineMm: number;
    /** Does it leave only after the piece has been lifted? */
    readonly lifted?: boolean;
  }[];
  readonly partingLengthMm: number;
  readonly fillMm3: number;
  /** Of it, filled with clay. */
  readonly clayMm3: number;
  /** Of it, hard plugs. */
  readonly plugMm3: number;
  /** The fills one by one; settled plans only. */
  readonly fillParts?: readonly Pick<FillPart, "kind" | "volumeMm3">[];
}

/** Clay of the parting walls: their section, mm2, and density (wet water clay), g/cm3. */
const WALL_SECTION_MM2 = (FLANGE_WIDTH_MM + 15) * 25;
const CLAY_DENSITY = 1.9;
/** Release agent, g per square metre and face. */
const RELEASE_G_PER_M2 = 60;

/** What a parting costs at the workshop's rates, in minor units: what the search for sections makes least. */
export function partingPrices(document: PlanDocument, rates: Rates): PartingPrices {
  const perMinute = rates.hourMinor / 60;
  const { brief, shell } = document;
  const metre = shellTakeoff(shell.system, shell.figures, { areasMm2: [MM2_PER_M2], flangeLengthsMm: [0] });
  return {
    fillPerMm3: (SILICONE.densityGPerCm3.value / MM3_PER_CM3 / 1000) * rates.siliconePerKgMinor,
    wallPerMm: (rates.wallMinPerM / 1000) * perMinute,
    finishPerMm: (rates.finishMinPerM / 1000) * perMinute * brief.edition,
    keepClearWeight: rates.keepClearWeight,
    setupPerSection: rates.sectionSetupMin * perMinute,
    waitPerSection: (shellSystem(shell.system).setMin.value / 60) * rates.waitHourMinor,
    lift: rates.liftMin * perMinute,
    shellGPerMm2: metre.sectionMassesG[0] / MM2_PER_M2,
    liftLimitG: brief.liftLimitKg * 1000,
    overLiftPerG: rates.overLiftPerKgMinor / 1000,
    handlingMm: brief.handlingMm,
    overHandlingPerMm: rates.overHandlingPerMMinor / 1000,
  };
}

/** Hours of hands and of waiting that a parting's sections and lines take, the edition's finishing with them. */
export function partingHours(
  plan: Pick<PricedPlan, "lineMm" | "lifted"> & { readonly sections: { readonly length: number } },
  document: PlanDocument,
  rates: Rates,
): number {
  const metres = plan.lineMm / 1000;
  const minutes =
    metres * (rates.wallMinPerM + rates.finishMinPerM * document.brief.edition) +
    plan.sections.length * (rates.sectionSetupMin + shellSystem(document.shell.system).setMin.value) +
    (plan.lifted ? rates.liftMin : 0);
  return minutes / 60;
}

export function estimate(
  document: PlanDocument,
  jacket: JacketTotals,
  sections: SectionTotals,
  rates: Rates,
): Estimate {
  const takeoff = shellTakeoff(document.shell.system, document.shell.figures, {
    areasMm2: sections.sections.map((section) => section.areaMm2),
    flangeLengthsMm: sections.sections.map((section) => section.lineMm),
  });
  const fillG = siliconeMassG(sections.fillMm3 - sections.clayMm3 - sections.plugMm3);
  const siliconeG = jacket.siliconeG + fillG;
  const thickenedG =
    fillG + jacket.coats.reduce((sum, coat, k) => sum + (document.jacket.coats[k]?.thickened ? coat.massG : 0), 0);
  const seam = seamTakeoff(document.jacket.seam, jacketThicknessMm(document.jacket.coats));
  const clayShare = clayShareOf(document.jacket.stops, document.seat.onBoard);
  const materials = [
    ...siliconeBuying(siliconeG, thickenedG),
    ...takeoff.lines,
    ...sundries(jacket, sections),
    clay("Clay for fills", "fills of clay", sections.clayMm3),
    clay("Clay for the foot", "gaps under the piece", jacket.footClayMm3),
    clay("Clay for through-holes", "webs of clay", jacket.stopsMm3 * clayShare),
    plugs(document, jacket.stopsMm3 * (1 - clayShare)),
    fillPlugs(sections.plugMm3),
    ...seamMaterials(seam),
  ].filter((line) => line.quantity > 0);
  const tasks = tasksInOrder(document, jacket, sections, takeoff, rates);
  const handsMin = tasks.reduce((sum, task) => sum + task.handsMin, 0);
  const finishMin = ((sections.partingLengthMm + seam.lengthMm) / 1000) * rates.finishMinPerM * document.brief.edition;
  const shellG = takeoff.sectionMassesG.reduce((sum, mass) => sum + mass, 0);
  return {
    thicknessMm: takeoff.thicknessMm,
    sectionMassesG: takeoff.sectionMassesG,
    siliconeG,
    fillG,
    shellG,
    fillsMinor: (sections.fillParts ?? []).map((part) => fillMinor(part, rates)),
    materials,
    tasks,
    handsMin,
    finishMin,
    handsWorking: handsWorking(document, jacket, sections, takeoff, rates),
    ...cost(siliconeG, shellG, handsMin, finishMin, rates),
  };
}

/** What a fill costs in material, in minor units: clay comes out again, and plugs are cast of what the shop has. */
function fillMinor({ kind, volumeMm3 }: Pick<FillPart, "kind" | "volumeMm3">, rates: Rates): number {
  return kind === "silicone" ? (siliconeMassG(volumeMm3) / 1000) * rates.siliconePerKgMinor : 0;
}

/** Clay comes out again and is used again: it is told, and not priced. */
function clay(item: string, what: string, mm3: number): MaterialLine {
  return {
    item,
    group: "sundries",
    quantity: (mm3 * CLAY_DENSITY) / MM3_PER_CM3 / 1000,
    unit: "kg",
    working: {
      formula: `${what} × density`,
      inputs: [
        { name: what, value: mm3 / MM3_PER_CM3, unit: "cm³" },
        { name: "density", value: CLAY_DENSITY, unit: "g/cm³" },
      ],
    },
  };
}

/** Plugs are cast beforehand, of what the shop has. */
function plugs({ jacket: { stops } }: PlanDocument, mm3: number): MaterialLine {
  return {
    item: "Plugs for through-holes, cast beforehand",
    group: "sundries",
    quantity: stops.filter(({ kind }) => kind === "plug").length,
    unit: "pcs",
    working: {
      formula: "through-holes closed with a plug",
      inputs: [{ name: "all of them displace", value: mm3 / MM3_PER_CM3, unit: "cm³" }],
    },
  };
}

function fillPlugs(mm3: number): MaterialLine {
  return {
    item: "Plugs for fills, cast beforehand",
    group: "sundries",
    quantity: mm3 / MM3_PER_CM3 / 1000,
    unit: "l",
    working: {
      formula: "fills that are hard plugs",
      inputs: [{ name: "hard plugs", value: mm3 / MM3_PER_CM3, unit: "cm³" }],
    },
  };
}

function seamMaterials({ releasedMm2, shims, lengthMm }: SeamTakeoff): MaterialLine[] {
  const releasedM2 = releasedMm2 / MM2_PER_M2;
  return [
    {
      item: "Release between the jacket's parts",
      group: "sundries",
      quantity: (releasedM2 * RELEASE_G_PER_M2) / 1000,
      unit: "kg",
      working: {
        formula: "both faces of the seam × release per m²",
        inputs: [
          { name: "seam", value: lengthMm / 1000, unit: "m" },
          { name: "faces", value: releasedM2, unit: "m²" },
          { name: "release", value: RELEASE_G_PER_M2, unit: "g/m²" },
        ],
      },
    },
    {
      item: "Shims for the jacket's seam",
      group: "sundries",
      quantity: shims,
      unit: "pcs",
      working: {
        formula: "seam × shims per metre",
        inputs: [{ name: "seam", value: lengthMm / 1000, unit: "m" }],
      },
    },
  ];
}

/** Making the seam: before the coats, or cut once the shell is off. */
function withSeam(document: PlanDocument, work: { coats: readonly Task[]; shells: readonly Task[] }): Task[] {
  const { seam, coats } = document.jacket;
  const { makeMin } = seamTakeoff(seam, jacketThicknessMm(coats));
  const task: Task = {
    name: `Jacket seam: ${seamSchool(seam.school).name.toLowerCase()}`,
    handsMin: makeMin,
    waitMin: 0,
  };
  if (makeMin === 0) return [...work.coats, ...work.shells];
  return seam.school === "cut" ? [...work.coats, ...work.shells, task] : [task, ...work.coats, ...work.shells];
}

function sundries(jacket: JacketTotals, sections: SectionTotals): MaterialLine[] {
  const wallG = (sections.partingLengthMm * WALL_SECTION_MM2 * CLAY_DENSITY) / MM3_PER_CM3;
  const faceM2 = (jacket.outerAreaMm2 + 2 * sections.partingLengthMm * FLANGE_WIDTH_MM) / MM2_PER_M2;
  return [
    {
      item: "Water clay for parting walls",
      group: "sundries",
      quantity: wallG / 1000,
      unit: "kg",
      working: {
        formula: "parting length × wall section × density",
        inputs: [
          { name: "parting length", value: sections.partingLengthMm / 1000, unit: "m" },
          { name: "wall section", value: WALL_SECTION_MM2, unit: "mm²" },
          { name: "density", value: CLAY_DENSITY, unit: "g/cm³" },
        ],
      },
    },
    {
      item: "Release for jacket and flanges",
      group: "sundries",
      quantity: (faceM2 * RELEASE_G_PER_M2) / 1000,
      unit: "kg",
      working: {
        formula: "(jacket + both faces of the flanges) × release per m²",
        inputs: [
          { name: "faces", value: faceM2, unit: "m²" },
          { name: "release", value: RELEASE_G_PER_M2, unit: "g/m²" },
        ],
      },
    },
  ];
}

/** The work in the order it is done: coats, then sections from the lowest up, then opening. */
function tasksInOrder(
  document: PlanDocument,
  jacket: JacketTotals,
  sections: SectionTotals,
  takeoff: ShellTakeoff,
  rates: Rates,
): Task[] {
  const skinM2 = jacket.outerAreaMm2 / MM2_PER_M2;
  const { setMin, restMin } = shellSystem(document.shell.system);
  const coats = document.jacket.coats.map((_, k, all): Task => {
    const last = k === all.length - 1;
    return {
      name: `Coat ${k + 1}`,
      handsMin: skinM2 * rates.coatMinPerM2,
      waitMin: last ? SILICONE.cureMin.value : SILICONE.tackMin.value,
    };
  });
  const share = sections.sections.length > 0 ? 1 / sections.sections.length : 0;
  const shells = sections.sections.map(
    (section, k, all): Task => ({
      name: `Section ${section.number}`,
      handsMin:
        share *
          (skinM2 * takeoff.layers * rates.layerMinPerM2 + (sections.partingLengthMm / 1000) * rates.wallMinPerM) +
        rates.sectionSetupMin,
      waitMin: k === all.length - 1 ? restMin.value : setMin.value,
    }),
  );
  const lift: Task = { name: "Lift the piece in its mould", handsMin: rates.liftMin, waitMin: 0 };
  const opening = sections.sections.some(({ lifted }) => lifted) ? [lift] : [];
  return withSeam(document, { coats, shells: [...shells, ...opening] });
}

function handsWorking(
  document: PlanDocument,
  jacket: JacketTotals,
  sections: SectionTotals,
  takeoff: ShellTakeoff,
  rates: Rates,
): Working {
  return {
    formula:
      "area × (coats × min/m² + layers × min/m²) + parting metres × min/m + sections × set-up + lifts × min + jacket seam",
    inputs: [
      { name: "jacket", value: jacket.outerAreaMm2 / MM2_PER_M2, unit: "m²" },
      { name: "coats", value: document.jacket.coats.length, unit: `at ${rates.coatMinPerM2} min/m²` },
      { name: "shell layers", value: takeoff.layers, unit: `at ${rates.layerMinPerM2} min/m²` },
      { name: "parting", value: sections.partingLengthMm / 1000, unit: `m at ${rates.wallMinPerM} min/m` },
      { name: "sections", value: sections.sections.length, unit: `at ${rates.sectionSetupMin} min` },
      { name: "lifts", value: sections.sections.some(({ lifted }) => lifted) ? 1 : 0, unit: `at ${rates.liftMin} min` },
      {
        name: "jacket seam",
        value: seamTakeoff(document.jacket.seam, jacketThicknessMm(document.jacket.coats)).makeMin,
        unit: "min",
      },
    ],
  };
}

function cost(
  siliconeG: number,
  shellG: number,
  handsMin: number,
  finishMin: number,
  rates: Rates,
): { costMinor: number; costWorking: Working } {
  const boughtKg = (siliconeG / 1000) * (1 + SILICONE.wasteShare.value);
  const costMinor = Math.round(
    boughtKg * rates.siliconePerKgMinor +
      (shellG / 1000) * rates.shellPerKgMinor +
      ((handsMin + finishMin) / 60) * rates.hourMinor,
  );
  return {
    costMinor,
    costWorking: {
      formula: "silicone × price + shell × price + hours × rate",
      inputs: [
        {
          name: "silicone with waste",
          value: boughtKg,
          unit: `kg at ${rates.currency} ${rates.siliconePerKgMinor / 100}`,
        },
        { name: "shell", value: shellG / 1000, unit: `kg at ${rates.currency} ${rates.shellPerKgMinor / 100}` },
        {
          name: "finishing every cast",
          value: finishMin / 60,
          unit: `h at ${rates.currency} ${rates.hourMinor / 100}`,
        },
        { name: "hands", value: handsMin / 60, unit: `h at ${rates.currency} ${rates.hourMinor / 100}` },
      ],
    },
  };
}
