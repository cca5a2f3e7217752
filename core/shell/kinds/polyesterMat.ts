/** Polyester and glass mat: a gel coat, then layers of mat, doubled at the flanges. */
import { laminateLayer } from "../../materials/laminate.ts";
import { TYPICAL } from "../../materials/property.ts";
import { MM2_PER_M2 } from "../../units/index.ts";
import { type ShellSystem, sum } from "./system.ts";

export const polyesterMat: ShellSystem = {
  id: "polyester-mat",
  name: "Polyester and glass mat",
  summary: "Strong and light, a day's work; styrene fumes, heat, hardener and fibres.",
  cautions: ["polyester", "glass-fibre", "lifting"],
  setMin: { value: 180, unit: "min at 20 °C", source: TYPICAL },
  restMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  isWet: false,
  bendingMPa: { value: 25, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 7000, unit: "MPa", source: TYPICAL },
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
      label: "Hardener",
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
  densities(figure) {
    const layer = laminateLayer(figure("matGPerM2"), figure("glassFraction"), figure("resinDensity"));
    const gPerM2 = figure("layers") * (figure("matGPerM2") + layer.resinGPerM2);
    const gelGPerM2 = figure("gelCoatMm") * figure("resinDensity") * 1000;
    const thicknessMm = figure("gelCoatMm") + figure("layers") * layer.thicknessMm;
    const density = (gPerM2 + gelGPerM2) / (1000 * thicknessMm);
    return { wetGPerCm3: density, dryGPerCm3: density };
  },
  takeoff(span, figure) {
    const layer = laminateLayer(figure("matGPerM2"), figure("glassFraction"), figure("resinDensity"));
    const gelGPerM2 = figure("gelCoatMm") * figure("resinDensity") * 1000;
    // Square metres of one layer of mat on each section, flanges with their own number of layers.
    const matM2 = span.areasMm2.map(
      (area, k) =>
        ((area * figure("layers") + span.flangeAreasMm2[k] * figure("flangeLayers")) * figure("overlap")) / MM2_PER_M2,
    );
    const gelM2 = span.areasMm2.map((area, k) => (area + span.flangeAreasMm2[k]) / MM2_PER_M2);
    const mat = sum(matM2);
    const resinG = mat * layer.resinGPerM2 * (1 + figure("waste"));
    const gelG = sum(gelM2) * gelGPerM2 * (1 + figure("waste"));
    const waste = { name: "waste", value: figure("waste"), unit: "share" };
    const glass = { name: "mat with overlap", value: mat, unit: "m²" };
    return {
      thicknessMm: figure("gelCoatMm") + figure("layers") * layer.thicknessMm,
      flangeThicknessMm: figure("gelCoatMm") + figure("flangeLayers") * layer.thicknessMm,
      layers: figure("layers") + 1,
      sectionMassesG: matM2.map((m2, k) => m2 * (figure("matGPerM2") + layer.resinGPerM2) + gelM2[k] * gelGPerM2),
      lines: [
        {
          material: "polyester-resin",
          use: "shell",
          group: "shell",
          quantity: resinG / 1000,
          unit: "kg",
          working: {
            formula: "mat × W (1 − f) ÷ f × (1 + waste)",
            inputs: [
              glass,
              { name: "W, weight of mat", value: figure("matGPerM2"), unit: "g/m²" },
              { name: "f, glass by mass", value: figure("glassFraction"), unit: "share" },
              waste,
            ],
          },
        },
        {
          material: "polyester-gel-coat",
          use: "shell",
          group: "shell",
          quantity: gelG / 1000,
          unit: "kg",
          working: {
            formula: "(skin + flanges) × thickness × density × (1 + waste)",
            inputs: [
              { name: "skin and flanges", value: sum(gelM2), unit: "m²" },
              { name: "gel coat", value: figure("gelCoatMm"), unit: "mm" },
              { name: "density", value: figure("resinDensity"), unit: "g/cm³" },
              waste,
            ],
          },
        },
        {
          material: "peroxide-hardener",
          use: "shell",
          group: "shell",
          quantity: ((resinG + gelG) * figure("hardenerPercent")) / 100 / 1000,
          unit: "kg",
          working: {
            formula: "(resin + gel coat) × hardener %",
            inputs: [
              { name: "resin and gel coat", value: (resinG + gelG) / 1000, unit: "kg" },
              { name: "hardener", value: figure("hardenerPercent"), unit: "%" },
            ],
          },
        },
        {
          material: "glass-mat",
          use: "shell",
          group: "shell",
          quantity: mat * (1 + figure("waste")),
          unit: "m2",
          working: {
            formula: "(skin × layers + flanges × flange layers) × overlap × (1 + waste)",
            inputs: [glass, { name: "layers", value: figure("layers"), unit: "" }, waste],
          },
        },
      ],
    };
  },
};
