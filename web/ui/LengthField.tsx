import { fromEntry, lengthEntry, parseLengthMm, toEntry } from "../../core/units/index.ts";
import { useShow } from "../lib/show.ts";
import { NumberField } from "./fields.tsx";

interface LengthFieldProps {
  readonly label: string;
  readonly valueMm: number;
  readonly leastMm: number;
  readonly mostMm: number;
  readonly stepMm?: number;
  readonly hint?: string;
  /** Words after the unit. */
  readonly after?: string;
  readonly onChange: (valueMm: number) => void;
}

/** A length, typed in the shop's own unit, or in any other that is named: "1/4 in", "2 cm". */
export function LengthField({ label, valueMm, leastMm, mostMm, stepMm = 1, hint, after, onChange }: LengthFieldProps) {
  const { units } = useShow();
  const { unit, step } = lengthEntry(units, stepMm);
  return (
    <NumberField
      label={label}
      unit={after ? `${unit} ${after}` : unit}
      value={toEntry(valueMm, units)}
      least={toEntry(leastMm, units)}
      most={toEntry(mostMm, units)}
      step={step}
      read={(text) => {
        const lengthMm = parseLengthMm(text, units);
        return lengthMm === null ? null : toEntry(lengthMm, units);
      }}
      {...(hint ? { hint } : {})}
      onChange={(value) => onChange(fromEntry(value, units))}
    />
  );
}
