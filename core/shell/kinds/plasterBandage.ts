/** Plaster bandage: many layers, each overlapping the last, edges folded. */
import { WATER_KEPT_PER_100 } from "../../materials/gypsum.ts";
import { TYPICAL } from "../../materials/property.ts";
import type { ShellSystem } from "./system.ts";

export const plasterBandage: ShellSystem = {
  id: "plaster-bandage",
  name: "Plaster bandage",
  summary: "Quick, for small pieces; weak, and one layer weaker.",
  cautions: ["gypsum-dust", "gypsum-heat", "drains", "lifting"],
  edges: "Weak unless folded over",
  setMin: { value: 20, unit: "min", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min", source: TYPICAL },
  leastLayers: 5,
  firstLayerMm: 3.5,
  isWet: true,
  bendingMPa: { value: 1, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 1500, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 6, unit: "mm", source: TYPICAL }, isSolid: true },
  parameters: [
    { key: "layers", label: "Layers", unit: "", value: 7, least: 2, most: 14, step: 1, source: TYPICAL },
    {
      key: "flangeLayers",
      label: "Layers at the flanges",
      unit: "",
      value: 10,
      least: 2,
      most: 20,
      step: 1,
      source: TYPICAL,
    },
    {
      key: "bandageGPerM2",
      label: "Weight of bandage",
      unit: "g/m²",
      value: 380,
      least: 200,
      most: 600,
      step: 10,
      source: TYPICAL,
      of: { material: "plaster-bandage", figure: "weightGPerM2" },
    },
    {
      key: "used",
      label: "Of a roll that covers",
      unit: "share",
      value: 0.85,
      least: 0.4,
      most: 1,
      step: 0.05,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.1, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers({ figure, material }) {
    const bandage = material("plaster-bandage").id;
    const layers = figure("layers");
    const times = figure("flangeLayers") / layers;
    const rolls = 1 / (ROLL_M2 * figure("used"));
    const dryG = figure("bandageGPerM2") * (PLASTER_SHARE * (1 + WATER_KEPT_PER_100 / 100) + (1 - PLASTER_SHARE));
    const wetG = figure("bandageGPerM2") * (1 + WATER_TAKEN);
    const thicknessMm = dryG / 1000 / SET_G_PER_CM3;
    return Array.from({ length: layers }, (_, k) => ({
      id: `bandage-${k + 1}`,
      name: `Bandage, layer ${k + 1}`,
      thicknessMm,
      flangeThicknessMm: thicknessMm * times,
      takes: [{ material: bandage, usual: "plaster-bandage", perM2: rolls, flangePerM2: rolls * times }],
      ...{ wetG, dryG, flangeDryG: dryG * times },
      // Dipped roll by roll: nothing is mixed.
      pot: null,
    }));
  },
};

/** A roll of 0.15 by 3 m. */
const ROLL_M2 = 0.45;
/** Of a bandage so much is plaster, by mass; it takes up so much water, as a share of its mass. */
const PLASTER_SHARE = 0.9;
const WATER_TAKEN = 0.65;
/** Set and dry, with the air between its layers, g/cm3. */
const SET_G_PER_CM3 = 0.75;
