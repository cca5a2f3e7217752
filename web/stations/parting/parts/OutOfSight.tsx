import type { HandEdit } from "../../../../core/parting/layout/edit.ts";
import type { HiddenStretch } from "../../../../core/parting/lines/bothSides.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution, More } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

/** Stretches of line that one of their two sections does not see: gone to, and moved into sight with one click. */
export function OutOfSight({
  hidden,
  onMove,
}: {
  hidden: readonly HiddenStretch[];
  onMove: (change: HandEdit) => void;
}) {
  const show = useShow();
  const { stage } = useStage();
  const total = hidden.reduce((sum, { lengthMm }) => sum + lengthMm, 0);
  return (
    <>
      <Caution>{messages.outOfSight.told(hidden.length, show.length(total))}</Caution>
      <More title={messages.outOfSight.title}>
        <ul className="text-sm" data-testid="out-of-sight">
          {hidden.map(({ at, to, from, lengthMm, moveMm }) => (
            <li key={at.join()} className="flex items-center justify-between gap-2 py-1">
              <button
                type="button"
                className="text-left underline decoration-dotted underline-offset-4"
                onClick={() => stage?.comeTo(at)}
              >
                {messages.outOfSight.unseenBy(show.length(lengthMm), from)}
              </button>
              {to && moveMm !== null ? (
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => onMove({ kind: "shift", at, to, lengthMm })}
                >
                  {messages.outOfSight.move(show.length(moveMm))}
                </button>
              ) : (
                <span className="quiet">{messages.outOfSight.noneNear}</span>
              )}
            </li>
          ))}
        </ul>
      </More>
    </>
  );
}
