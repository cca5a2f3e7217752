import { fromEntry, lengthEntry, toEntry } from "../../core/units/index.ts";
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

/** A length, typed in the shop's own unit. */
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
      {...(hint ? { hint } : {})}
      onChange={(value) => onChange(fromEntry(value, units))}
    />
  );
}
