/** Plaster with dipped jute: a splash coat, layers of jute, thicker at the flanges. */
import { gypsumYield } from "../../materials/gypsum.ts";
import { TYPICAL } from "../../materials/property.ts";
import { MM2_PER_M2, MM3_PER_LITRE } from "../../units/index.ts";
import { type ShellSystem, sum } from "./system.ts";

export const gypsumJute: ShellSystem = {
  id: "gypsum-jute",
  name: "Plaster and jute",
  summary: "Cheap and forgiving; heavy, brittle at the edges, dries for days.",
  cautions: ["gypsum-dust", "gypsum-heat", "drains", "lifting"],
  setMin: { value: 90, unit: "min", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min", source: TYPICAL },
  isWet: true,
  bendingMPa: { value: 0.8, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 3000, unit: "MPa", source: TYPICAL },
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
  densities(figure) {
    const { wetKgPerLitre, dryKgPerLitre } = gypsumYield(figure("waterPer100"));
    // A square metre of the shell is so many litres; the jute lies in it and takes up next to no room.
    const juteKgPerLitre =
      (figure("juteLayers") * figure("juteGPerM2") * figure("overlap")) / 1000 / figure("thicknessMm");
    return { wetGPerCm3: wetKgPerLitre + juteKgPerLitre, dryGPerCm3: dryKgPerLitre + juteKgPerLitre };
  },
  takeoff(span, figure) {
    const mix = gypsumYield(figure("waterPer100"));
    const volumesL = span.areasMm2.map(
      (area, k) =>
        (area * figure("thicknessMm") + span.flangeAreasMm2[k] * figure("flangeThicknessMm")) / MM3_PER_LITRE,
    );
    const juteAreasM2 = span.areasMm2.map(
      (area, k) => ((area + span.flangeAreasMm2[k]) * figure("juteLayers") * figure("overlap")) / MM2_PER_M2,
    );
    const volumeL = sum(volumesL);
    const powderKg = volumeL * mix.powderKgPerLitre * (1 + figure("waste"));
    const volume = { name: "shell and flanges", value: volumeL, unit: "l" };
    const waste = { name: "waste", value: figure("waste"), unit: "share" };
    return {
      thicknessMm: figure("thicknessMm"),
      flangeThicknessMm: figure("flangeThicknessMm"),
      layers: figure("juteLayers") + 1,
      sectionMassesG: volumesL.map(
        (litres, k) => 1000 * litres * mix.dryKgPerLitre + juteAreasM2[k] * figure("juteGPerM2"),
      ),
      lines: [
        {
          material: "casting-plaster",
          use: "shell",
          group: "shell",
          quantity: powderKg,
          unit: "kg",
          working: {
            formula: "volume × 1 ÷ (1 ÷ 2.70 + water ÷ 100) × (1 + waste)",
            inputs: [
              volume,
              { name: "water per 100", value: figure("waterPer100"), unit: "g" },
              { name: "powder per litre", value: mix.powderKgPerLitre, unit: "kg/l" },
              waste,
            ],
          },
        },
        {
          material: "mixing-water",
          use: "shell",
          group: "shell",
          quantity: (powderKg * figure("waterPer100")) / 100,
          unit: "l",
          working: {
            formula: "plaster × water per 100 ÷ 100",
            inputs: [
              { name: "plaster", value: powderKg, unit: "kg" },
              { name: "water per 100", value: figure("waterPer100"), unit: "g" },
            ],
          },
        },
        {
          material: "jute-scrim",
          use: "shell",
          group: "shell",
          quantity: sum(juteAreasM2),
          unit: "m2",
          working: {
            formula: "(skin + flanges) × layers × overlap",
            inputs: [
              { name: "skin", value: sum(span.areasMm2) / MM2_PER_M2, unit: "m²" },
              { name: "layers", value: figure("juteLayers"), unit: "" },
              { name: "overlap", value: figure("overlap"), unit: "×" },
            ],
          },
        },
      ],
    };
  },
};
