/**
 * How far a shell may span between its flanges. It is taken as a flat strip on two supports under an even load: three
 * times its own weight, as it is handled, and a kilopascal for whoever leans on it. Neither may it bend by more than what
 * it is let bear, nor sag by more than a fiftieth of the span (a beam on two supports: Young and Budynas 2002, table 8.1).
 *
 *   bending  3 q L^2 / (4 t^2) <= allowed        sag  5 q L^4 / (32 E t^3) <= L / 50        q = 3 rho g t + 1 kPa
 *
 * Curved shells bear more: the rule is on the safe side.
 */
import { shellDensities, shellSystem, shellThicknesses } from "./index.ts";
import type { Layup } from "./layup.ts";

const GRAVITY = 9.81;
const HANDLING = 3;
const LEANING_PA = 1000;
const SAG_SHARE = 1 / 50;

/** The rule in words, with the letters of its figures. */
export const SPAN_FORMULA = `the lesser of √(4 t² σ ÷ 3 q), by bending, and ∛(32 E t³ ÷ (5 × ${1 / SAG_SHARE} q)), by sag; q = ${HANDLING} ρ g t + ${LEANING_PA / 1000} kPa`;

export interface Stiffness {
  readonly bendingMPa: number;
  readonly modulusMPa: number;
}

/** What limits a span, and how far each would let it go. */
export interface SpanLimits {
  readonly thicknessMm: number;
  readonly densityGPerCm3: number;
  readonly stiffness: Stiffness;
  /** The load taken, Pa. */
  readonly loadPa: number;
  readonly byBendingMm: number;
  readonly bySagMm: number;
}

function limitsOf(thicknessMm: number, densityGPerCm3: number, stiffness: Stiffness): SpanLimits {
  const { bendingMPa, modulusMPa } = stiffness;
  const t = thicknessMm / 1000;
  const loadPa = HANDLING * densityGPerCm3 * 1000 * GRAVITY * t + LEANING_PA;
  return {
    ...{ thicknessMm, densityGPerCm3, stiffness, loadPa },
    byBendingMm: 1000 * Math.sqrt((4 * t * t * bendingMPa * 1e6) / (3 * loadPa)),
    bySagMm: 1000 * Math.cbrt((32 * modulusMPa * 1e6 * t ** 3 * SAG_SHARE) / (5 * loadPa)),
  };
}

/** @returns the widest span, mm */
export function spanOf(thicknessMm: number, densityGPerCm3: number, stiffness: Stiffness): number {
  const { byBendingMm, bySagMm } = limitsOf(thicknessMm, densityGPerCm3, stiffness);
  return Math.min(byBendingMm, bySagMm);
}

/** What limits the span of a shell with the user's figures. */
export function spanLimits(layup: Layup): SpanLimits {
  const { bendingMPa, modulusMPa } = shellSystem(layup.system);
  const { dryGPerCm3 } = shellDensities(layup);
  const { shellMm } = shellThicknesses(layup);
  return limitsOf(shellMm, dryGPerCm3, { bendingMPa: bendingMPa.value, modulusMPa: modulusMPa.value });
}

/** The widest span of a shell with the user's figures, mm. */
export function spanLimitMm(layup: Layup): number {
  const { byBendingMm, bySagMm } = spanLimits(layup);
  return Math.min(byBendingMm, bySagMm);
}
