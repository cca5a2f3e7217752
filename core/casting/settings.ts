/** What is decided about how the mould is filled. */

export const POUR_POSITIONS = ["foot-up", "as-it-stands"] as const;
export type PourPosition = (typeof POUR_POSITIONS)[number];

export interface CastingSettings {
  /** Turned over and filled through the foot, or filled as the piece stands. */
  readonly position: PourPosition;
  /** How full it is, 0..1 of the cavity; what is slushed or rotated counts its charge alone. */
  readonly fillShare: number;
  /** Of what is cast while it is liquid; null goes by the brief. */
  readonly densityGPerCm3: number | null;
  /** What one bolt is let bear, N. */
  readonly boltLoadN: number;
  /** What one strap round the mould is let bear, N. */
  readonly strapLoadN: number;
}

/** A charge that is slushed or rotated is about so much of the cavity. */
export const CHARGE_SHARE = 0.25;

/** Slushed or rotated, only a charge stands in the mould. @param castMethod of the brief */
export function isCharge(castMethod: string): boolean {
  return castMethod === "slush" || castMethod === "rotation";
}

/** The loads are cautious: what a washer bears on plaster, with a safety of three; a third of what a light webbing strap is sold to hold. */
export const TYPICAL_CASTING: CastingSettings = {
  position: "foot-up",
  fillShare: 1,
  densityGPerCm3: null,
  boltLoadN: 250,
  strapLoadN: 1500,
};
