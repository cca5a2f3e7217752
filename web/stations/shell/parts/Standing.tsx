import { STEADY_DEG, type Stand } from "../../../../core/casting/stand.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { useShow } from "../../../lib/show.ts";
import { Caution, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

const t = messages.stand;

/** Cradles hold a mould at these shares of its height. */
const CRADLES = [0.3, 0.65] as const;

/** How the closed mould stands in the position that it is filled in, and the feet that steady it. */
export function Standing({ stand, box }: { stand: Stand; box: Box }) {
  const show = useShow();
  const degrees = (deg: number) => String(Math.floor(deg));
  const heightMm = box.max[2] - box.min[2];
  const at = (share: number) => show.length(10 * Math.round((share * heightMm) / 10));
  return (
    <Part title={t.title}>
      {stand.ownTipDeg >= STEADY_DEG ? (
        <p className="text-sm">{t.steady(degrees(stand.ownTipDeg))}</p>
      ) : (
        <>
          <p className="text-sm">{t.tips(degrees(stand.ownTipDeg))}</p>
          {stand.feet.length > 0 && (
            <>
              <p className="mt-1 text-sm">{t.onFeet(stand.feet.length, degrees(stand.tipDeg))}</p>
              <ul className="list-disc pl-5 text-sm">
                {stand.feet.map((foot) => (
                  <li key={foot.at.join()}>
                    {t.foot(
                      show.length(Math.round(foot.lengthMm)),
                      placeInWords(foot.at, box, (mm) => show.length(mm)),
                    )}
                  </li>
                ))}
              </ul>
              <p className="quiet mt-1 text-xs">{t.level}</p>
            </>
          )}
          {stand.tipDeg < STEADY_DEG && <Caution>{t.cradle(at(CRADLES[0]), at(CRADLES[1]))}</Caution>}
        </>
      )}
      <p className="quiet mt-1 text-xs">{t.wedge}</p>
    </Part>
  );
}
