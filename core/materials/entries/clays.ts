/** Clays, sheets and boards for walls, fills and bases. */
import type { CatalogueEntry } from "./entry.ts";

export const CLAYS = {
  "water-clay": {
    name: "Water clay",
    unit: "kg",
    group: "clays",
    family: "water-clay",
    figures: { densityGPerCm3: 1.9, shrinkPercent: 6 },
    packs: [
      { amount: 12.5, priceMinor: 1100 },
      { amount: 1000, priceMinor: 62000 },
    ],
    hazards: ["heavy"],
  },
  "oil-clay": {
    name: "Oil clay without sulphur",
    unit: "kg",
    group: "clays",
    family: "oil-clay",
    figures: { densityGPerCm3: 1.6 },
    packs: [
      { amount: 1, priceMinor: 900 },
      { amount: 10, priceMinor: 7600 },
    ],
    hazards: ["heavy"],
  },
  "sulphur-clay": {
    name: "Oil clay with sulphur",
    unit: "kg",
    group: "clays",
    family: "sulphur-clay",
    figures: { densityGPerCm3: 1.7 },
    packs: [
      { amount: 1, priceMinor: 700 },
      { amount: 10, priceMinor: 5800 },
    ],
    hazards: ["heavy"],
    note: "Stops platinum silicone.",
  },
  "wall-sheet": {
    name: "Plastic sheet for walls, 1 mm",
    unit: "m2",
    group: "clays",
    family: "none",
    figures: {},
    packs: [
      { amount: 1, priceMinor: 900 },
      { amount: 10, priceMinor: 7200 },
    ],
    hazards: ["cuts"],
  },
  "foam-board": {
    name: "Foam board, 20 mm",
    unit: "m2",
    group: "clays",
    family: "foam-board",
    figures: {},
    packs: [
      { amount: 1, priceMinor: 600 },
      { amount: 6, priceMinor: 3000 },
    ],
    hazards: ["cuts"],
    note: "Polyester dissolves polystyrene.",
  },
  "base-board": {
    name: "Coated board for bases, 18 mm",
    unit: "m2",
    group: "clays",
    family: "timber",
    figures: {},
    packs: [
      { amount: 1, priceMinor: 2600 },
      { amount: 3, priceMinor: 7000 },
    ],
    hazards: ["heavy"],
  },
  "seam-shims": {
    name: "Shims",
    unit: "pcs",
    group: "clays",
    family: "none",
    figures: {},
    packs: [
      { amount: 100, priceMinor: 900 },
      { amount: 1000, priceMinor: 6500 },
    ],
    hazards: ["cuts"],
  },
  "plug-mix": {
    name: "Mix for plugs, cast beforehand",
    unit: "l",
    group: "clays",
    family: "polyurethane",
    figures: { densityGPerCm3: 1.05 },
    packs: [],
    hazards: ["isocyanate"],
  },
  "cast-plugs": {
    name: "Plugs, cast beforehand",
    unit: "pcs",
    group: "clays",
    family: "none",
    figures: {},
    packs: [],
    hazards: [],
  },
} as const satisfies Readonly<Record<string, CatalogueEntry>>;
