import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { cheapest } from "../../../../core/plan/advice/offers.ts";
import type { SectionCount } from "../../../../core/plan/document/document.ts";
import { useShow } from "../../../lib/show.ts";
import { Caution, Part } from "../../../ui/fields.tsx";
import { StateIcon } from "../../../ui/StateIcon.tsx";
import type { ShownOffer } from "../../../workers/geometry.ts";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";
import { Picture } from "./Picture.tsx";
import { SideBySide } from "./SideBySide.tsx";

/** The chart is fetched when there is something to compare. */
const CostChart = lazy(() => import("./CostChart.tsx"));

interface CompareProps {
  readonly planning: StationProps["planning"];
  /** The plans found hold for this document alone: another empties the list. */
  readonly heldFor: string;
  readonly chosen: "auto" | SectionCount;
  readonly onTake: (sections: SectionCount) => void;
}

/** What every number of sections would cost, and why one would take it. */
export function Compare({ planning, heldFor, chosen, onTake }: CompareProps) {
  const show = useShow();
  const [plans, setPlans] = useState<readonly ShownOffer[]>([]);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [marked, setMarked] = useState<readonly number[]>([]);
  const run = useRef(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another document empties the list.
  useEffect(() => {
    run.current++;
    setPlans([]);
    setMarked([]);
    setBusy(false);
  }, [heldFor]);
  const look = async () => {
    const own = ++run.current;
    setBusy(true);
    setProblem(null);
    setPlans([]);
    const answer = await planning.compare((plan) => {
      if (run.current === own)
        setPlans((held) => [...held, plan].sort((a, b) => a.sections.length - b.sections.length));
    });
    if (run.current !== own) return;
    setBusy(false);
    setProblem(answer.ok ? null : answer.cancelled ? messages.compare.stopped : answer.message);
  };
  const best = cheapest(plans);
  const two = plans.filter((plan) => marked.includes(plan.sections.length));
  return (
    <Part title={messages.compare.title}>
      <button type="button" className="btn btn-sm w-full" disabled={busy} onClick={() => void look()}>
        {plans.length > 0 ? messages.compare.compareAgain : messages.compare.compareTwoToSixSections}
      </button>
      {problem && <Caution>{problem}</Caution>}
      {plans.length > 0 && (
        <Suspense fallback={<div className="mt-3 h-52" />}>
          <CostChart plans={plans} />
        </Suspense>
      )}
      <ul className="mt-1">
        {plans.map((plan) => {
          const count = plan.sections.length;
          return (
            <li key={count} className="flex gap-3 border-t border-base-300 py-2" data-testid={`offer-${count}`}>
              <Picture plan={plan} className="h-18 w-18 shrink-0" />
              <div className="min-w-0 grow">
                <p className="flex items-baseline justify-between gap-2 font-medium">
                  <span>
                    {count} {messages.compare.sections}{" "}
                    {plan === best && <span className="quiet text-xs">{messages.compare.cheapestThatComesOff}</span>}
                  </span>
                  <span className="whitespace-nowrap">≈ {show.money(plan.cost)}</span>
                </p>
                <p className="text-sm leading-snug">{plan.reason}</p>
                {plan.held > 0 && (
                  <p className="text-sm text-warning">
                    <StateIcon standing="look" silent /> {messages.compare.held(plan.held, count)}
                  </p>
                )}
                {plan.lifted && <p className="quiet text-sm">{messages.compare.lifted}</p>}
                <div className="mt-1 flex items-center justify-between">
                  <label className="flex items-center gap-1.5 text-xs">
                    <input
                      type="checkbox"
                      className="checkbox checkbox-xs"
                      checked={marked.includes(count)}
                      onChange={(event) =>
                        setMarked((held) =>
                          event.target.checked ? [...held.slice(-1), count] : held.filter((n) => n !== count),
                        )
                      }
                    />
                    {messages.compare.sideBySide}
                  </label>
                  <button
                    type="button"
                    className="btn btn-xs"
                    disabled={chosen === count}
                    onClick={() => onTake(count as SectionCount)}
                  >
                    {chosen === count ? messages.compare.taken : messages.compare.takeThisOne}
                  </button>
                </div>
              </div>
            </li>
          );
        })}
      </ul>
      {two.length === 2 && <SideBySide plans={[two[0], two[1]]} onClose={() => setMarked([])} />}
      {plans.length > 0 && <p className="quiet text-xs">{messages.compare.proven}</p>}
    </Part>
  );
}
