/** Plaster with dipped jute: a splash coat, layers of jute, thicker at the flanges. */
import { gypsumYield } from "../../materials/gypsum.ts";
import { TYPICAL } from "../../materials/property.ts";
import { gypsumLayer, gypsumMix } from "./layers.ts";
import type { ShellSystem } from "./system.ts";

export const gypsumJute: ShellSystem = {
  id: "gypsum-jute",
  name: "Plaster and jute",
  summary: "Cheap and forgiving; heavy, brittle at the edges, dries for days.",
  cautions: ["gypsum-dust", "gypsum-heat", "drains", "lifting"],
  edges: "Brittle",
  setMin: { value: 90, unit: "min", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min", source: TYPICAL },
  leastLayers: 3,
  firstLayerMm: 7,
  isWet: true,
  bendingMPa: { value: 0.8, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 3000, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 10, unit: "mm", source: TYPICAL }, isSolid: true },
  parameters: [
    { key: "thicknessMm", label: "Thickness", unit: "mm", value: 20, least: 8, most: 60, step: 1, source: TYPICAL },
    {
      key: "flangeThicknessMm",
      label: "Flange thickness",
      unit: "mm",
      value: 25,
      least: 8,
      most: 80,
      step: 1,
      source: TYPICAL,
    },
    {
      key: "waterPer100",
      label: "Water per 100 of plaster",
      unit: "g",
      value: 70,
      least: 20,
      most: 120,
      step: 1,
      source: TYPICAL,
      of: { material: "casting-plaster", figure: "waterPer100" },
    },
    { key: "juteLayers", label: "Layers of jute", unit: "", value: 2, least: 1, most: 6, step: 1, source: TYPICAL },
    {
      key: "juteGPerM2",
      label: "Weight of jute",
      unit: "g/m²",
      value: 300,
      least: 100,
      most: 600,
      step: 10,
      source: TYPICAL,
      of: { material: "jute-scrim", figure: "weightGPerM2" },
    },
    {
      key: "overlap",
      label: "Overlap of jute pieces",
      unit: "×",
      value: 1.25,
      least: 1,
      most: 2,
      step: 0.05,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.12, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers({ figure, material }) {
    const yields = gypsumYield(figure("waterPer100"));
    const plaster = material("casting-plaster");
    const mixture = gypsumMix(plaster, figure("waterPer100"), { name: "Plaster", potMin: 12 });
    const laid = { mixture, yields, usual: "casting-plaster" } as const;
    const layers = figure("juteLayers");
    const share = (mm: number) => figure("flangeThicknessMm") * (mm / figure("thicknessMm"));
    const thick = (mm: number) => ({ mm, flangeMm: share(mm) });
    const splashMm = Math.min(SPLASH_MM, figure("thicknessMm") / (layers + 1));
    const juteMm = (figure("thicknessMm") - splashMm) / layers;
    const perM2 = figure("overlap");
    const jute = {
      ...{ material: material("jute-scrim").id, usual: "jute-scrim" as const },
      ...{ perM2, gPerM2: perM2 * figure("juteGPerM2") },
    } as const;
    return [
      gypsumLayer({ id: "splash", name: "Splash coat", isFace: true }, thick(splashMm), laid, null),
      ...Array.from({ length: layers }, (_, k) =>
        gypsumLayer({ id: `jute-${k + 1}`, name: `Jute, layer ${k + 1}` }, thick(juteMm), laid, jute),
      ),
    ];
  },
};

/** The first coat is splashed on thin, so that no air is trapped under it, mm. */
const SPLASH_MM = 5;
