/** Epoxy paste filled with fibre: clings to verticals, in two passes. */
import { TYPICAL } from "../../materials/property.ts";
import { resinCoat } from "./layers.ts";
import { kitMix } from "./resinMixes.ts";
import type { ShellSystem } from "./system.ts";

export const fibrePaste: ShellSystem = {
  id: "fibre-paste",
  name: "Fibre-filled epoxy paste",
  summary: "Clings to verticals; most of a day a section, and hard to mix.",
  cautions: ["epoxy", "lifting"],
  edges: "Tough",
  setMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min at 20 °C", source: TYPICAL },
  isWet: false,
  bendingMPa: { value: 15, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 2500, unit: "MPa", source: TYPICAL },
  parameters: [
    {
      key: "firstMm",
      label: "First pass, thin",
      unit: "mm",
      value: 2.5,
      least: 1,
      most: 6,
      step: 0.5,
      source: TYPICAL,
    },
    { key: "secondMm", label: "Second pass", unit: "mm", value: 4.5, least: 1, most: 12, step: 0.5, source: TYPICAL },
    {
      key: "flangeTimes",
      label: "Thicker at the flanges",
      unit: "×",
      value: 1.5,
      least: 1,
      most: 3,
      step: 0.1,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.1, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers(figure) {
    const mixture = kitMix("fibre-epoxy-paste", 90);
    const pass = (name: string, key: string) =>
      resinCoat(name, figure(key), G_PER_CM3, mixture, KIT, figure("flangeTimes"));
    return [pass("First pass", "firstMm"), pass("Second pass", "secondMm")];
  },
};

const G_PER_CM3 = 1.1;
const KIT = { resin: "fibre-epoxy-paste", hardener: null } as const;
