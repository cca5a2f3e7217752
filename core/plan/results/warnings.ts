/** What is wrong with a plan, or to be careful of, as data; told in words where it is shown. */
import { type Box, placeInWords } from "../../survey/place.ts";
import { formatLength, formatMass } from "../../units/index.ts";
import { liftCaution } from "./liftCaution.ts";

type Place = readonly [number, number, number];

export type PlanWarning =
  | { readonly kind: "scan" | "jacket" | "lines"; readonly text: string }
  /** A section presses deeper into the jacket than the rubber gives. */
  | { readonly kind: "held"; readonly section: number; readonly biteMm: number; readonly at: Place | null }
  /** Sections of which none can leave first. */
  | { readonly kind: "circle"; readonly sections: readonly number[]; readonly at: Place | null }
  /** Sections that leave only after the piece has been lifted, and what it weighs in its mould at most. */
  | { readonly kind: "lift"; readonly sections: readonly number[]; readonly massG: number; readonly surface: string };

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
