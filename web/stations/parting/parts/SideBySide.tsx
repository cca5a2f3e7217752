import { useEffect, useRef } from "react";
import { siliconeMassG } from "../../../../core/materials/silicone.ts";
import { COST_PARTS } from "../../../../core/parting/search/price.ts";
import { useShow } from "../../../lib/show.ts";
import type { ShownOffer } from "../../../workers/geometry.ts";
import { messages } from "../messages.ts";
import { PARTS } from "./costParts.ts";
import { Picture } from "./Picture.tsx";

/** Two plans held against each other. */
export function SideBySide({ plans, onClose }: { plans: readonly [ShownOffer, ShownOffer]; onClose: () => void }) {
  const show = useShow();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const rows: { name: string; of: (plan: ShownOffer) => string }[] = [
    { name: messages.sideBySide.partingLine, of: (plan) => show.length(plan.lineMm) },
    { name: messages.sideBySide.fill, of: (plan) => show.mass(siliconeMassG(plan.fillMm3)) },
    {
      name: messages.sideBySide.heaviestSection,
      of: (plan) => show.mass(Math.max(...plan.sections.map((s) => s.massG))),
    },
    {
      name: messages.sideBySide.largestSection,
      of: (plan) => show.length(Math.max(...plan.sections.map((s) => s.greatestMm))),
    },
    { name: messages.sideBySide.hoursHandsAndWaiting, of: (plan) => `${plan.hours.toFixed(1)}\u2009h` },
    ...COST_PARTS.map((part) => ({
      name: messages.sideBySide.costOf(PARTS[part].name),
      of: (plan: ShownOffer) => show.money(Math.round(plan.parts[part])),
    })),
    { name: messages.sideBySide.inAll, of: (plan) => show.money(Math.round(plan.cost)) },
  ];
  return (
    <dialog ref={dialog} className="modal" onClose={onClose} aria-label={messages.sideBySide.twoPlansSideBySide}>
      <div className="modal-box max-w-2xl">
        <table className="w-full">
          <thead>
            <tr>
              <th />
              {plans.map((plan) => (
                <th key={plan.sections.length} className="px-3 pb-2 text-left font-semibold">
                  <Picture plan={plan} className="mb-2 h-40 w-40" />
                  {plan.sections.length} {messages.sideBySide.sections}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, of }) => (
              <tr key={name} className="border-t border-base-300">
                <th className="quiet py-1 pr-3 text-left text-sm font-normal">{name}</th>
                {plans.map((plan) => (
                  <td key={plan.sections.length} className="px-3 py-1 font-medium whitespace-nowrap">
                    {of(plan)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <form method="dialog" className="modal-action">
          <button type="submit" className="btn btn-sm">
            {messages.sideBySide.close}
          </button>
        </form>
      </div>
    </dialog>
  );
}
