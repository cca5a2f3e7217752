import {
  fahrenheitOf,
  G_PER_LB,
  G_PER_OZ,
  LITRES_PER_US_QUART,
  MM_PER_INCH,
  MM2_PER_CM2,
  MM2_PER_M2,
  MM3_PER_LITRE,
} from "./constants.ts";

/** How figures are shown and entered. */
export type UnitSystem = "metric" | "imperial" | "both";

const THIN = "\u2009";

function grouped(value: number, decimals: number): string {
  const fixed = Math.abs(value).toFixed(decimals);
  const [whole, fraction] = fixed.split(".");
  const spaced = (whole ?? "0").replace(/\B(?=(\d{3})+(?!\d))/g, THIN);
  const sign = value < 0 && Number(fixed) !== 0 ? "\u2212" : "";
  return sign + spaced + (fraction ? `.${fraction}` : "");
}

/** About three telling figures: what a shop scale or tape can do. */
function sensible(value: number): string {
  const size = Math.abs(value);
  return grouped(value, size >= 100 ? 0 : size >= 10 ? 1 : size === 0 ? 0 : 2);
}

function choose(system: UnitSystem, metric: string, imperial: () => string): string {
  if (system === "metric") return metric;
  return system === "imperial" ? imperial() : `${metric} (${imperial()})`;
}

/** A length: mm below ten metres, metres above; inches to 1/100. */
export function formatLength(lengthMm: number, system: UnitSystem = "metric"): string {
  const size = Math.abs(lengthMm);
  const metric =
    size >= 10_000 ? `${grouped(lengthMm / 1000, 2)}${THIN}m` : `${grouped(lengthMm, size < 20 ? 1 : 0)}${THIN}mm`;
  return choose(system, metric, () => {
    const inches = lengthMm / MM_PER_INCH;
    return Math.abs(inches) >= 36 ? `${grouped(inches / 12, 2)}${THIN}ft` : `${grouped(inches, 2)}${THIN}in`;
  });
}

/** Areas smaller than this are told in cm2, m2. */
const SMALL_AREA_M2 = 0.05;

/** An area in square metres (square centimetres when small) or square feet. */
export function formatArea(areaMm2: number, system: UnitSystem = "metric"): string {
  const small = areaMm2 > 0 && areaMm2 < SMALL_AREA_M2 * MM2_PER_M2;
  const metric = small
    ? `${sensible(areaMm2 / MM2_PER_CM2)}${THIN}cm²`
    : `${grouped(areaMm2 / MM2_PER_M2, 2)}${THIN}m²`;
  return choose(system, metric, () => {
    return `${grouped(areaMm2 / (MM_PER_INCH * 12) ** 2, 1)}${THIN}ft²`;
  });
}

/** A volume in litres (millilitres when small) or US quarts. */
export function formatVolume(volumeMm3: number, system: UnitSystem = "metric"): string {
  const litres = volumeMm3 / MM3_PER_LITRE;
  const metric = Math.abs(litres) < 1 ? `${grouped(litres * 1000, 0)}${THIN}ml` : `${sensible(litres)}${THIN}l`;
  return choose(system, metric, () => `${sensible(litres / LITRES_PER_US_QUART)}${THIN}qt`);
}

/** A mass in grams below one kilogram, kilograms above; ounces and pounds. */
export function formatMass(massG: number, system: UnitSystem = "metric"): string {
  const metric = Math.abs(massG) < 1000 ? `${grouped(massG, 0)}${THIN}g` : `${sensible(massG / 1000)}${THIN}kg`;
  return choose(system, metric, () =>
    Math.abs(massG) < G_PER_LB ? `${grouped(massG / G_PER_OZ, 1)}${THIN}oz` : `${sensible(massG / G_PER_LB)}${THIN}lb`,
  );
}

/** A mass as a scale shows it: grams to its step, ounces to what that step comes to. @param stepG of the scale, g */
export function formatWeighed(massG: number, stepG: number, system: UnitSystem = "metric"): string {
  const digits = (step: number) => Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
  return choose(
    system,
    `${grouped(massG, digits(stepG))}${THIN}g`,
    () => `${grouped(massG / G_PER_OZ, digits(stepG / G_PER_OZ))}${THIN}oz`,
  );
}

/** A temperature in whole degrees. */
export function formatTemperature(celsius: number, system: UnitSystem = "metric"): string {
  return choose(system, `${grouped(celsius, 0)}${THIN}°C`, () => `${grouped(fahrenheitOf(celsius), 0)}${THIN}°F`);
}

/** Money from minor units, two decimals, with the user's own mark. */
export function formatMoneyMinor(amountMinor: number, mark: string): string {
  return `${mark}${THIN}${grouped(amountMinor / 100, 2)}`;
}
