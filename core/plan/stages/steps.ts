/** Grid steps: what a piece deserves, and what a first glance takes. */
import { jacketThicknessMm } from "../../jacket/coat.ts";
import { BRIEF, type SearchEffort, THOROUGH } from "../../parting/search/request.ts";
import type { PlanDocument } from "../document/document.ts";

/** Nodes of band a settled plan may take, by how finely it is wanted; the usual one is about 12 s on two plain cores. */
const SETTLED_NODES = { quick: 0.5e6, usual: 1.2e6, fine: 4e6 } as const;

/** How finely plans are settled: a matter of the machine they are worked out on. */
export type Fineness = keyof typeof SETTLED_NODES;
export const FINENESSES = Object.keys(SETTLED_NODES) as [Fineness, ...Fineness[]];
const FINEST_MM = 1.5;
const COARSEST_MM = 12;
/** A quick plan is no finer than this, mm, nor than an eighty-fifth of the side of a square as large as the piece's surface. */
const QUICK_MM = 6;
const QUICK_SHARE = 1 / 85;

/** How hard a plan is looked for. */
export function effortOf(fineness: Fineness): SearchEffort {
  return fineness === "quick" ? BRIEF : THOROUGH;
}

/** The step a piece of this area is settled at, mm, to the half millimetre. */
export function settledStepMm(document: PlanDocument, areaMm2: number, fineness: Fineness): number {
  const reach = jacketThicknessMm(document.jacket.coats) + document.jacket.smoothingMm;
  const step = Math.cbrt((areaMm2 * (2 * reach + 40)) / SETTLED_NODES[fineness]);
  const finestMm = fineness === "quick" ? Math.min(QUICK_MM, QUICK_SHARE * Math.sqrt(areaMm2)) : FINEST_MM;
  return Math.min(COARSEST_MM, Math.max(FINEST_MM, Math.ceil(Math.max(step, finestMm) * 2) / 2));
}

/** The step of the first, coarse answer. */
export function coarseStepMm(settledMm: number): number {
  return settledMm * 3.2;
}
