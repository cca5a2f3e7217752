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
  leastLayers: 2,
  firstLayerMm: 3.5,
  isWet: false,
  bendingMPa: { value: 15, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 2500, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 7, unit: "mm", source: TYPICAL }, isSolid: false },
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
  layers({ figure, material }) {
    const kit = material("fibre-epoxy-paste");
    const mixture = kitMix(kit, 90);
    const taken = { resin: { material: kit.id, usual: "fibre-epoxy-paste" }, hardener: null } as const;
    const pass = (id: string, name: string) =>
      resinCoat({ id, name }, figure(`${id}Mm`), G_PER_CM3, mixture, taken, figure("flangeTimes"));
    return [pass("first", "First pass"), pass("second", "Second pass")];
  },
};

const G_PER_CM3 = 1.1;
