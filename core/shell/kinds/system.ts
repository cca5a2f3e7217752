/** What a shell system is: its figures as data, and the layers that follow from them. */

import type { MaterialId, MaterialKey } from "../../materials/catalogue.ts";
import type { CautionId } from "../../materials/cautions.ts";
import type { ChosenMaterial } from "../../materials/chosen.ts";
import type { FigureKey } from "../../materials/entries/entry.ts";
import type { MaterialLine, Property } from "../../materials/property.ts";
import type { ShellLayer } from "./layers.ts";

/** One figure the user may set, described as data: forms, schemas and reports are made from it. */
export interface ShellParameter {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly source: string;
  /** A figure of a material: set to its own where another stands in for that. */
  readonly of?: { readonly material: MaterialId; readonly figure: FigureKey };
}

/** What a system's layers are worked out from. */
export interface Lay {
  /** Value of a parameter by its key. */
  readonly figure: (key: string) => number;
  /** What is taken where a material is asked for. */
  readonly material: (usual: MaterialId) => ChosenMaterial;
  /** Expected at the bench, °C. */
  readonly temperatureC: number;
}

/** What a shell has to cover. */
export interface ShellSpan {
  /** Area of each section's skin, mm2. */
  readonly areasMm2: readonly number[];
  /** Area of one face of each section's flanges, mm2: each section has its own along every parting line. */
  readonly flangeAreasMm2: readonly number[];
}

/** What a section is laid on, and what a square metre of it weighs ready to use (dry). */
export interface SectionLaid {
  readonly skinM2: number;
  readonly skinGPerM2: number;
  readonly flangeM2: number;
  readonly flangeGPerM2: number;
}

export interface ShellTakeoff {
  readonly sectionsLaid: readonly SectionLaid[];
  /** Mass of each section ready to use (dry), g. */
  readonly sectionMassesG: readonly number[];
  readonly lines: readonly MaterialLine[];
  /** What each section takes of every material, in its unit, with what is wasted of it. */
  readonly sectionTakes: readonly ReadonlyMap<MaterialKey, number>[];
  /** Layers laid on each section, for the hours of hands. */
  readonly sectionLayers: readonly number[];
}

export interface ShellDensities {
  readonly wetGPerCm3: number;
  readonly dryGPerCm3: number;
}

export interface ShellSystem {
  readonly id: string;
  readonly name: string;
  readonly summary: string;
  readonly parameters: readonly ShellParameter[];
  readonly cautions: readonly CautionId[];
  /** How its edges bear handling, in words. */
  readonly edges: string;
  /** Wait after a section before the next is built against it, and after the last before the shell is opened. */
  readonly setMin: Property;
  readonly restMin: Property;
  /** Fewer layers leave weak places. */
  readonly leastLayers: number;
  /** A thicker first layer traps air, whose holes lock into the next section. */
  readonly firstLayerMm: number;
  /** The bending that it is let bear, with a safety of about four, and how stiff it is, MPa. */
  readonly bendingMPa: Property;
  readonly modulusMPa: Property;
  /** What is laid over the pole of a rib; and is a rib without one solid, or laid as thick over a core of foam? */
  readonly rib: { readonly coverMm: Property; readonly isSolid: boolean };
  /** Is it mixed with water? Steel rusts in it then, and timber swells. */
  readonly isWet: boolean;
  /** What it is laid up of, the first on the jacket first. */
  layers(lay: Lay): readonly ShellLayer[];
}

export function sum(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0);
}
