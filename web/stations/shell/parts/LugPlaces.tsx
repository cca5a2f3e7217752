import { useState } from "react";
import { MOST_SECTIONS } from "../../../../core/parting/layout/layout.ts";
import { type PlanDocument, SECTION_COUNTS, type SectionCount } from "../../../../core/plan/document/document.ts";
import type { ShownPlan } from "../../../../core/plan/results/figures.ts";
import type { Neck } from "../../../../core/solids/neck.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { partAtNeck } from "../../../planning/partAtNeck.ts";
import { Caution, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import type { SectionLugs } from "../useLugs.ts";

const t = messages.lugs;

/** Where heavy sections are lifted by; one that wants a hoist may be parted once more. */
interface LugPlacesProps {
  readonly lugs: readonly SectionLugs[];
  readonly document: PlanDocument;
  readonly plan: ShownPlan;
}

export function LugPlaces({ lugs, document, plan }: LugPlacesProps) {
  const box: Box = plan.figures.report.piece.boxMm;
  const [problem, setProblem] = useState<string | null>(null);
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  if (lugs.length === 0) return null;
  const heavy = lugs.filter(({ lift }) => lift === "hoist");
  const { sections, layout, pulls } = document.parting;
  const part = async (neck: Neck) => {
    setProblem(null);
    const parted = await partAtNeck(plan, document, neck);
    if (parted.ok) edit((now) => ({ ...now, parting: { ...now.parting, layout: parted.layout } }));
    else setProblem(parted.problem);
  };
  const more = layout || pulls ? null : oneMore(sections, lugs);
  return (
    <Part title={t.title}>
      <ul className="list-disc pl-5 text-sm" data-testid="lugs">
        {lugs.map(({ section, lugs: own }) => (
          <li key={section}>
            {own
              ? t.where(
                  section,
                  own.at.map((at) => placeInWords([...at], box, show.length)),
                )
              : t.none(section)}
          </li>
        ))}
      </ul>
      <p className="quiet mt-1 text-xs">{t.how}</p>
      {heavy.map(({ section, neck }) => (
        <div key={section}>
          <Caution>{t.tooHeavy(section)}</Caution>
          {neck && lugs[0].of < MOST_SECTIONS && (
            <button type="button" className="btn btn-xs mt-1" onClick={() => void part(neck)}>
              {t.neck(section, show.length(Math.round(neck.lengthMm)), placeInWords([...neck.at], box, show.length))}
            </button>
          )}
        </div>
      ))}
      {problem && <Caution>{problem}</Caution>}
      {heavy.length > 0 && more && (
        <button
          type="button"
          className="btn btn-xs mt-1"
          onClick={() => edit((plan) => ({ ...plan, parting: { ...plan.parting, sections: more } }))}
        >
          {t.more}
        </button>
      )}
    </Part>
  );
}

/** The number of sections that a plan with one more is asked for; null where there are as many as can be. */
function oneMore(asked: "auto" | SectionCount, lugs: readonly SectionLugs[]): SectionCount | null {
  const held = asked === "auto" ? Math.max(...lugs.map(({ of }) => of)) : asked;
  return SECTION_COUNTS.find((count) => count === held + 1) ?? null;
}
