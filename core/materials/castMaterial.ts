/** What moulds are filled with, as far as it pushes on them: densities while it is liquid. */
import { type Property, TYPICAL } from "./property.ts";

interface CastMaterial {
  readonly name: string;
  /** Words it is called by. */
  readonly words: RegExp;
  readonly liquidGPerCm3: Property;
}

const liquid = (value: number): Property => ({ value, unit: "g/cm3", source: TYPICAL });

const MATERIALS: readonly CastMaterial[] = [
  { name: "wax", words: /wax/i, liquidGPerCm3: liquid(0.85) },
  { name: "filled resin", words: /bonded|cold.?cast|filled/i, liquidGPerCm3: liquid(1.9) },
  { name: "resin", words: /resin|epoxy|polyester|urethane|plastic|rubber/i, liquidGPerCm3: liquid(1.15) },
  { name: "concrete", words: /concrete|cement|cast stone|mortar/i, liquidGPerCm3: liquid(2.2) },
  { name: "gypsum", words: /gypsum|plaster/i, liquidGPerCm3: liquid(1.75) },
  { name: "foam", words: /foam/i, liquidGPerCm3: liquid(1.1) },
];

/** Where the brief does not say, as heavy as what is usually cast that is heavy. */
const UNKNOWN_G_PER_CM3 = 2.2;

/** Density of what is cast while it is liquid, g/cm3. */
export function liquidGPerCm3(castMaterial: string): number {
  return MATERIALS.find(({ words }) => words.test(castMaterial))?.liquidGPerCm3.value ?? UNKNOWN_G_PER_CM3;
}
