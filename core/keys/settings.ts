/** What is decided about the keys that stand on the jacket and hold it in its shell; typical and editable. */

export const JACKET_KEY_KINDS = ["buttons", "strips", "none"] as const;
export type JacketKeyKind = (typeof JACKET_KEY_KINDS)[number];

export interface JacketKeySettings {
  readonly kind: JacketKeyKind;
  /** Of a button's foot; a strip is as wide, and as long as six of them. */
  readonly radiusMm: number;
  readonly heightMm: number;
  /** Their flanks lean so far off their axis, degrees. */
  readonly taperDeg: number;
  /** About so far from each other, at most. */
  readonly spacingMm: number;
  /** Set by hand, xyz each; null places them by rule. */
  readonly placed: readonly (readonly [number, number, number])[] | null;
}

/** No more keys are set by hand. */
export const MOST_KEYS = 400;

export const TYPICAL_JACKET_KEYS: JacketKeySettings = {
  kind: "buttons",
  radiusMm: 12,
  heightMm: 8,
  taperDeg: 35,
  spacingMm: 220,
  placed: null,
};

/** Length of a strip, in its half widths. */
export const STRIP_RADII = 6;
