import { useEffect, useState } from "react";
import type { Remedy } from "../../../../core/plan/advice/remedies.ts";
import { usePlan } from "../../../document/planStore.ts";
import { type Show, useShow } from "../../../lib/show.ts";
import { Caution } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";

/**
 * What would free a section that is held, or save fill under one that comes off: looked for on request, each tried before
 * it is offered, shown as it is found, taken with one click.
 */
export function Remedies({
  section,
  locked,
  planning,
}: {
  section: number;
  locked: boolean;
  planning: StationProps["planning"];
}) {
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
    setProblem(null);
    const answer = await planning.remedies(section, (remedy) => setFound((before) => [...(before ?? []), remedy]));
    setTrying(false);
    if (answer.ok) setFound(answer.value);
    else if (!answer.cancelled) setProblem(answer.message);
  };
  return (
    <div className="mt-2" data-testid={`remedies-${section}`}>
      {(!found || trying) && (
        <button
          type="button"
          className="btn btn-sm w-full"
          disabled={trying || planning.quality !== "settled"}
          onClick={() => void look()}
        >
          {trying
            ? messages.remedies.tryingEachOnTheJacket
            : locked
              ? messages.remedies.whatWouldFreeIt
              : messages.remedies.whatWouldSaveFill}
        </button>
      )}
      {problem && <Caution>{problem}</Caution>}
      {!trying && found?.length === 0 && (
        <Caution>{locked ? messages.remedies.noneFrees : messages.remedies.noneSaves}</Caution>
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
      return messages.remedies.turnItsPull(Math.round(remedy.turnDeg));
    case "fill":
      return messages.remedies.fillWhatWasLeftOpen;
    case "plug":
      return messages.remedies.partAPlugThere;
    case "move":
      return messages.remedies.moveItsLinesAtMost(show.length(remedy.moveMm));
    case "split":
      return messages.remedies.splitItInTwo;
  }
}

function priceOf({ moreFillG, moreLineMm, all }: Remedy, show: Show): string {
  const signed = (value: number, text: (value: number) => string) => `${value < 0 ? "−" : "+"}${text(Math.abs(value))}`;
  const then = all ? messages.remedies.allComeOff : messages.remedies.thisComesOff;
  return messages.remedies.change(signed(moreFillG, show.mass), signed(moreLineMm, show.length), then);
}
