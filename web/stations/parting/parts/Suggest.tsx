import { useContext } from "react";
import { jacketThicknessMm, usualGiveMm } from "../../../../core/jacket/coat.ts";
import { type PlanDocument, SECTION_COUNTS } from "../../../../core/plan/document/document.ts";
import { searchRatesOf } from "../../../../core/plan/document/searchRates.ts";
import { usePlan } from "../../../document/planStore.ts";
import { SettingsContext } from "../../../lib/show.ts";
import { Choice, More, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";
import { PricesChanged } from "./PricesChanged.tsx";

/** How many sections are wanted, and what a suggestion goes by. */
export function Suggest({
  document,
  onSuggest,
}: {
  document: PlanDocument;
  onSuggest: (sections: PlanDocument["parting"]["sections"]) => void;
}) {
  const { rates } = useContext(SettingsContext);
  const edit = usePlan((plan) => plan.edit);
  const { layout } = document.parting;
  return (
    <Part
      title={messages.suggest.suggest}
      aside={
        (layout || document.parting.pulls) && (
          <span className="quiet text-sm">
            {layout ? messages.suggest.linesLaidByHand : messages.suggest.pullsSetByHand}
          </span>
        )
      }
    >
      <Choice<PlanDocument["parting"]["sections"]>
        label={messages.suggest.sections}
        value={document.parting.sections}
        options={[
          { value: "auto", name: messages.suggest.cheapest },
          ...SECTION_COUNTS.map((count) => ({ value: count, name: String(count) })),
        ]}
        onChange={onSuggest}
      />
      {document.parting.pulls && !layout && (
        <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => onSuggest(document.parting.sections)}>
          {messages.suggest.suggestThePullsAgain}
        </button>
      )}
      {!layout && (
        <PricesChanged
          suggestedAt={document.parting.suggestedAt}
          onAgain={() => edit((plan) => ({ ...plan, parting: { ...plan.parting, suggestedAt: searchRatesOf(rates) } }))}
        />
      )}
      <More title={messages.suggest.rubberFillsSmallestSection}>
        <LengthField
          label={messages.suggest.theRubberGives}
          hint={messages.suggest.giveHint}
          valueMm={document.parting.giveMm ?? usualGiveMm(jacketThicknessMm(document.jacket.coats))}
          leastMm={0.2}
          mostMm={10}
          stepMm={0.1}
          onChange={(giveMm) => edit((plan) => ({ ...plan, parting: { ...plan.parting, giveMm } }))}
        />
        <LengthField
          label={messages.suggest.thickestSiliconeFill}
          hint={messages.suggest.thickestHint}
          valueMm={document.parting.mostSiliconeMm}
          leastMm={0}
          mostMm={60}
          stepMm={1}
          onChange={(mostSiliconeMm) => edit((plan) => ({ ...plan, parting: { ...plan.parting, mostSiliconeMm } }))}
        />
        <LengthField
          label={messages.suggest.smallestSection}
          hint={messages.suggest.smallestHint}
          valueMm={Math.round(Math.sqrt(document.parting.leastSectionMm2))}
          leastMm={0}
          mostMm={1000}
          stepMm={10}
          onChange={(sideMm) =>
            edit((plan) => ({ ...plan, parting: { ...plan.parting, leastSectionMm2: sideMm * sideMm } }))
          }
        />
      </More>
    </Part>
  );
}
