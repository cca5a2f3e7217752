import {
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

/** Money from minor units, two decimals, with the user's own mark. */
export function formatMoneyMinor(amountMinor: number, mark: string): string {
  return `${mark}${THIN}${grouped(amountMinor / 100, 2)}`;
}

/**
 * Reads a length as people write it: "12", "12 mm", "1.2 m", "3 1/2 in", "5' 3\"". A bare number is in
 * millimetres for metric shops and inches for imperial ones.
 * @returns millimetres, or null when it cannot be read
 */
export function parseLengthMm(text: string, system: UnitSystem = "metric"): number | null {
  const clean = text.trim().toLowerCase().replace(/\s+/g, " ").replace(",", ".");
  const feetInches = /^(\d+(?:\.\d+)?) ?(?:'|ft) ?(?:(.+?) ?(?:"|in)?)?$/.exec(clean);
  if (feetInches) {
    const inches = feetInches[2] ? mixedNumber(feetInches[2]) : 0;
    return inches === null ? null : (Number(feetInches[1]) * 12 + inches) * MM_PER_INCH;
  }
  const match = /^(-?[\d./ ]+?) ?(mm|cm|m|in|")?$/.exec(clean);
  if (!match?.[1]) return null;
  const value = mixedNumber(match[1]);
  if (value === null) return null;
  const unit = match[2] ?? (system === "imperial" ? "in" : "mm");
  const scale = unit === "mm" ? 1 : unit === "cm" ? 10 : unit === "m" ? 1000 : MM_PER_INCH;
  return value * scale;
}

function mixedNumber(text: string): number | null {
  const match = /^(-?\d+(?:\.\d+)?)(?: (\d+)\/(\d+))?$|^(\d+)\/(\d+)$/.exec(text.trim());
  if (!match) return null;
  if (match[4]) return Number(match[5]) === 0 ? null : Number(match[4]) / Number(match[5]);
  const fraction = match[2] ? Number(match[2]) / Number(match[3]) : 0;
  return Number.isFinite(fraction) ? Number(match[1]) + fraction : null;
}

/** The unit lengths are typed in, and a field's step in it: a shop that works in both types millimetres. */
export function lengthEntry(system: UnitSystem, stepMm: number): { readonly unit: "mm" | "in"; readonly step: number } {
  if (system !== "imperial") return { unit: "mm", step: stepMm };
  return { unit: "in", step: stepMm >= 5 ? 0.25 : stepMm >= 1 ? 0.05 : 0.005 };
}

/** A length as its field shows it; inches to a thousandth. */
export function toEntry(lengthMm: number, system: UnitSystem): number {
  return system === "imperial" ? Math.round((1000 * lengthMm) / MM_PER_INCH) / 1000 : lengthMm;
}

/** Millimetres from what was typed in a length's field; inches come out to a hundredth of a millimetre. */
export function fromEntry(value: number, system: UnitSystem): number {
  return system === "imperial" ? Math.round(100 * value * MM_PER_INCH) / 100 : value;
}
