/**
 * Shell systems. To add one: a file in `kinds/` exporting a `ShellSystem` (parameters as data, and the layers that follow from
 * them), and its line in `shellSystems`. Its form, its schema, its quantities, masses and pots follow from these.
 */
import { entryOf, type MaterialKey } from "../materials/catalogue.ts";
import { AS_USUAL, chosenFor } from "../materials/chosen.ts";
import { TYPICAL_MIXING } from "../materials/mixing.ts";
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
import type { LayTerms, Layup } from "./layup.ts";

export type { ShellLayer } from "./kinds/layers.ts";
export type {
  SectionLaid,
  ShellDensities,
  ShellParameter,
  ShellSpan,
  ShellSystem,
  ShellTakeoff,
} from "./kinds/system.ts";

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

/** What layers depend on where nothing was decided. */
export const USUAL_TERMS: LayTerms = { temperatureC: TYPICAL_MIXING.temperatureC, materials: AS_USUAL };

/** A system at its typical figures, its layers in their usual order. */
export function typicalLayup(system: string): Layup {
  return { system, figures: {}, order: [] };
}

/** Layers that were worked out before, by their lay-up, which nobody changes: one plan asks for them many times over. */
const known = new WeakMap<Layup, { readonly terms: LayTerms; readonly layers: readonly ShellLayer[] }[]>();

/** The layers of a lay-up in the order they are laid; the first on the jacket first. */
export function shellLayers(layup: Layup, terms: LayTerms = USUAL_TERMS): readonly ShellLayer[] {
  const held = known.get(layup) ?? [];
  const { temperatureC, materials } = terms;
  const found = held.find((each) => each.terms.temperatureC === temperatureC && each.terms.materials === materials);
  if (found) return found.layers;
  const layers = laidLayers(layup, terms);
  // The plan's own terms and the usual ones are asked for by turns.
  known.set(layup, [{ terms, layers }, ...held.slice(0, 1)]);
  return layers;
}

function laidLayers(layup: Layup, terms: LayTerms): readonly ShellLayer[] {
  const layers = shellSystem(layup.system).layers({
    figure: figureOf(layup),
    material: (usual) => chosenFor(usual, terms.materials),
    temperatureC: terms.temperatureC,
  });
  return inOrder(layers, layup.order);
}

/** Those whose place was decided there; any other after the one that it follows in its system. */
function inOrder(layers: readonly ShellLayer[], order: readonly string[]): ShellLayer[] {
  const placed = order.flatMap((id) => layers.find((layer) => layer.id === id) ?? []);
  layers.forEach((layer, k) => {
    if (placed.includes(layer)) return;
    placed.splice(k === 0 ? 0 : placed.indexOf(layers[k - 1]) + 1, 0, layer);
  });
  return placed;
}

/**
 * What a shell takes and weighs.
 * @param layups one a section of the span, in their order
 */
export function shellTakeoff(layups: readonly Layup[], span: ShellSpan, terms: LayTerms = USUAL_TERMS): ShellTakeoff {
  const { areasMm2, flangeAreasMm2 } = span;
  const layersOf = once((layup: Layup) => shellLayers(layup, terms));
  const laid = layups.map((layup, k) => ({
    layers: layersOf(layup),
    skinM2: areasMm2[k] / MM2_PER_M2,
    flangeM2: flangeAreasMm2[k] / MM2_PER_M2,
    waste: wasteOf(layup),
  }));
  const sectionsLaid = laid.map(({ layers, skinM2, flangeM2 }) => ({
    ...{ skinM2, flangeM2 },
    skinGPerM2: sum(layers.map(({ dryG }) => dryG)),
    flangeGPerM2: sum(layers.map(({ flangeDryG }) => flangeDryG)),
  }));
  return {
    sectionsLaid,
    sectionMassesG: sectionsLaid.map(
      ({ skinM2, skinGPerM2, flangeM2, flangeGPerM2 }) => skinM2 * skinGPerM2 + flangeM2 * flangeGPerM2,
    ),
    sectionTakes: laid.map((section) => takesOf(section, terms)),
    sectionLayers: laid.map(({ layers }) => layers.length),
    lines: linesOf(laid, terms),
  };
}

/** A function of an object that is asked once for each. */
function once<Key extends object, Value>(make: (key: Key) => Value): (key: Key) => Value {
  const made = new Map<Key, Value>();
  return (key) => {
    const held = made.get(key) ?? make(key);
    made.set(key, held);
    return held;
  };
}

/** Thicknesses of a shell and of its flanges, mm. */
export interface ShellThicknesses {
  readonly shellMm: number;
  readonly flangeMm: number;
}

export function shellThicknesses(layup: Layup): ShellThicknesses {
  const layers = shellLayers(layup);
  return {
    shellMm: sum(layers.map(({ thicknessMm }) => thicknessMm)),
    flangeMm: sum(layers.map(({ flangeThicknessMm }) => flangeThicknessMm)),
  };
}

/** The thickest of some lay-ups, mm: what room is kept for. */
export function thickestOf(layups: readonly Layup[]): ShellThicknesses {
  const all = layups.map(shellThicknesses);
  return {
    shellMm: Math.max(...all.map(({ shellMm }) => shellMm)),
    flangeMm: Math.max(...all.map(({ flangeMm }) => flangeMm)),
  };
}

/** Share of what is mixed that stays in buckets and brushes. */
export function wasteOf(layup: Layup): number {
  return figureOf(layup)("waste");
}

interface Laid {
  readonly layers: readonly ShellLayer[];
  readonly skinM2: number;
  readonly flangeM2: number;
  readonly waste: number;
}

/** What is cut to size has its loss in its overlap; what is mixed stays in the bucket. */
function isMixed(material: MaterialKey, { materials }: LayTerms): boolean {
  const { unit } = entryOf(material, materials.own);
  return unit === "kg" || unit === "l";
}

/** What a section takes of every material, in the order its layers first take it. */
function takesOf({ layers, skinM2, flangeM2, waste }: Laid, terms: LayTerms): Map<MaterialKey, number> {
  const taken = new Map<MaterialKey, number>();
  for (const { material, perM2, flangePerM2 } of layers.flatMap(({ takes }) => takes)) {
    const laid = skinM2 * perM2 + flangeM2 * flangePerM2;
    taken.set(material, (taken.get(material) ?? 0) + laid * (isMixed(material, terms) ? 1 + waste : 1));
  }
  return taken;
}

/** What all sections take of every material, in the order they first take it. */
function linesOf(sections: readonly Laid[], terms: LayTerms): MaterialLine[] {
  const takes = sections.map((section) => takesOf(section, terms));
  const skinM2 = sum(sections.map((section) => section.skinM2));
  const flangeM2 = sum(sections.map((section) => section.flangeM2));
  return [...new Set(takes.flatMap((taken) => [...taken.keys()]))].map((material): MaterialLine => {
    const { unit } = entryOf(material, terms.materials.own);
    const quantity = sum(takes.map((taken) => taken.get(material) ?? 0));
    const mixed = isMixed(material, terms);
    const per = (key: "perM2" | "flangePerM2", areaOf: (laid: Laid) => number, m2: number) => {
      const amount = sum(
        sections.map(
          (laid) =>
            areaOf(laid) *
            sum(
              laid.layers.flatMap((layer) => layer.takes.map((take) => (take.material === material ? take[key] : 0))),
            ),
        ),
      );
      return { amount, unit: `m² at ${Number((m2 > 0 ? amount / m2 : 0).toPrecision(4))} ${unit}` };
    };
    const skin = per("perM2", (laid) => laid.skinM2, skinM2);
    const flanges = per("flangePerM2", (laid) => laid.flangeM2, flangeM2);
    const laid = skin.amount + flanges.amount;
    return {
      ...{ material, use: "shell", group: "shell", quantity, unit },
      working: {
        formula: `skin × what a m² takes + flanges × what a m² of them takes${mixed ? ", × (1 + waste)" : ""}`,
        inputs: [
          { name: "skin", value: skinM2, unit: skin.unit },
          { name: "flanges", value: flangeM2, unit: flanges.unit },
          ...(mixed ? [{ name: "waste", value: laid > 0 ? quantity / laid - 1 : 0, unit: "share" }] : []),
        ],
      },
    };
  });
}

/** Densities of a shell by the user's figures. */
export function shellDensities(layup: Layup): ShellDensities {
  const layers = shellLayers(layup);
  const mm = sum(layers.map(({ thicknessMm }) => thicknessMm));
  const of = (gPerM2: readonly number[]) => sum(gPerM2) / (1000 * mm);
  return { wetGPerCm3: of(layers.map(({ wetG }) => wetG)), dryGPerCm3: of(layers.map(({ dryG }) => dryG)) };
}

function figureOf({ system: id, figures }: Layup): (key: string) => number {
  const system = shellSystem(id);
  return (key) => {
    const parameter = system.parameters.find((candidate) => candidate.key === key);
    if (!parameter) throw new Error(`Shell system ${id} asks for an unknown figure ${key}.`);
    return Math.min(parameter.most, Math.max(parameter.least, figures[key] ?? parameter.value));
  };
}
