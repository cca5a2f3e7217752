/** What people type: lengths and masses with or without their unit, as whole numbers, decimals or fractions. */
import { celsiusOf, G_PER_LB, G_PER_OZ, MM_PER_INCH } from "./constants.ts";
import type { UnitSystem } from "./display.ts";

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

/**
 * Reads a mass as people write it: "12", "450g", "1.2 kg", "2 lb 3 oz", "8 1/2 oz". A bare number is in kilograms for
 * metric shops and pounds for imperial ones.
 * @returns grams, or null when it cannot be read
 */
export function parseMassG(text: string, system: UnitSystem = "metric"): number | null {
  const clean = text.trim().toLowerCase().replace(/\s+/g, " ").replace(",", ".");
  const both = /^(\d+(?:\.\d+)?) ?(?:lb|lbs|pounds?) ?(.+?) ?(?:oz|ounces?)$/.exec(clean);
  if (both) {
    const ounces = mixedNumber(both[2]);
    return ounces === null ? null : Number(both[1]) * G_PER_LB + ounces * G_PER_OZ;
  }
  const match = /^([\d./ ]+?) ?(g|kg|lb|lbs|pounds?|oz|ounces?)?$/.exec(clean);
  const value = match && mixedNumber(match[1]);
  if (!match || value === null) return null;
  const unit = match[2] ?? (system === "imperial" ? "lb" : "kg");
  if (unit === "g") return value;
  if (unit === "kg") return value * 1000;
  return value * (unit.startsWith("o") ? G_PER_OZ : G_PER_LB);
}

/**
 * Reads what is weighed at the bench: a bare number is in grams, in an imperial shop in ounces.
 * @returns grams, or null when it cannot be read
 */
export function parseWeighedG(text: string, system: UnitSystem = "metric"): number | null {
  const bare = /^\s*\d+(?:[.,]\d+)?\s*$/.test(text);
  return bare ? Number(text.replace(",", ".")) * weighedEntry(system).grams : parseMassG(text);
}

/** The unit that a bench scale shows, in grams. */
export function weighedEntry(system: UnitSystem): { readonly unit: "g" | "oz"; readonly grams: number } {
  return system === "imperial" ? { unit: "oz", grams: G_PER_OZ } : { unit: "g", grams: 1 };
}

/**
 * Reads a temperature: "20", "20 °C", "68F"; a bare number is in the shop's own scale.
 * @returns degrees Celsius, or null when it cannot be read
 */
export function parseTemperatureC(text: string, system: UnitSystem = "metric"): number | null {
  const match = /^([-\u2212]?\d+(?:[.,]\d+)?) ?°? ?([cf])?$/i.exec(text.trim());
  if (!match) return null;
  const value = Number(match[1].replace("\u2212", "-").replace(",", "."));
  const scale = match[2]?.toLowerCase() ?? (system === "imperial" ? "f" : "c");
  return scale === "f" ? celsiusOf(value) : value;
}

/**
 * Reads an amount of what is counted in a unit; masses are read however people write them.
 * @returns the amount in that unit, or null when it cannot be read
 */
export function parseAmount(text: string, unit: string): number | null {
  if (unit === "kg") {
    const massG = parseMassG(text);
    return massG === null ? null : massG / 1000;
  }
  const plain = /^\s*\d+(?:[.,]\d+)?\s*$/.test(text);
  return plain ? Number(text.replace(",", ".")) : null;
}

/** The unit masses are typed in, in grams: a shop that works in both types kilograms. */
export function massEntry(system: UnitSystem): { readonly unit: "kg" | "lb"; readonly grams: number } {
  return system === "imperial" ? { unit: "lb", grams: G_PER_LB } : { unit: "kg", grams: 1000 };
}
