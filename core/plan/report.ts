/** The plan as one plain object: what the command line prints as JSON. */

import type { Leaving, PullRange } from "../parting/pullRange.ts";
import type { FillKind } from "../release/fills.ts";
import type { PlanResult } from "./engine.ts";
import type { ComparedPlan } from "./offers.ts";

export interface ReportTimings {
  readonly readMs: number;
  readonly totalMs: number;
  readonly planMs: number;
}

/** What is added to a report where it was asked for. */
export interface ReportExtras {
  /** The plans of every number of sections. */
  readonly plans?: readonly ComparedPlan[];
  /** From where each section could be pulled. */
  readonly ranges?: readonly PullRange[];
}

export function planReport(result: PlanResult, timings: ReportTimings, { plans = [], ranges = [] }: ReportExtras = {}) {
  const { piece, jacket, sections, estimate } = result;
  return {
    piece: {
      triangles: piece.report.triangles,
      openEdges: piece.report.openEdges,
      nonManifoldEdges: piece.report.nonManifoldEdges,
      parts: piece.report.parts,
      areaMm2: piece.areaMm2,
      volumeMm3: piece.volumeMm3,
      sizeMm: piece.sizeMm,
      repairs: piece.report.repairs,
    },
    jacket: {
      thicknessMm: jacket.thicknessMm,
      smoothingMm: jacket.request.smoothingMm,
      stepMm: jacket.request.stepMm,
      outerAreaMm2: jacket.outerAreaMm2,
      outerVolumeMm3: jacket.outerVolumeMm3,
      rimMm3: jacket.rimMm3,
      stopsMm3: jacket.stopsMm3,
      footClayMm3: jacket.footClayMm3,
      siliconeMm3: jacket.siliconeMm3,
      siliconeG: jacket.siliconeG,
      coats: jacket.coats.map(({ thicknessMm, areaMm2, massG }) => ({ thicknessMm, areaMm2, massG })),
    },
    sections: sections.sections.map((section, k) => ({
      number: section.number,
      origin: section.origin,
      pull: section.pull,
      areaMm2: section.areaMm2,
      fillMm3: section.fillMm3,
      fillWith: section.fillWith,
      plugUnder: section.plugUnder,
      fillThickMm: section.fillThickMm,
      releases: section.releases,
      biteMm: section.biteMm,
      biteAt: section.biteAt,
      travelMm: section.travelMm,
      lifted: section.lifted,
      /** Litres by what they are made of. */
      fills: litres(section.fills),
      /** Parting line along it. */
      lineMm: section.lineMm,
      shellMassG: estimate.sectionMassesG[k],
      range: ranges[k] ? rangeReport(ranges[k]) : null,
    })),
    order: {
      build: sections.sections.map((section) => section.number),
      remove: sections.sections.map((section) => section.number).reverse(),
      /** The section before whose turn the piece is lifted; null where none needs it. */
      /** How high the piece must hang for the sections that leave after the lift, mm. */
      liftMm: Math.max(0, ...sections.sections.map(({ lifted, pull, travelMm }) => (lifted ? -pull[2] * travelMm : 0))),
      liftBefore: [...sections.sections].reverse().find((section) => section.lifted)?.number ?? null,
      blocks: sections.blocks,
      circle: sections.circle,
    },
    giveMm: sections.giveMm,
    fillParts: sections.fillParts,
    /** Where cutting a limb off would be the better way. */
    cutOff: result.cutOff,
    partingLengthMm: sections.partingLengthMm,
    /** Length of line in each kind of zone. */
    zoneMm: result.zoneMm,
    /** Stretches of line out of sight along one neighbour's pull. */
    hidden: sections.hidden,
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
    materials: estimate.materials.map(({ item, quantity, unit }) => ({ item, quantity, unit })),
    timingsMs: {
      read: timings.readMs,
      field: jacket.timings.fieldMs,
      jacket: jacket.timings.jacketMs,
      plan: timings.planMs,
      total: timings.totalMs,
    },
    warnings: result.warnings,
  };
}

function litres(fills: Readonly<Record<FillKind, number>>): Record<FillKind, number> {
  const { silicone, clay, web, plug } = fills;
  return { silicone: silicone / 1e6, clay: clay / 1e6, web: web / 1e6, plug: plug / 1e6 };
}

/** The pulls a section leaves along, by how; and the one that costs it least. */
function rangeReport({ directions, best, bestLeaving }: PullRange) {
  const of = (wanted: Leaving) => directions.filter(({ leaving }) => leaving === wanted).map(({ pull }) => pull);
  return { free: of("free"), withFill: of("fill"), best, bestLeaving };
}

export type PlanReport = ReturnType<typeof planReport>;
