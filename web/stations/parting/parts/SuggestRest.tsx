import { useState } from "react";
import { type Layout, MOST_SECTIONS } from "../../../../core/parting/layout/layout.ts";
import { usePlan } from "../../../document/planStore.ts";
import { Caution, Choice } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";

/** Suggests everything again but what is held. */
export function SuggestRest({ layout, planning }: { layout: Layout; planning: StationProps["planning"] }) {
  const edit = usePlan((plan) => plan.edit);
  const held = layout.sections.filter(({ hold }) => hold !== undefined).length;
  const [wanted, setWanted] = useState(layout.sections.length);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const fewest = Math.max(2, held + 1);
  const count = Math.max(fewest, wanted);
  if (held === 0) {
    return <p className="quiet mt-2 text-sm">{messages.suggestRest.howTo}</p>;
  }
  const suggest = async () => {
    setBusy(true);
    setProblem(null);
    const answer = await planning.rest(count);
    setBusy(false);
    if (answer.ok) edit((plan) => ({ ...plan, parting: { ...plan.parting, layout: answer.value } }));
    else if (!answer.cancelled) setProblem(answer.message);
  };
  return (
    <div className="mt-2" data-testid="suggest-rest">
      <Choice<number>
        label={messages.suggestRest.sectionsInAll}
        value={count}
        options={range(fewest, Math.min(MOST_SECTIONS, fewest + 4)).map((value) => ({ value, name: String(value) }))}
        onChange={setWanted}
      />
      <button type="button" className="btn btn-sm w-full" disabled={busy} onClick={() => void suggest()}>
        {busy ? messages.suggestRest.looking : messages.suggestRest.suggestTheRest(held)}
      </button>
      {problem && <Caution>{problem}</Caution>}
    </div>
  );
}

function range(from: number, to: number): number[] {
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => from + k);
}
