/** What pieces are made of, as far as their weight goes. */
import { MM3_PER_CM3 } from "../units/index.ts";
import { type Property, TYPICAL } from "./property.ts";

interface PieceMaterial {
  readonly name: string;
  /** Words it is called by. */
  readonly words: RegExp;
  readonly densityGPerCm3: Property;
}

const density = (value: number): Property => ({ value, unit: "g/cm3", source: TYPICAL });

const MATERIALS: readonly PieceMaterial[] = [
  { name: "bronze", words: /bronze|brass|copper/i, densityGPerCm3: density(8.7) },
  { name: "iron", words: /\biron\b|steel/i, densityGPerCm3: density(7.6) },
  { name: "aluminium", words: /alumin/i, densityGPerCm3: density(2.7) },
  { name: "stone", words: /stone|marble|granite|slate|alabaster/i, densityGPerCm3: density(2.7) },
  { name: "concrete", words: /concrete|cement/i, densityGPerCm3: density(2.3) },
  { name: "plaster", words: /plaster|gypsum/i, densityGPerCm3: density(1.2) },
  { name: "fired clay", words: /terracotta|ceramic|fired|porcelain|bisque/i, densityGPerCm3: density(2.0) },
  { name: "clay", words: /clay|plasticine/i, densityGPerCm3: density(1.9) },
  { name: "wax", words: /wax/i, densityGPerCm3: density(0.95) },
  { name: "wood", words: /wood|timber|\boak\b|\bpine\b/i, densityGPerCm3: density(0.75) },
  { name: "glass", words: /glass/i, densityGPerCm3: density(2.5) },
  { name: "bone", words: /\bbone\b|ivory|antler|\bhorn\b/i, densityGPerCm3: density(1.9) },
  { name: "foam", words: /foam/i, densityGPerCm3: density(0.05) },
  { name: "resin", words: /resin|plastic|epoxy|polyester|print/i, densityGPerCm3: density(1.2) },
];

/** Where the brief does not say what the piece is made of, it is taken for clay. */
const UNKNOWN = "clay";

/** The material that a piece's surface is named after: of several, the one named first. */
export function pieceMaterial(surface: string): PieceMaterial {
  const at = ({ words }: PieceMaterial) => surface.search(words);
  const named = MATERIALS.filter((material) => at(material) >= 0).sort((a, b) => at(a) - at(b));
  return named[0] ?? (MATERIALS.find(({ name }) => name === UNKNOWN) as PieceMaterial);
}

/** What a piece weighs at most, g: as if it were solid. */
export function pieceMassG(volumeMm3: number, surface: string): number {
  return (volumeMm3 / MM3_PER_CM3) * pieceMaterial(surface).densityGPerCm3.value;
}
