import { newPlan } from "../../../../core/plan/document/document.ts";
import { type FillPart, withChoice } from "../../../../core/release/fills.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { messages } from "../messages.ts";

/**
 * What has to be in place before the first coat goes on: foot clay, and webs of clay across gaps. Each can be done
 * without; the plan is then sought again.
 */
export function BeforeCoat({
  footClayMm3,
  footClayMm,
  onBoard,
  parts,
  where,
}: {
  footClayMm3: number;
  /** Gaps under the piece up to this height are closed; 0 where they are left open. */
  footClayMm: number;
  onBoard: boolean;
  parts: readonly FillPart[];
  /** A place of the piece in words. */
  where: (at: FillPart["at"]) => string;
}) {
  const show = useShow();
  const { stage } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const webs = parts.filter(({ kind }) => kind === "web");
  const leftOpen = onBoard && footClayMm === 0;
  if (footClayMm3 === 0 && webs.length === 0 && !leftOpen) return null;
  const closeFoot = (heightMm: number) =>
    edit((plan) => ({ ...plan, jacket: { ...plan.jacket, footClayMm: heightMm } }));
  return (
    <div className="mt-2 rounded border border-base-300 p-2 text-sm" data-testid="before-coat">
      <p className="font-medium">{messages.beforeCoat.beforeTheFirstCoat}</p>
      <ul>
        {footClayMm3 > 0 && (
          <li className="flex items-baseline justify-between gap-2 py-1">
            <span>{messages.beforeCoat.footClay(show.volume(footClayMm3), show.length(footClayMm))}</span>
            <button type="button" className="btn btn-xs" onClick={() => closeFoot(0)}>
              {messages.beforeCoat.doWithout}
            </button>
          </li>
        )}
        {leftOpen && (
          <li className="flex items-baseline justify-between gap-2 py-1">
            <span>{messages.beforeCoat.gapsUnderThePieceStayOpen}</span>
            <button type="button" className="btn btn-xs" onClick={() => closeFoot(newPlan().jacket.footClayMm)}>
              {messages.beforeCoat.closeThemWithClay}
            </button>
          </li>
        )}
        {webs.map(({ at, volumeMm3 }) => (
          <li key={at.join()} className="flex items-baseline justify-between gap-2 py-1">
            <button
              type="button"
              className="text-left underline decoration-dotted underline-offset-4"
              onClick={() => stage?.comeTo(at)}
            >
              {messages.beforeCoat.web(where(at), show.volume(volumeMm3))}
            </button>
            <button
              type="button"
              className="btn btn-xs"
              onClick={() =>
                edit((plan) => ({
                  ...plan,
                  parting: { ...plan.parting, fills: withChoice(plan.parting.fills, at, "open") },
                }))
              }
            >
              {messages.beforeCoat.doWithout}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
