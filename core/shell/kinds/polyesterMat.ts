/** Polyester and glass mat: a gel coat, then layers of mat, doubled at the flanges. */
import type { MaterialId } from "../../materials/catalogue.ts";
import { peroxidePercent } from "../../materials/mixing.ts";
import { TYPICAL } from "../../materials/property.ts";
import { type GlassLaid, glassLayer, resinCoat } from "./layers.ts";
import { peroxideMix } from "./resinMixes.ts";
import type { ShellSystem } from "./system.ts";

export const polyesterMat: ShellSystem = {
  id: "polyester-mat",
  name: "Polyester and glass mat",
  summary: "Strong and light, a day's work; styrene fumes, heat, hardener and fibres.",
  cautions: ["polyester", "glass-fibre", "lifting"],
  edges: "Tough",
  setMin: { value: 180, unit: "min at 20 °C", source: TYPICAL },
  restMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  leastLayers: 3,
  firstLayerMm: 3.5,
  isWet: false,
  bendingMPa: { value: 25, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 7000, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 4, unit: "mm", source: TYPICAL }, isSolid: false },
  parameters: [
    { key: "gelCoatMm", label: "Gel coat", unit: "mm", value: 0.5, least: 0, most: 2, step: 0.1, source: TYPICAL },
    { key: "layers", label: "Layers of mat", unit: "", value: 4, least: 1, most: 12, step: 1, source: TYPICAL },
    {
      key: "flangeLayers",
      label: "Layers at the flanges",
      unit: "",
      value: 6,
      least: 1,
      most: 16,
      step: 1,
      source: TYPICAL,
    },
    {
      key: "matGPerM2",
      label: "Weight of mat",
      unit: "g/m²",
      value: 450,
      least: 100,
      most: 900,
      step: 25,
      source: TYPICAL,
      of: { material: "glass-mat", figure: "weightGPerM2" },
    },
    {
      key: "glassFraction",
      label: "Glass by mass",
      unit: "share",
      value: 0.3,
      least: 0.2,
      most: 0.6,
      step: 0.01,
      source: TYPICAL,
    },
    {
      key: "resinDensity",
      label: "Resin density",
      unit: "g/cm³",
      value: 1.2,
      least: 1,
      most: 1.5,
      step: 0.01,
      source: TYPICAL,
    },
    {
      key: "hardenerPercent",
      label: "Hardener at 20 °C",
      unit: "% of resin",
      value: 1.5,
      least: 1,
      most: 2,
      step: 0.1,
      source: TYPICAL,
    },
    {
      key: "overlap",
      label: "Overlap of mat pieces",
      unit: "×",
      value: 1.15,
      least: 1,
      most: 2,
      step: 0.05,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.1, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers({ figure, material, temperatureC }) {
    const usually = figure("hardenerPercent");
    const taken = (usual: MaterialId) => ({ material: material(usual).id, usual });
    const hardener = { ...taken("peroxide-hardener"), percent: peroxidePercent(usually, temperatureC) };
    const density = figure("resinDensity");
    const laid: GlassLaid = {
      ...{ resin: taken("polyester-resin"), hardener, glass: taken("glass-mat"), density },
      ...{ glassGPerM2: figure("matGPerM2"), glassFraction: figure("glassFraction"), overlap: figure("overlap") },
      times: figure("flangeLayers") / figure("layers"),
    };
    const gel = { resin: taken("polyester-gel-coat"), hardener };
    const gelMix = peroxideMix(material("polyester-gel-coat"), "Gel coat", usually, density);
    const resinMix = peroxideMix(material("polyester-resin"), "Polyester", usually, density);
    return [
      ...(figure("gelCoatMm") > 0 ? [resinCoat(GEL, figure("gelCoatMm"), density, gelMix, gel)] : []),
      ...Array.from({ length: figure("layers") }, (_, k) =>
        glassLayer({ id: `mat-${k + 1}`, name: `Mat, layer ${k + 1}` }, laid, resinMix),
      ),
    ];
  },
};

const GEL = { id: "gel", name: "Gel coat", isFace: true };
