import { PUSH_HOLE_MM, type PushHole } from "../../../../core/keys/pushHoles.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { BRIDGED_MM, dragsMm, withoutFlange } from "../../../../core/walls/buildable.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { usePicked } from "../picked.ts";

/** Places told one by one. */
const TOLD = 3;

/** The verdict first: is there room for every flange, and where not? */
export function CanBeBuilt({
  walls,
  box,
  sections,
  holes,
}: {
  walls: readonly BuiltWall[];
  box: Box | null;
  /** How many there are, once they are settled; null before. */
  sections: number | null;
  /** Push holes, where it has only one. */
  holes: readonly PushHole[];
}) {
  const show = useShow();
  const { stage } = useStage();
  const pick = usePicked((picked) => picked.pick);
  const t = messages.verdict;
  if (walls.length === 0 || !box)
    return (
      <Part title={t.title}>
        <p className="quiet text-sm">{sections === 1 ? t.oneSection : t.waiting}</p>
        {box && holes.length > 0 && (
          <>
            <p className="mt-1 text-sm">{t.pushHoles(holes.length, show.length(PUSH_HOLE_MM))}</p>
            <ul className="list-disc pl-5 text-sm" data-testid="push-holes">
              {holes.map(({ at }) => (
                <li key={at.join()}>{placeInWords(at, box, show.length)}</li>
              ))}
            </ul>
          </>
        )}
      </Part>
    );
  const without = walls
    .flatMap(({ wall, pattern }) => withoutFlange(wall).map((narrow) => ({ ...narrow, number: pattern.number })))
    .sort((a, b) => b.lengthMm - a.lengthMm);
  const dragging = walls
    .map(({ pattern, along }) => ({ number: pattern.number, mm: dragsMm(along.ground) }))
    .filter(({ mm }) => mm >= BRIDGED_MM);
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
