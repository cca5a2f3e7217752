/**
 * Shell systems. To add one: a file in `kinds/` exporting a `ShellSystem` (parameters as data, and the layers that follow from
 * them), and its line in `shellSystems`. Its form, its schema, its quantities, masses and pots follow from these.
 */
import { entryOf, type MaterialId } from "../materials/catalogue.ts";
import type { MaterialLine } from "../materials/property.ts";
import { MM2_PER_M2 } from "../units/index.ts";
import { brushPolyurethane } from "./kinds/brushPolyurethane.ts";
import { epoxyCloth } from "./kinds/epoxyCloth.ts";
import { fibrePaste } from "./kinds/fibrePaste.ts";
import { gypsumGlass } from "./kinds/gypsumGlass.ts";
import { gypsumJute } from "./kinds/gypsumJute.ts";
import type { ShellLayer } from "./kinds/layers.ts";
import { plasterBandage } from "./kinds/plasterBandage.ts";
import { polyesterMat } from "./kinds/polyesterMat.ts";
import { type ShellDensities, type ShellSpan, type ShellSystem, type ShellTakeoff, sum } from "./kinds/system.ts";

export type { ShellLayer } from "./kinds/layers.ts";
export type { ShellDensities, ShellParameter, ShellSpan, ShellSystem, ShellTakeoff } from "./kinds/system.ts";

export const shellSystems: readonly ShellSystem[] = [
  ...[gypsumJute, gypsumGlass, plasterBandage],
  ...[polyesterMat, epoxyCloth, brushPolyurethane, fibrePaste],
];

/** @throws RangeError for a system nobody registered */
export function shellSystem(id: string): ShellSystem {
  const system = shellSystems.find((candidate) => candidate.id === id);
  if (!system)
    throw new RangeError(`There is no shell system "${id}"; there are ${shellSystems.map((s) => s.id).join(", ")}.`);
  return system;
}

type Figures = Readonly<Record<string, number>>;

/** The layers with the user's figures, each falling back to the system's own; the first on the jacket first. */
export function shellLayers(id: string, figures: Figures): readonly ShellLayer[] {
  return shellSystem(id).layers(figureOf(id, figures));
}

/** What a shell takes and weighs with the user's figures. */
export function shellTakeoff(id: string, figures: Figures, span: ShellSpan): ShellTakeoff {
  const layers = shellLayers(id, figures);
  const { areasMm2, flangeAreasMm2 } = span;
  const { shellMm, flangeMm } = shellThicknesses(id, figures);
  return {
    thicknessMm: shellMm,
    flangeThicknessMm: flangeMm,
    layers: layers.length,
    sectionMassesG: areasMm2.map((areaMm2, k) =>
      sum(layers.map(({ dryG, flangeDryG }) => (areaMm2 * dryG + flangeAreasMm2[k] * flangeDryG) / MM2_PER_M2)),
    ),
    lines: linesOf(layers, sum(areasMm2) / MM2_PER_M2, sum(flangeAreasMm2) / MM2_PER_M2, wasteOf(id, figures)),
  };
}

/** Thicknesses of the shell and of its flanges, mm. */
export function shellThicknesses(
  id: string,
  figures: Figures,
): { readonly shellMm: number; readonly flangeMm: number } {
  const layers = shellLayers(id, figures);
  return {
    shellMm: sum(layers.map(({ thicknessMm }) => thicknessMm)),
    flangeMm: sum(layers.map(({ flangeThicknessMm }) => flangeThicknessMm)),
  };
}

/** Share of what is mixed that stays in buckets and brushes. */
export function wasteOf(id: string, figures: Figures): number {
  return figureOf(id, figures)("waste");
}

/** What all layers take of every material, in the order they first take it. */
function linesOf(layers: readonly ShellLayer[], skinM2: number, flangeM2: number, waste: number): MaterialLine[] {
  const taken = new Map<MaterialId, { perM2: number; flangePerM2: number }>();
  for (const { material, perM2, flangePerM2 } of layers.flatMap(({ takes }) => takes)) {
    const held = taken.get(material) ?? { perM2: 0, flangePerM2: 0 };
    taken.set(material, { perM2: held.perM2 + perM2, flangePerM2: held.flangePerM2 + flangePerM2 });
  }
  return [...taken].map(([material, { perM2, flangePerM2 }]): MaterialLine => {
    const { unit } = entryOf(material);
    // What is cut to size has its loss in its overlap; what is mixed stays in the bucket.
    const isMixed = unit === "kg" || unit === "l";
    const laid = skinM2 * perM2 + flangeM2 * flangePerM2;
    return {
      material,
      use: "shell",
      group: "shell",
      quantity: laid * (isMixed ? 1 + waste : 1),
      unit,
      working: {
        formula: `skin × what a m² takes + flanges × what a m² of them takes${isMixed ? ", × (1 + waste)" : ""}`,
        inputs: [
          { name: "skin", value: skinM2, unit: `m² at ${Number(perM2.toPrecision(4))} ${unit}` },
          { name: "flanges", value: flangeM2, unit: `m² at ${Number(flangePerM2.toPrecision(4))} ${unit}` },
          ...(isMixed ? [{ name: "waste", value: waste, unit: "share" }] : []),
        ],
      },
    };
  });
}

/** Densities of a shell by the user's figures. */
export function shellDensities(id: string, figures: Figures): ShellDensities {
  const layers = shellLayers(id, figures);
  const mm = sum(layers.map(({ thicknessMm }) => thicknessMm));
  const of = (gPerM2: readonly number[]) => sum(gPerM2) / (1000 * mm);
  return { wetGPerCm3: of(layers.map(({ wetG }) => wetG)), dryGPerCm3: of(layers.map(({ dryG }) => dryG)) };
}

function figureOf(id: string, figures: Figures): (key: string) => number {
  const system = shellSystem(id);
  return (key) => {
    const parameter = system.parameters.find((candidate) => candidate.key === key);
    if (!parameter) throw new Error(`Shell system ${id} asks for an unknown figure ${key}.`);
    return Math.min(parameter.most, Math.max(parameter.least, figures[key] ?? parameter.value));
  };
}
