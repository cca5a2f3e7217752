import type { CutOff } from "../../../../core/plan/results/cutOff.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

/** Says where cutting a limb off and moulding it alone may be the better way, and goes there. */
export function CutOffHere({
  cutOff: { at, fillMm3 },
  where,
}: {
  cutOff: CutOff;
  /** A place of the piece in words. */
  where: (at: CutOff["at"]) => string;
}) {
  const show = useShow();
  const { stage } = useStage();
  return (
    <div data-testid="cut-off">
      <Caution>
        {fillMm3 > 0
          ? messages.cutOffHere.dearFill(show.volume(fillMm3), where(at))
          : messages.cutOffHere.noWay(where(at))}{" "}
        {messages.cutOffHere.measure}
      </Caution>
      <button type="button" className="btn btn-xs" onClick={() => stage?.comeTo(at)}>
        {messages.cutOffHere.showMeWhere}
      </button>
    </div>
  );
}
