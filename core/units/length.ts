import { MM_PER_INCH } from "./constants.ts";

/** The length units a scan file may be in. */
export type LengthUnit = "mm" | "cm" | "m" | "in";

export const lengthUnits: readonly LengthUnit[] = ["mm", "cm", "m", "in"];

/** Millimetres in one of the unit. */
export const millimetresPer: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 10, m: 1000, in: MM_PER_INCH };

export interface UnitProposal {
  readonly unit: LengthUnit;
  readonly reason: string;
}

/**
 * Proposes the unit of a scan from its greatest size in file units, for pieces between a hand and a house.
 * The user settles it by the tape check; this is only where the question starts.
 * @param greatestSize greatest extent of the scan, in file units
 * @param hint unit declared by the file, believed when it gives a plausible size
 */
export function proposeUnit(greatestSize: number, hint?: LengthUnit): UnitProposal {
  const plausible = (unit: LengthUnit) => {
    const sizeMm = greatestSize * millimetresPer[unit];
    return sizeMm >= 40 && sizeMm <= 12_000;
  };
  if (hint && plausible(hint)) return { unit: hint, reason: `the file says ${hint}` };
  if (greatestSize >= 150) return { unit: "mm", reason: "as millimetres the size is that of a sculpture" };
  if (greatestSize <= 8) return { unit: "m", reason: "as millimetres it would be smaller than a fingernail" };
  if (greatestSize < 40) return { unit: "in", reason: "as millimetres it would be thimble-sized" };
  return { unit: "cm", reason: "as millimetres it would fit in a hand; large pieces are often scanned in centimetres" };
}
