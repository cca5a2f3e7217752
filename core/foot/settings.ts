/** What is decided about the shell's foot along the board; every figure is typical and editable. */

export interface FootSettings {
  /** Is the shell carried on over the jacket's rim and out along the board? Without it, it ends on the rim. */
  readonly isFlanged: boolean;
  /** How far the foot reaches beyond the jacket's rim, mm. */
  readonly beyondMm: number;
  /** Does the board stay a part of the mould, with the foot bolted to it? */
  readonly isBolted: boolean;
  /** Its bolts stand no farther apart, mm. */
  readonly pitchMm: number;
  /** Hole in the board that the cast is poured or charged through, mm across; 0 for none. */
  readonly pourHoleMm: number;
}

export const TYPICAL_FOOT: FootSettings = {
  isFlanged: true,
  beyondMm: 40,
  isBolted: false,
  pitchMm: 200,
  pourHoleMm: 0,
};

export const FOOT_LIMITS_MM = { beyond: [15, 200], pitch: [60, 600], pourHole: [0, 400] } as const;
