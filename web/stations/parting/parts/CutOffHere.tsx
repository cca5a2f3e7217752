import type { CutOff } from "../../../../core/plan/results/cutOff.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution } from "../../../ui/fields.tsx";

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
          ? `One fill takes ${show.volume(fillMm3)} (${where(at)}). Cutting off the limb that stands over it, and moulding it alone, may be less work.`
          : `No way was found that all of it comes off. Consider cutting off the limb that holds it (${where(at)}), and moulding it alone.`}{" "}
        Measure tip to tip and tip to body before you cut.
      </Caution>
      <button type="button" className="btn btn-xs" onClick={() => stage?.comeTo(at)}>
        Show me where
      </button>
    </div>
  );
}
