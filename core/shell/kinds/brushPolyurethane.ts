/** Brush-on polyurethane: three coats that thicken by themselves. */
import { TYPICAL } from "../../materials/property.ts";
import { resinCoat } from "./layers.ts";
import { kitMix } from "./resinMixes.ts";
import type { ShellSystem } from "./system.ts";

export const brushPolyurethane: ShellSystem = {
  id: "brush-polyurethane",
  name: "Brush-on polyurethane",
  summary: "Thickens by itself and sets fast; isocyanate, and dear.",
  cautions: ["isocyanate", "lifting"],
  edges: "Tough",
  setMin: { value: 150, unit: "min at 20 °C", source: TYPICAL },
  restMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  leastLayers: 3,
  firstLayerMm: 3.5,
  isWet: false,
  bendingMPa: { value: 8, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 900, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 8, unit: "mm", source: TYPICAL }, isSolid: false },
  parameters: [
    { key: "coats", label: "Coats", unit: "", value: 3, least: 1, most: 8, step: 1, source: TYPICAL },
    { key: "coatMm", label: "Each coat", unit: "mm", value: 2.7, least: 1, most: 5, step: 0.1, source: TYPICAL },
    {
      key: "flangeCoats",
      label: "Coats at the flanges",
      unit: "",
      value: 5,
      least: 1,
      most: 12,
      step: 1,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.1, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers({ figure, material }) {
    const kit = material("brush-polyurethane");
    const mixture = kitMix(kit, 220, false);
    const taken = { resin: { material: kit.id, usual: "brush-polyurethane" }, hardener: null } as const;
    const times = figure("flangeCoats") / figure("coats");
    return Array.from({ length: figure("coats") }, (_, k) =>
      resinCoat({ id: `coat-${k + 1}`, name: `Coat ${k + 1}` }, figure("coatMm"), G_PER_CM3, mixture, taken, times),
    );
  },
};

const G_PER_CM3 = 1.15;
