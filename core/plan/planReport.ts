/** All of a plan as one plain object: what the command line prints as JSON. */
import { liquidHead } from "../casting/liquidHead.ts";
import { isCharge } from "../casting/settings.ts";
import type { Wetted } from "../casting/wetted.ts";
import type { JacketKey } from "../keys/jacketKeys.ts";
import { materialName } from "../materials/catalogue.ts";
import type { Leaving, PullRange } from "../parting/search/pullRange.ts";
import type { Rates } from "../takeoff/rates.ts";
import type { ComparedPlan } from "./advice/offers.ts";
import { builtFootprint } from "./builtFoot.ts";
import type { BuiltSection } from "./builtSections.ts";
import { builtStraps } from "./builtStraps.ts";
import { type BuiltWall, boltReport, flangeKeyReport, wallReport } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanResult } from "./engine.ts";
import { fixingsFrom } from "./fixings.ts";
import { figuresAtRates } from "./results/atRates.ts";
import { type PlanIds, told, weighedAs } from "./results/figures.ts";
import { geometryReport, type ReportTimings } from "./results/report.ts";
import { warningInWords } from "./results/warnings.ts";
import { NO_SOLIDS, type SectionsAsBuilt } from "./sectionsAsBuilt.ts";

/** What the command line adds to a report. */
export interface ReportExtras {
  readonly rates: Rates;
  readonly document: PlanDocument;
  /** The plans of every number of sections. */
  readonly plans?: readonly ComparedPlan[];
  /** From where each section could be pulled. */
  readonly ranges?: readonly PullRange[];
  readonly walls?: readonly BuiltWall[];
  /** Keys on the jacket. */
  readonly keys?: readonly JacketKey[];
  /** What single decisions go by. */
  readonly ids?: PlanIds;
  /** The sections as solids, where they were made. */
  readonly built?: SectionsAsBuilt;
}

const NO_IDS: PlanIds = { sections: [], lines: [] };

export function planReport(
  result: PlanResult,
  timings: ReportTimings,
  { rates, document, plans = [], ranges = [], walls, built = NO_SOLIDS, keys = [], ids = NO_IDS }: ReportExtras,
) {
  const { sections: solids, clashes, reliefs } = built;
  const geometry = geometryReport(result, timings);
  const { takeoff, cutOff, warnings } = figuresAtRates(told({ report: geometry, ids }), document, rates, {
    ...fixingsFrom({ jacket: result.parting.filled, cavity: result.cavity }, document, walls ?? [], keys.length),
    ...(solids.length > 0 ? { laidMm3: solids.map(({ laidMm3 }) => laidMm3) } : {}),
  });
  const ground = { jacket: result.parting.filled, cavity: result.cavity };
  const straps = builtStraps(ground, document, walls ?? []);
  const footprint = builtFootprint({ piece: result.piece.mesh, jacket: ground.jacket }, document, walls ?? []);
  return {
    ...weighedAs(geometry, document),
    sections: geometry.sections.map((section, k) => ({
      ...section,
      shellMassG: takeoff.sectionMassesG[k],
      range: ranges[k] ? rangeReport(ranges[k]) : null,
      ...(solids[k] ? solidReport(solids[k]) : {}),
      ...(solids[k] ? { clashes: clashes.filter(({ section: own }) => own === k + 1) } : {}),
      ...(solids[k] ? { reliefs: reliefs.filter(({ section: own }) => own === k + 1) } : {}),
    })),
    walls: walls ? wallReport(walls) : [],
    bolts: walls ? boltReport(walls) : [],
    flangeKeys: walls ? flangeKeyReport(walls) : [],
    jacketKeys: keys,
    straps: straps.map(({ heightMm, lengthMm }) => ({ heightMm, lengthMm })),
    foot: footprint && {
      ...{ boardMm: footprint.boardMm, pourHole: footprint.pourHole },
      bolts: footprint.bolts.map(({ at }) => at),
    },
    liquidHead: walls && result.cavity ? headOf(document, result.cavity, walls) : null,
    cutOff,
    plans: plans.map((plan) => ({
      sections: plan.sections.map(({ pull, areaMm2, massG, fillMm3, releases }) => ({
        pull,
        areaMm2,
        shellMassG: massG,
        fillMm3,
        releases,
      })),
      partingLengthMm: plan.lineMm,
      fillMm3: plan.fillMm3,
      costMinor: Math.round(plan.cost),
      costParts: plan.parts,
      hours: plan.hours,
      reason: plan.reason,
    })),
    materials: takeoff.materials.map((line) => ({
      item: materialName(line, document.materials.own),
      material: line.material,
      use: line.use,
      quantity: line.quantity,
      unit: line.unit,
    })),
    warnings: warnings.map((warning) => warningInWords(warning, geometry.piece.boxMm)),
  };
}

export type PlanReport = ReturnType<typeof planReport>;

function headOf({ brief, shell }: PlanDocument, wetted: Wetted, walls: readonly BuiltWall[]) {
  return liquidHead({
    wetted,
    walls,
    casting: shell.casting,
    castMaterial: brief.castMaterial,
    isCharge: isCharge(brief.castMethod),
  });
}

/** What its solid tells of a section. */
function solidReport({ massWetG, massDryG, volumeMm3, centreMm, sizeMm, pieces, lift }: BuiltSection) {
  return { massWetG, massDryG, volumeMm3, centreMm, sizeMm, pieces, lift };
}

/** The pulls a section leaves along, by how; and the one that costs it least. */
function rangeReport({ directions, best, bestLeaving }: PullRange) {
  const of = (wanted: Leaving) => directions.filter(({ leaving }) => leaving === wanted).map(({ pull }) => pull);
  return { free: of("free"), withFill: of("fill"), best, bestLeaving };
}
