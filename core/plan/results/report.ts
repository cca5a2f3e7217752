/** A plan's geometry and figures as one plain object: what pages show, and what is kept. */
import { meshBox } from "../../mesh/mesh.ts";
import type { FillKind } from "../../release/fills.ts";
import { areasByWidth } from "../../walls/areas.ts";
import type { PlanResult } from "./planResult.ts";

export interface ReportTimings {
  readonly readMs: number;
  readonly totalMs: number;
  readonly planMs: number;
}

/** Geometry alone: no money, and nothing that is worked out with rates. */
export function geometryReport(result: PlanResult, timings: ReportTimings) {
  const { piece, jacket, parting } = result;
  return {
    piece: {
      triangles: piece.report.triangles,
      openEdges: piece.report.openEdges,
      nonManifoldEdges: piece.report.nonManifoldEdges,
      parts: piece.report.parts,
      areaMm2: piece.areaMm2,
      volumeMm3: piece.volumeMm3,
      sizeMm: piece.sizeMm,
      boxMm: meshBox(piece.mesh),
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
    sections: parting.sections.map((section) => ({
      number: section.number,
      origin: section.origin,
      pull: section.pull,
      areaMm2: section.areaMm2,
      bends: section.bends,
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
      /** How far it stands along the board. */
      footMm: section.footMm,
      footAreasMm2: section.footAreasMm2,
    })),
    order: {
      build: parting.sections.map((section) => section.number),
      remove: parting.sections.map((section) => section.number).reverse(),
      /** How high the piece must hang for the sections that leave after the lift, mm. */
      liftMm: Math.max(0, ...parting.sections.map(({ lifted, pull, travelMm }) => (lifted ? -pull[2] * travelMm : 0))),
      /** The section before whose turn the piece is lifted; null where none needs it. */
      liftBefore: [...parting.sections].reverse().find((section) => section.lifted)?.number ?? null,
      blocks: parting.blocks,
      circle: parting.circle,
    },
    giveMm: parting.giveMm,
    fillParts: parting.fillParts,
    clayMm3: parting.clayMm3,
    plugMm3: parting.plugMm3,
    fillMm3: parting.fillMm3,
    partingLengthMm: parting.partingLengthMm,
    /** The walls with the area of one face at widths of 0, 5, 10 ... mm; settled plans only. */
    walls: wallAreas(result.walls),
    /** What a liquid in the mould pushes on; settled plans only. */
    cavity: result.cavity,
    /** Ways that the jacket nearly fits its shell beside the right one. */
    ways: result.ways,
    /** How far the sections span, and the ribs where that is too far. */
    spans: result.spans,
    /** Length of line in each kind of zone. */
    zoneMm: result.zoneMm,
    /** Stretches of line out of sight along one neighbour's pull. */
    hidden: parting.hidden,
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

function wallAreas(grounds: PlanResult["walls"]) {
  const areas = areasByWidth(grounds);
  return grounds.map(({ sections }, n) => ({ sections, areasMm2: areas[n] }));
}

function litres(fills: Readonly<Record<FillKind, number>>): Record<FillKind, number> {
  const { silicone, clay, web, plug } = fills;
  return { silicone: silicone / 1e6, clay: clay / 1e6, web: web / 1e6, plug: plug / 1e6 };
}

export type GeometryReport = ReturnType<typeof geometryReport>;
