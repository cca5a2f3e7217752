/** Cubic millimetres in one litre. */
export const MM3_PER_LITRE = 1e6;
/** Cubic millimetres in one cubic centimetre. */
export const MM3_PER_CM3 = 1000;
/** Square millimetres in one square metre. */
export const MM2_PER_CM2 = 100;
export const MM2_PER_M2 = 1e6;
/** Grams in one avoirdupois pound (exact by definition). */
export const G_PER_LB = 453.59237;
/** Grams in one avoirdupois ounce. */
export const G_PER_OZ = G_PER_LB / 16;
/** Millimetres in one international inch (exact by definition). */
export const MM_PER_INCH = 25.4;
/** Litres in one US liquid quart (exact: 57.75 cubic inches). */
export const LITRES_PER_US_QUART = 0.946352946;

/** Degrees of Fahrenheit's scale from degrees Celsius, and back. */
export const fahrenheitOf = (celsius: number) => 32 + 1.8 * celsius;
export const celsiusOf = (fahrenheit: number) => (fahrenheit - 32) / 1.8;
