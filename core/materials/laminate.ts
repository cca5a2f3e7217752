/** Hand laminates of glass and resin. */

/** Density of E-glass, g/cm3. */
export const GLASS_DENSITY = 2.56;

/**
 * One layer of glass wetted out.
 * @param glassGPerM2 weight of the glass
 * @param glassFraction share of glass by mass, 0..1
 * @param resinDensity g/cm3
 * @throws RangeError when the fraction is not between 0 and 1
 */
export function laminateLayer(
  glassGPerM2: number,
  glassFraction: number,
  resinDensity: number,
): { resinGPerM2: number; thicknessMm: number } {
  if (!(glassFraction > 0 && glassFraction < 1)) throw new RangeError("The share of glass must lie between 0 and 1.");
  const resinGPerM2 = (glassGPerM2 * (1 - glassFraction)) / glassFraction;
  return { resinGPerM2, thicknessMm: (glassGPerM2 / GLASS_DENSITY + resinGPerM2 / resinDensity) / 1000 };
}
