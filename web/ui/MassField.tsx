import { massEntry, parseMassG } from "../../core/units/index.ts";
import { useShow } from "../lib/show.ts";
import { NumberField } from "./fields.tsx";

interface MassFieldProps {
  readonly label: string;
  readonly valueG: number;
  readonly leastG: number;
  readonly mostG: number;
  readonly hint?: string;
  readonly onChange: (valueG: number) => void;
}

/** A mass, typed in the shop's own unit, or in any other that is named: "450g", "2 lb 3 oz". */
export function MassField({ label, valueG, leastG, mostG, hint, onChange }: MassFieldProps) {
  const { units } = useShow();
  const { unit, grams } = massEntry(units);
  return (
    <NumberField
      label={label}
      unit={unit}
      value={valueG / grams}
      least={leastG / grams}
      most={mostG / grams}
      read={(text) => {
        const massG = parseMassG(text, units);
        return massG === null ? null : massG / grams;
      }}
      {...(hint ? { hint } : {})}
      onChange={(value) => onChange(Math.round(value * grams))}
    />
  );
}
