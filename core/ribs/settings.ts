/** What is decided about ribs and poles: they stiffen a shell where it spans too far between its flanges. */

export const RIB_KINDS = ["poles", "ribs", "none"] as const;
/** Poles laid on and wrapped in, ribs built up of what the shell is made of, or neither. */
export type RibKind = (typeof RIB_KINDS)[number];

export const POLE_MATERIALS = ["stainless", "aluminium", "glass-fibre", "steel", "timber"] as const;
export type PoleMaterial = (typeof POLE_MATERIALS)[number];

/** What wet plaster does to a pole that is wrapped in it; null where it bears it. */
export const IN_PLASTER: Readonly<Record<PoleMaterial, "rusts" | "rots" | null>> = {
  stainless: null,
  aluminium: null,
  "glass-fibre": null,
  steel: "rusts",
  timber: "rots",
};

export interface RibSettings {
  readonly kind: RibKind;
  readonly pole: PoleMaterial;
  /** How thick poles are across, or how high the cores of ribs are, mm. */
  readonly poleMm: number;
  /** The widest span that is left alone; null goes by the shell's strength. */
  readonly spanMm: number | null;
}

export const TYPICAL_RIBS: RibSettings = { kind: "poles", pole: "stainless", poleMm: 25, spanMm: null };

export const POLES_MM = { least: 10, most: 60 } as const;
export const RIB_SPANS_MM = { least: 100, most: 3000 } as const;
