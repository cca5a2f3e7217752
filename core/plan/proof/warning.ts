/** What is wrong with a plan, or to be careful of, as data; told in words where it is shown. */

type Place = readonly [number, number, number];

export type PlanWarning =
  | { readonly kind: "scan" | "jacket" | "lines"; readonly text: string }
  /** A section presses deeper into the jacket than the rubber gives. */
  | { readonly kind: "held"; readonly section: number; readonly biteMm: number; readonly at: Place | null }
  /** Sections of which none can leave first. */
  | { readonly kind: "circle"; readonly sections: readonly number[]; readonly at: Place | null }
  /** Sections that leave only after the piece has been lifted, and what it weighs in its mould at most. */
  | { readonly kind: "lift"; readonly sections: readonly number[]; readonly massG: number; readonly surface: string };
