import { useEffect, useState } from "react";
import type { Remedy } from "../../../../core/plan/remedies.ts";
import { usePlan } from "../../../document/planStore.ts";
import { type Show, useShow } from "../../../lib/show.ts";
import { Caution } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";

/** What would free a locked section: looked for on request, each tried before it is offered, taken with one click. */
export function Remedies({ section, planning }: { section: number; planning: StationProps["planning"] }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const [found, setFound] = useState<readonly Remedy[] | null>(null);
  const [trying, setTrying] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another plan has other remedies.
  useEffect(() => {
    setFound(null);
    setProblem(null);
  }, [planning.bundle]);
  const look = async () => {
    setTrying(true);
    const answer = await planning.remedies(section);
    setTrying(false);
    if (answer.ok) setFound(answer.value);
    else if (!answer.cancelled) setProblem(answer.message);
  };
  return (
    <div className="mt-2" data-testid={`remedies-${section}`}>
      {!found && (
        <button
          type="button"
          className="btn btn-sm w-full"
          disabled={trying || planning.quality !== "settled"}
          onClick={() => void look()}
        >
          {trying ? "Trying each on the jacket…" : "What would free it?"}
        </button>
      )}
      {problem && <Caution>{problem}</Caution>}
      {found?.length === 0 && (
        <Caution>
          Neither turning its pull, nor a deeper fill, nor a plug at the lock frees it. Move the line, add a section, or
          lay the piece another way.
        </Caution>
      )}
      {found?.map((remedy) => (
        <button
          key={remedy.kind}
          type="button"
          className="btn btn-sm mt-1 h-auto w-full justify-start py-2 text-left"
          onClick={() => edit((plan) => ({ ...plan, parting: remedy.parting }))}
        >
          <span>
            <span className="block font-medium">{nameOf(remedy, show)}</span>
            <span className="quiet block text-xs font-normal">{priceOf(remedy, show)}</span>
          </span>
        </button>
      ))}
    </div>
  );
}

function nameOf(remedy: Remedy, show: Show): string {
  switch (remedy.kind) {
    case "turn":
      return `Turn its pull ${Math.round(remedy.turnDeg)}°`;
    case "fill":
      return `Fill up to ${show.length(remedy.fillDepthMm)} deep`;
    case "plug":
      return "Part a plug where it holds";
  }
}

function priceOf({ moreFillG, moreLineMm, all }: Remedy, show: Show): string {
  const signed = (value: number, text: (value: number) => string) => `${value < 0 ? "−" : "+"}${text(Math.abs(value))}`;
  const then = all ? "all sections release" : "this section releases, others not yet";
  return `${signed(moreFillG, show.mass)} fill, ${signed(moreLineMm, show.length)} of line; ${then}`;
}
