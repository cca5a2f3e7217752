import type { Strap } from "../../../../core/casting/straps.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { NumberField, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

const t = messages.straps;

/** Straps round the mould where walls are strapped: how many, how long, and at what heights. */
export function Straps({ document, straps }: { document: PlanDocument; straps: readonly Strap[] }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  if (straps.length === 0) return null;
  const length = (mm: number) => show.length(10 * Math.round(mm / 10));
  return (
    <Part title={t.title}>
      <p className="text-sm">{t.count(straps.length)}</p>
      <ul className="list-disc pl-5 text-sm" data-testid="straps">
        {straps.map(({ heightMm, lengthMm }) => (
          <li key={heightMm}>{t.strap(length(heightMm), length(lengthMm))}</li>
        ))}
      </ul>
      <NumberField
        label={t.load}
        unit="N"
        value={document.shell.casting.strapLoadN}
        least={50}
        most={100_000}
        step={50}
        onChange={(strapLoadN) =>
          edit((plan) => ({
            ...plan,
            shell: { ...plan.shell, casting: { ...plan.shell.casting, strapLoadN } },
          }))
        }
      />
      <p className="quiet mt-1 text-xs">{t.how}</p>
    </Part>
  );
}
