/** What is decided about ribs and poles: they stiffen a shell where it spans too far between its flanges. */

export const RIB_KINDS = ["poles", "ribs", "none"] as const;
/** Poles laid on and wrapped in, ribs built up of what the shell is made of, or neither. */
export type RibKind = (typeof RIB_KINDS)[number];

export const POLE_MATERIALS = ["stainless", "aluminium", "glass-fibre", "steel", "timber"] as const;
export type PoleMaterial = (typeof POLE_MATERIALS)[number];

/** Poles are so thick, mm. */
export const POLE_MM = 25;

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
  /** The widest span that is left alone; null goes by the shell's strength. */
  readonly spanMm: number | null;
}

export const TYPICAL_RIBS: RibSettings = { kind: "poles", pole: "stainless", spanMm: null };

export const RIB_SPANS_MM = { least: 100, most: 3000 } as const;
