import { useEffect, useState } from "react";
import { siliconeOf } from "../../../core/materials/silicone.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import type { StretchCheck } from "../../../core/survey/stretch.ts";
import { useShow } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Part } from "../../ui/fields.tsx";
import { messages } from "./messages.ts";

const percent = (share: number) => `${Math.round(100 * share)}\u2009%`;

/** Whether the jacket comes off over the top uncut, and how far it would have to be slit. */
export function OffThePiece({
  planning: { bundle, geometry },
  document: { jacket, materials },
}: {
  planning: Planning;
  document: PlanDocument;
}) {
  const { value: allowed, source } = siliconeOf(jacket.silicone, materials.own).workingStretch;
  const show = useShow();
  const [check, setCheck] = useState<StretchCheck | null>(null);
  const piece = bundle?.piece ?? null;
  useEffect(() => {
    setCheck(null);
    if (!piece || !geometry) return;
    let gone = false;
    void geometry.api.stretch(piece, allowed).then((next) => !gone && setCheck(next));
    return () => {
      gone = true;
    };
  }, [piece, geometry, allowed]);
  if (!check) return null;
  const { needed, narrow, wide, slitMm } = check;
  return (
    <Part title={messages.offThePiece.title}>
      <Figure
        label={messages.offThePiece.itMustStretch}
        working={{
          formula: messages.offThePiece.formula,
          inputs: [
            {
              name: messages.offThePiece.girthAt(show.length(narrow.heightMm)),
              value: narrow.girthMm / 1000,
              unit: "m",
            },
            { name: messages.offThePiece.girthAt(show.length(wide.heightMm)), value: wide.girthMm / 1000, unit: "m" },
            {
              name: messages.offThePiece.siliconeTakes,
              value: 100 * allowed,
              unit: messages.offThePiece.percentBy(source),
            },
          ],
        }}
      >
        {percent(needed)}
      </Figure>
      {slitMm > 0 ? (
        <Caution>{messages.offThePiece.slit(percent(allowed), show.length(slitMm))}</Caution>
      ) : (
        <p className="quiet text-sm">{messages.offThePiece.sock(percent(allowed))}</p>
      )}
    </Part>
  );
}
