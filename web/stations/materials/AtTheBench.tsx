/** What decides how large a pot may be: warmth, hands, bucket and scale. */
import { MIXING_LIMITS, type MixingSettings } from "../../../core/materials/mixing.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { celsiusOf, fahrenheitOf, parseTemperatureC, parseWeighedG } from "../../../core/units/index.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { More, NumberField, Part } from "../../ui/fields.tsx";
import { messages } from "./messages.ts";

const t = messages.sheet;

export function AtTheBench({ document }: { document: PlanDocument }) {
  const edit = usePlan((plan) => plan.edit);
  const field = (
    key: keyof MixingSettings,
    label: string,
    unit: string,
    step: number,
    read?: (text: string) => number | null,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      value={document.mixing[key]}
      least={MIXING_LIMITS[key][0]}
      most={MIXING_LIMITS[key][1]}
      step={step}
      {...(read ? { read } : {})}
      onChange={(value) =>
        edit((plan) => ({
          ...plan,
          mixing: { ...plan.mixing, [key]: key === "people" ? Math.round(value) : value },
        }))
      }
    />
  );
  return (
    <Part title={t.mixing}>
      <Temperature
        celsius={document.mixing.temperatureC}
        onChange={(temperatureC) => edit((plan) => ({ ...plan, mixing: { ...plan.mixing, temperatureC } }))}
      />
      {field("people", t.people, "", 1)}
      <More title={`${t.vessel}, ${t.scaleStep.toLowerCase()}`}>
        {field("pace", t.pace, "×", 0.1)}
        {field("vesselMl", t.vessel, "ml", 100)}
        {field("scaleStepG", t.scaleStep, "g", 0.1, parseWeighedG)}
        {field("scaleMostG", t.scaleMost, "g", 500, parseWeighedG)}
      </More>
    </Part>
  );
}

/** In the shop's own scale; a temperature in the other is understood. */
function Temperature({ celsius, onChange }: { celsius: number; onChange: (celsius: number) => void }) {
  const { units } = useShow();
  const imperial = units === "imperial";
  const shown = (degreesC: number) => (imperial ? fahrenheitOf(degreesC) : degreesC);
  const [leastC, mostC] = MIXING_LIMITS.temperatureC;
  return (
    <NumberField
      label={t.temperature}
      unit={imperial ? "°F" : "°C"}
      value={shown(celsius)}
      least={shown(leastC)}
      most={shown(mostC)}
      step={1}
      read={(text) => {
        const degreesC = parseTemperatureC(text, units);
        return degreesC === null ? null : shown(degreesC);
      }}
      onChange={(degrees) => onChange(Number((imperial ? celsiusOf(degrees) : degrees).toFixed(2)))}
    />
  );
}
