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

export interface Stiffness {
  readonly bendingMPa: number;
  readonly modulusMPa: number;
}

/** @returns the widest span, mm */
export function spanOf(thicknessMm: number, densityGPerCm3: number, { bendingMPa, modulusMPa }: Stiffness): number {
  const t = thicknessMm / 1000;
  const load = HANDLING * densityGPerCm3 * 1000 * GRAVITY * t + LEANING_PA;
  const byBending = Math.sqrt((4 * t * t * bendingMPa * 1e6) / (3 * load));
  const bySag = Math.cbrt((32 * modulusMPa * 1e6 * t ** 3 * SAG_SHARE) / (5 * load));
  return 1000 * Math.min(byBending, bySag);
}

/** The widest span of a shell with the user's figures, mm. */
export function spanLimitMm(layup: Layup): number {
  const { bendingMPa, modulusMPa } = shellSystem(layup.system);
  const { dryGPerCm3 } = shellDensities(layup);
  const { shellMm } = shellThicknesses(layup);
  return spanOf(shellMm, dryGPerCm3, { bendingMPa: bendingMPa.value, modulusMPa: modulusMPa.value });
}
