import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { RULING_MM } from "../../../../core/walls/wallGround.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { usePicked } from "../picked.ts";

/** A flange narrower than this holds nothing, mm. */
const NO_FLANGE_MM = 15;
/** Shorter stretches without a flange are bridged, mm. */
const SHORT_MM = 60;
/** Places told one by one. */
const TOLD = 3;

/** The verdict first: is there room for every flange, and where not? */
export function CanBeBuilt({
  walls,
  box,
  sections,
}: {
  walls: readonly BuiltWall[];
  box: Box | null;
  /** How many there are, once they are settled; null before. */
  sections: number | null;
}) {
  const show = useShow();
  const { stage } = useStage();
  const pick = usePicked((picked) => picked.pick);
  const t = messages.verdict;
  if (walls.length === 0 || !box)
    return (
      <Part title={t.title}>
        <p className="quiet text-sm">{sections === 1 ? t.oneSection : t.waiting}</p>
      </Part>
    );
  const without = walls
    .flatMap(({ wall, pattern }) =>
      wall.narrowed
        .filter(({ widthMm, lengthMm }) => widthMm < NO_FLANGE_MM && lengthMm >= SHORT_MM)
        .map((narrow) => ({ ...narrow, number: pattern.number })),
    )
    .sort((a, b) => b.lengthMm - a.lengthMm);
  const dragging = walls
    .map(({ pattern, along }) => ({ number: pattern.number, mm: dragsMm(along.ground) }))
    .filter(({ mm }) => mm >= SHORT_MM);
  return (
    <Part title={t.title}>
      <p className="font-medium" data-testid="walls-verdict">
        {without.length === 0 ? t.yes(walls.length) : t.partly(without.length)}
      </p>
      {without.slice(0, TOLD).map(({ number, at, lengthMm, limit }) => (
        <Caution key={`${number} ${at.join()}`}>
          {t.noRoom(number, show.length(lengthMm), placeInWords(at, box, show.length), t.why[limit])}{" "}
          <button
            type="button"
            className="link"
            onClick={() => {
              pick(number);
              stage?.comeTo(at);
            }}
          >
            {t.showMe}
          </button>
        </Caution>
      ))}
      {without.length > TOLD && <p className="quiet text-sm">{t.more(without.length - TOLD)}</p>}
      {dragging.map(({ number, mm }) => (
        <Caution key={number}>{t.drags(number, show.length(mm))}</Caution>
      ))}
    </Part>
  );
}

/** Along how much of a wall the section that leaves first drags, leaned as it is, mm. */
function dragsMm({ sections: [left, right], draft }: BuiltWall["along"]["ground"]): number {
  let mm = 0;
  for (let k = left > right ? 0 : 1; k < draft.length; k += 2) if (draft[k] < DRAGS) mm += RULING_MM;
  return mm;
}

/** Sine of a draft that drags: half a degree the wrong way. */
const DRAGS = -0.009;
