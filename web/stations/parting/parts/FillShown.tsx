import { useShow } from "../../../lib/show.ts";
import { FILL_COLOURS } from "../../../scene/materials.ts";

/** Shows the fill on the stage by its thickness, with the scale it is painted by. */
export function FillShown({
  shown,
  thickestMm,
  onShow,
}: {
  shown: boolean;
  thickestMm: number;
  onShow: (shown: boolean) => void;
}) {
  const show = useShow();
  return (
    <div className="py-1">
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={shown}
          onChange={(event) => onShow(event.target.checked)}
        />
        Show the fill by its thickness
      </label>
      {shown && (
        <div className="mt-1 flex items-center gap-2 text-xs" data-testid="fill-scale">
          <span>0</span>
          <span
            aria-hidden="true"
            className="h-2 grow"
            style={{ background: `linear-gradient(to right, ${FILL_COLOURS.join(", ")})` }}
          />
          <span>{show.length(thickestMm)}</span>
        </div>
      )}
    </div>
  );
}
