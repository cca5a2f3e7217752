/** What decides how large a pot may be: warmth, hands, bucket and scale. */
import { MIXING_LIMITS, type MixingSettings } from "../../../core/materials/mixing.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { usePlan } from "../../document/planStore.ts";
import { More, NumberField, Part } from "../../ui/fields.tsx";
import { messages } from "./messages.ts";

const t = messages.sheet;

export function AtTheBench({ document }: { document: PlanDocument }) {
  const edit = usePlan((plan) => plan.edit);
  const field = (key: keyof MixingSettings, label: string, unit: string, step: number) => (
    <NumberField
      label={label}
      unit={unit}
      value={document.mixing[key]}
      least={MIXING_LIMITS[key][0]}
      most={MIXING_LIMITS[key][1]}
      step={step}
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
      {field("temperatureC", t.temperature, "°C", 1)}
      {field("people", t.people, "", 1)}
      <More title={`${t.vessel}, ${t.scaleStep.toLowerCase()}`}>
        {field("pace", t.pace, "×", 0.1)}
        {field("vesselMl", t.vessel, "ml", 100)}
        {field("scaleStepG", t.scaleStep, "g", 0.1)}
        {field("scaleMostG", t.scaleMost, "g", 500)}
      </More>
    </Part>
  );
}
