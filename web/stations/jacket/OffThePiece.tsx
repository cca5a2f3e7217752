import { useEffect, useState } from "react";
import { SILICONE } from "../../../core/materials/silicone.ts";
import type { StretchCheck } from "../../../core/survey/stretch.ts";
import { useShow } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Part } from "../../ui/fields.tsx";

const percent = (share: number) => `${Math.round(100 * share)}\u2009%`;

/** Whether the jacket comes off over the top uncut, and how far it would have to be slit. */
export function OffThePiece({ planning: { bundle, geometry } }: { planning: Planning }) {
  const show = useShow();
  const [check, setCheck] = useState<StretchCheck | null>(null);
  const piece = bundle?.piece ?? null;
  useEffect(() => {
    setCheck(null);
    if (!piece || !geometry) return;
    let gone = false;
    void geometry.api.stretch(piece, SILICONE.workingStretch.value).then((next) => !gone && setCheck(next));
    return () => {
      gone = true;
    };
  }, [piece, geometry]);
  if (!check) return null;
  const { needed, narrow, wide, slitMm } = check;
  const { value: allowed, source } = SILICONE.workingStretch;
  return (
    <Part title="Can it come off in one piece?">
      <Figure
        label="It must stretch"
        working={{
          formula: "widest girth above ÷ girth there − 1",
          inputs: [
            { name: `girth at ${show.length(narrow.heightMm)}`, value: narrow.girthMm / 1000, unit: "m" },
            { name: `girth at ${show.length(wide.heightMm)}`, value: wide.girthMm / 1000, unit: "m" },
            { name: "silicone takes", value: 100 * allowed, unit: `%, ${source}` },
          ],
        }}
      >
        {percent(needed)}
      </Figure>
      {slitMm > 0 ? (
        <Caution>
          {`More than the ${percent(allowed)} silicone takes without harm, by the rule of thumb: slit it from the foot ${show.length(slitMm)} up, where it is least seen, or part it in two. The data sheet decides.`}
        </Caution>
      ) : (
        <p className="quiet text-sm">{`Within the ${percent(allowed)} silicone takes without harm: it can come off as a sock.`}</p>
      )}
    </Part>
  );
}
