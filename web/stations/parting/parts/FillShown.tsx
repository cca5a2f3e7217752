import { useShow } from "../../../lib/show.ts";
import { FILL_COLOURS } from "../../../scene/materials.ts";
import { messages } from "../messages.ts";

const INK = "#22303a";
const PAPER = FILL_COLOURS[0];
const lines = (degrees: number) => `repeating-linear-gradient(${degrees}deg, ${INK} 0 1px, transparent 1px 4px)`;
/** The hatchings of the stage, as a key. */
const KINDS = [
  { name: "silicone", background: PAPER },
  { name: "clay", background: `${lines(45)}, ${PAPER}` },
  { name: "web", background: `${lines(45)}, ${lines(-45)}, ${PAPER}` },
  {
    name: messages.fillShown.hardPlug,
    background: `radial-gradient(${INK} 1px, transparent 1.5px) 0 0 / 5px 5px, ${PAPER}`,
  },
];

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
        {messages.fillShown.showTheFillByThicknessAnd}
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
      {shown && (
        <ul className="mt-1 flex flex-wrap gap-x-3 text-xs" aria-label={messages.fillShown.howFillsAreHatched}>
          {KINDS.map(({ name, background }) => (
            <li key={name} className="flex items-center gap-1">
              <span aria-hidden="true" className="inline-block h-3 w-5 border border-base-300" style={{ background }} />
              {name}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
