/** Warnings of a plan in words. */
import { type Box, placeInWords } from "../../survey/place.ts";
import { formatLength, formatMass } from "../../units/index.ts";
import type { PlanWarning } from "../proof/warning.ts";
import { liftCaution } from "./liftCaution.ts";

/** How figures are told. */
export interface Words {
  length(mm: number): string;
  mass(g: number): string;
}

export const METRIC: Words = { length: (mm) => formatLength(mm), mass: (g) => formatMass(g) };

/** @param box of the piece */
export function warningInWords(warning: PlanWarning, box: Box, words: Words = METRIC): string {
  switch (warning.kind) {
    case "held": {
      const where = warning.at ? ` (${placeInWords(warning.at, box, words.length)})` : "";
      return `Section ${warning.section} is held: it would have to press ${words.length(warning.biteMm)} deep into the jacket${where}.`;
    }
    case "circle": {
      const names = [...warning.sections].sort((a, b) => a - b).join(" and ");
      const where = warning.at ? ` They meet at: ${placeInWords(warning.at, box, words.length)}.` : "";
      return `Sections ${names} block each other: none of them can leave first. Turn a pull, or part one of them.${where}`;
    }
    case "lift":
      return liftCaution(warning.sections, warning.massG, warning.surface);
    default:
      return warning.text;
  }
}
