/**
 * The jacket's own seam, planned apart from the shell's lines: none (a sock), one slit from the foot up, or two parts.
 * Schools of making it are rows of a table: a new one is one row.
 */
import { type Property, TYPICAL } from "../materials/property.ts";

export const SEAM_KINDS = ["none", "slit", "parts"] as const;
export type SeamKind = (typeof SEAM_KINDS)[number];

export interface SeamSchool {
  readonly id: string;
  readonly name: string;
  readonly does: string;
  /** Hands a metre of seam takes to make. */
  readonly minPerM: Property;
  /** Are the two faces released from each other while the coats are laid? */
  readonly released: boolean;
  /** Shims a metre takes; 0 where none are used. */
  readonly shimsPerM: number;
}

const perMetre = (value: number): Property => ({ value, unit: "min of hands a metre", source: TYPICAL });

export const SEAM_SCHOOLS = [
  {
    id: "cut",
    name: "Cut afterwards",
    does: "Cut with a wavy line once the shell is off: it keys itself.",
    minPerM: perMetre(12),
    released: false,
    shimsPerM: 0,
  },
  {
    id: "wall",
    name: "Wall built and cut",
    does: "A silicone wall stood square to the surface and cut down its middle.",
    minPerM: perMetre(40),
    released: false,
    shimsPerM: 0,
  },
  {
    id: "shims",
    name: "Shims",
    does: "Shims pushed in before the coats; the second side is laid against them, released.",
    minPerM: perMetre(30),
    released: true,
    shimsPerM: 20,
  },
  {
    id: "bedded",
    name: "Bedded halves",
    does: "Half the piece bedded in clay up to the seam, the other half laid, turned, released.",
    minPerM: perMetre(75),
    released: true,
    shimsPerM: 0,
  },
] as const satisfies readonly SeamSchool[];
export type SeamSchoolId = (typeof SEAM_SCHOOLS)[number]["id"];

export interface Seam {
  readonly kind: SeamKind;
  readonly school: SeamSchoolId;
  /** xyz per point on the jacket, mm, tenths; none until it is laid. */
  readonly points: readonly number[];
}

export const NO_SEAM: Seam = { kind: "none", school: "cut", points: [] };

export function seamSchool(id: SeamSchoolId): SeamSchool {
  return SEAM_SCHOOLS.find((school) => school.id === id) ?? SEAM_SCHOOLS[0];
}

export interface SeamTakeoff {
  readonly lengthMm: number;
  /** Hands for making it, minutes. */
  readonly makeMin: number;
  /** Faces to be released from each other, mm2. */
  readonly releasedMm2: number;
  readonly shims: number;
}

/** What a seam through a jacket of a thickness takes. */
export function seamTakeoff({ kind, school, points }: Seam, thicknessMm: number): SeamTakeoff {
  const lengthMm = kind === "none" ? 0 : lengthOf(points);
  const { minPerM, released, shimsPerM } = seamSchool(school);
  const metres = lengthMm / 1000;
  return {
    lengthMm,
    makeMin: metres * minPerM.value,
    releasedMm2: released ? 2 * lengthMm * thicknessMm : 0,
    shims: Math.ceil(metres * shimsPerM),
  };
}

function lengthOf(p: readonly number[]): number {
  let sum = 0;
  for (let k = 3; k < p.length; k += 3) sum += Math.hypot(p[k] - p[k - 3], p[k + 1] - p[k - 2], p[k + 2] - p[k - 1]);
  return sum;
}
