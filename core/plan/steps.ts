/** Grid steps: what a piece deserves, and what a first glance takes. */
import { jacketThicknessMm } from "../jacket/coat.ts";
import type { PlanDocument } from "./document.ts";

/** Nodes of band a settled plan may take: about 15 s on two plain cores. */
const SETTLED_NODES = 1.5e6;
const FINEST_MM = 1.5;
const COARSEST_MM = 12;

/** The step a piece of this area is settled at, mm, to the half millimetre. */
export function settledStepMm(document: PlanDocument, areaMm2: number): number {
  const reach = jacketThicknessMm(document.jacket.coats) + document.jacket.smoothingMm;
  const step = Math.cbrt((areaMm2 * (2 * reach + 40)) / SETTLED_NODES);
  return Math.min(COARSEST_MM, Math.max(FINEST_MM, Math.ceil(step * 2) / 2));
}

/** The step of the first, coarse answer. */
export function coarseStepMm(settledMm: number): number {
  return settledMm * 3.2;
}

/** Text that names a result by all its geometry depends on; hosts hash it into a key. */
export function resultKeyText(scanSha256: string, document: PlanDocument, rates: object, version: number): string {
  const { seat, brief, jacket, survey, parting, zones, shell } = document;
  return JSON.stringify([
    version,
    scanSha256,
    seat,
    { ...jacket, coats: jacket.coats.map((c) => [c.thicknessMm, c.thickened]), seam: null },
    survey.draftDeg,
    [brief.edition, brief.liftLimitKg, brief.handlingMm],
    parting,
    zones,
    shell,
    rates,
  ]);
}
