import { useState } from "react";
import type { Leaving, PullRange } from "../../../../core/parting/search/pullRange.ts";
import { bearingAndElevation, type Direction, sameDirection } from "../../../../core/space/directions.ts";
import type { Planning } from "../../../planning/usePlanning.ts";
import { Caution } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { PullGlobe } from "./PullGlobe.tsx";

const LEAVES: Record<Leaving, string> = {
  free: messages.whereFrom.comesFreeWithNoFill,
  fill: messages.whereFrom.comesFreeWithAFill,
  locked: "locks",
};

/** From where a section could be pulled, on a globe, and the pull that costs it least. */
export function WhereFrom({
  number,
  pull,
  planning,
  onPull,
}: {
  number: number;
  pull: Direction;
  planning: Planning;
  onPull: (pull: Direction) => void;
}) {
  const [found, setFound] = useState<{ readonly for: Planning["bundle"]; readonly range: PullRange } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const look = async () => {
    setBusy(true);
    setProblem(null);
    const answer = await planning.ranges();
    setBusy(false);
    if (!answer.ok) setProblem(answer.message);
    else if (answer.value[number - 1]) setFound({ for: planning.bundle, range: answer.value[number - 1] });
  };
  // What was found holds for the sections as they were cut then.
  const range = found?.for === planning.bundle ? found.range : null;
  if (!range) {
    return (
      <>
        <button
          type="button"
          className="btn btn-sm mt-2 w-full"
          disabled={busy || planning.quality !== "settled"}
          onClick={() => void look()}
        >
          {busy ? messages.whereFrom.looking : messages.whereFrom.whereCouldItBePulled}
        </button>
        {problem && <Caution>{problem}</Caution>}
      </>
    );
  }
  const { bearingDeg, elevationDeg } = bearingAndElevation(range.best);
  return (
    <div className="mt-2" data-testid={`range-${number}`}>
      <PullGlobe range={range} pull={pull} onPull={onPull} />
      {sameDirection(range.best, pull) ? (
        <p className="text-sm">{messages.whereFrom.noneBetter}</p>
      ) : (
        <>
          <p className="text-sm">
            {messages.whereFrom.best(Math.round(bearingDeg), Math.round(elevationDeg), LEAVES[range.bestLeaving])}
          </p>
          <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => onPull(range.best)}>
            {messages.whereFrom.takeTheBestPull}
          </button>
        </>
      )}
    </div>
  );
}
