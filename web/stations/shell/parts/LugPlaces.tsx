import { type PlanDocument, SECTION_COUNTS, type SectionCount } from "../../../../core/plan/document/document.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { Caution, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import type { SectionLugs } from "../useLugs.ts";

const t = messages.lugs;

/** Where heavy sections are lifted by; one that wants a hoist may be parted once more. */
export function LugPlaces({ lugs, document, box }: { lugs: readonly SectionLugs[]; document: PlanDocument; box: Box }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  if (lugs.length === 0) return null;
  const heavy = lugs.filter(({ lift }) => lift === "hoist");
  const { sections, layout, pulls } = document.parting;
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
      {heavy.map(({ section }) => (
        <Caution key={section}>{t.tooHeavy(section)}</Caution>
      ))}
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
