/** One application of silicone, and the jacket they add up to. */
export interface Coat {
  readonly thicknessMm: number;
  /** Print coats are never thickened; thickened coats take the fill. */
  readonly thickened: boolean;
  /** CSS colour of the pigment the user picked. */
  readonly pigment: string;
}

/** Thickness of the whole jacket, mm. */
export function jacketThicknessMm(coats: readonly Coat[]): number {
  return coats.reduce((total, coat) => total + coat.thicknessMm, 0);
}
