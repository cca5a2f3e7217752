/** High-strength gypsum with glass mat: thinner and stronger than plaster and jute. */
import { gypsumYield } from "../../materials/gypsum.ts";
import { TYPICAL } from "../../materials/property.ts";
import { gypsumLayer, gypsumMix } from "./layers.ts";
import type { ShellSystem } from "./system.ts";

export const gypsumGlass: ShellSystem = {
  id: "gypsum-glass",
  name: "High-strength gypsum and glass mat",
  summary: "Stronger and thinner than plaster and jute; heavy, and sets fast.",
  cautions: ["gypsum-dust", "gypsum-heat", "glass-fibre", "drains", "lifting"],
  edges: "Fair",
  setMin: { value: 60, unit: "min", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min", source: TYPICAL },
  leastLayers: 3,
  firstLayerMm: 7,
  isWet: true,
  bendingMPa: { value: 2, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 9000, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 10, unit: "mm", source: TYPICAL }, isSolid: true },
  parameters: [
    { key: "thicknessMm", label: "Thickness", unit: "mm", value: 16, least: 8, most: 50, step: 1, source: TYPICAL },
    {
      key: "flangeThicknessMm",
      label: "Flange thickness",
      unit: "mm",
      value: 24,
      least: 8,
      most: 75,
      step: 1,
      source: TYPICAL,
    },
    {
      key: "waterPer100",
      label: "Water per 100 of powder",
      unit: "g",
      value: 38,
      least: 20,
      most: 100,
      step: 1,
      source: TYPICAL,
      of: { material: "high-strength-gypsum", figure: "waterPer100" },
    },
    { key: "matLayers", label: "Layers of mat", unit: "", value: 2, least: 1, most: 6, step: 1, source: TYPICAL },
    {
      key: "matGPerM2",
      label: "Weight of mat",
      unit: "g/m²",
      value: 225,
      least: 100,
      most: 600,
      step: 25,
      source: TYPICAL,
      of: { material: "alkali-glass-mat", figure: "weightGPerM2" },
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
  layers({ figure, material }) {
    const yields = gypsumYield(figure("waterPer100"));
    const gypsum = material("high-strength-gypsum");
    const mixture = gypsumMix(gypsum, figure("waterPer100"), { name: "High-strength gypsum", potMin: 18 });
    const laid = { mixture, yields, usual: "high-strength-gypsum" } as const;
    const layers = figure("matLayers");
    const share = (mm: number) => figure("flangeThicknessMm") * (mm / figure("thicknessMm"));
    const thick = (mm: number) => ({ mm, flangeMm: share(mm) });
    const faceMm = Math.min(FACE_MM, figure("thicknessMm") / (layers + 1));
    const matMm = (figure("thicknessMm") - faceMm) / layers;
    const perM2 = figure("overlap");
    const mat = {
      ...{ material: material("alkali-glass-mat").id, usual: "alkali-glass-mat" as const },
      ...{ perM2, gPerM2: perM2 * figure("matGPerM2") },
    } as const;
    return [
      gypsumLayer({ id: "face", name: "Face coat", isFace: true }, thick(faceMm), laid, null),
      ...Array.from({ length: layers }, (_, k) =>
        gypsumLayer({ id: `mat-${k + 1}`, name: `Mat, layer ${k + 1}` }, thick(matMm), laid, mat),
      ),
    ];
  },
};

/** The face coat is no thicker than this: a thick one traps air, mm. */
const FACE_MM = 6;
