/** What the catalogue holds of a material as people buy it: by what it is, with typical figures that its data sheet overrules. */
import type { HazardId } from "./hazards.ts";

/** Figures an entry may have, with what people see of them. */
export const FIGURES = {
  densityGPerCm3: { name: "Density", unit: "g/cm³" },
  potMin: { name: "Pot life at 20 °C", unit: "min" },
  tackMin: { name: "Next coat from", unit: "min at 20 °C" },
  windowMin: { name: "Next coat until", unit: "min at 20 °C" },
  cureMin: { name: "Cured", unit: "min at 20 °C" },
  shoreA: { name: "Hardness", unit: "Shore A" },
  stretchPercent: { name: "Stretch at break", unit: "%" },
  shrinkPercent: { name: "Shrinks", unit: "%" },
  waterPer100: { name: "Water to 100 of powder", unit: "g" },
  strengthMPa: { name: "Strength, dry", unit: "MPa" },
  weightGPerM2: { name: "Weight", unit: "g/m²" },
  coverageGPerM2: { name: "Takes", unit: "g/m²" },
  per100: { name: "To 100 of the base", unit: "g" },
  dropsPerG: { name: "Drops to a gram", unit: "" },
  dryMin: { name: "Dry after", unit: "min" },
  shelfClosedMonths: { name: "Keeps closed", unit: "months" },
  shelfOpenMonths: { name: "Keeps opened", unit: "months" },
} as const;
export type FigureKey = keyof typeof FIGURES;

/** Shelves of the store. */
export const GROUPS = {
  silicones: "Silicones",
  additives: "Added to silicone",
  gypsums: "Gypsums",
  reinforcement: "Reinforcement",
  resins: "Resins",
  clays: "Clays",
  releases: "Releases and sealers",
  hardware: "Hardware",
  sundries: "Sundries",
} as const;
export type Group = keyof typeof GROUPS;

/** What a material is to others: pairs of these must not touch. */
export const FAMILIES = [
  "tin-silicone",
  "platinum-silicone",
  "silicone-scrap",
  "gypsum",
  "polyester",
  "epoxy",
  "polyurethane",
  "cement",
  "water-clay",
  "oil-clay",
  "sulphur-clay",
  "petroleum-jelly",
  "wax",
  "film",
  "silicone-oil",
  "soap",
  "lacquer",
  "paint",
  "shellac",
  "latex",
  "nitrile",
  "pvc",
  "steel",
  "stainless",
  "aluminium",
  "bronze",
  "timber",
  "glass-fibre",
  "jute",
  "hemp",
  "foam-board",
  "solvent",
  "peroxide",
  "accelerator",
  "photopolymer",
  "limestone",
  "glassy",
  "bisque",
  "bone",
  "drain",
  "none",
] as const;
export type Family = (typeof FAMILIES)[number];

export interface MixPartOf {
  readonly name: string;
  /** By mass. */
  readonly parts: number;
  /** For whoever measures by volume. */
  readonly densityGPerCm3?: number;
}

export interface Pack {
  /** In the entry's unit. */
  readonly amount: number;
  readonly priceMinor: number;
  /** Sold at this price only by so many at once; one by one where it is left out. */
  readonly from?: number;
}

export type MaterialUnit = "kg" | "l" | "m2" | "m" | "pcs";

export interface CatalogueEntry {
  readonly name: string;
  readonly unit: MaterialUnit;
  readonly group: Group;
  readonly family: Family;
  readonly figures: Partial<Readonly<Record<FigureKey, number>>>;
  /** What is mixed of it, the base first; a material of one part has none. */
  readonly mix?: readonly MixPartOf[];
  /** As it is sold; prices are typical, in hundredths of the workshop's money. */
  readonly packs: readonly Pack[];
  readonly hazards: readonly HazardId[];
  readonly note?: string;
}
