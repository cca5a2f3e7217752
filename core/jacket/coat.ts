/** One application of silicone, and the jacket they add up to. */
import type { SiliconeKey } from "../materials/catalogue.ts";

export interface Coat {
  /** Stays with the coat when others come or go. */
  readonly id: string;
  readonly thicknessMm: number;
  /** Print coats are never thickened; thickened coats take the fill. */
  readonly thickened: boolean;
  /** CSS colour of the pigment the user picked. */
  readonly pigment: string;
  /** What it is of; null where it is of the jacket's own silicone. */
  readonly silicone: SiliconeKey | null;
  /** Is open gauze bedded into it? */
  readonly gauze: boolean;
}

/** A coat of the jacket's own silicone, with nothing in it. */
export function plainCoat(coat: Omit<Coat, "silicone" | "gauze">): Coat {
  return { ...coat, silicone: null, gauze: false };
}

/** What of a coat its geometry depends on. */
export type CoatLaid = Pick<Coat, "thicknessMm" | "thickened">;

/** Thickness of the whole jacket, mm. */
export function jacketThicknessMm(coats: readonly Pick<Coat, "thicknessMm">[]): number {
  return coats.reduce((total, coat) => total + coat.thicknessMm, 0);
}

const MOST_GIVE_MM = 1.5;
const GIVE_PART = 5;
/** How the give of rubber comes about, in words. */
export const GIVE_FORMULA = `thickness ÷ ${GIVE_PART}, and no more than ${MOST_GIVE_MM} mm`;

/** What rubber this thick yields to without harm, mm: a fifth of it, and no more than 1.5. */
export function usualGiveMm(thicknessMm: number): number {
  return Math.min(MOST_GIVE_MM, thicknessMm / GIVE_PART);
}

/** A jacket thicker than this wastes silicone, and does not stretch off easily, mm. */
export const THICK_JACKET_MM = 12;

/** Gaps of the piece narrower than this are closed by the silicone brushed on both their walls, mm. */
export function bridgedGapMm(coats: readonly Pick<Coat, "thicknessMm">[]): number {
  return 2 * jacketThicknessMm(coats);
}
