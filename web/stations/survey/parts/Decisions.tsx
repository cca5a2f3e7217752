import { useEffect, useRef, useState } from "react";
import { bridgedGapMm } from "../../../../core/jacket/coat.ts";
import { MOST_STOPS, type StopKind } from "../../../../core/jacket/stops.ts";
import type { TriangleMesh } from "../../../../core/mesh/mesh.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { type Decision, type DecisionKind, undecided, zoneRadiusMm } from "../../../../core/survey/decisions.ts";
import { THIN_PART_MM } from "../../../../core/survey/walls.ts";
import { withDab } from "../../../../core/survey/zones.ts";
import { usePlan } from "../../../document/planStore.ts";
import { type Show, useShow } from "../../../lib/show.ts";
import type { Planning } from "../../../planning/usePlanning.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

/** What each kind is, and what the trade usually does about it. */
const KINDS: Readonly<Record<DecisionKind, { readonly name: string; readonly usual: string }>> = {
  hole: {
    name: messages.decisions.throughHole,
    usual: messages.decisions.holeAdvice,
  },
  gap: {
    name: messages.decisions.narrowGap,
    usual: messages.decisions.gapAdvice,
  },
  thin: { name: messages.decisions.thinPart, usual: messages.decisions.thinAdvice },
  tip: { name: messages.decisions.tipThatCatchesAir, usual: messages.decisions.tipAdvice },
};

/** The zones a place can be made. */
const ZONES = {
  fragile: { name: messages.decisions.makeItAFragileZone, reason: messages.decisions.aFragileZone },
  keepClear: { name: messages.decisions.keepLinesClearOfIt, reason: messages.decisions.linesKeepClear },
} as const;

/** So many are shown at first: the most telling of each kind are spread over the list by turns. */
const FIRST_SHOWN = 4;

/**
 * The places that need a decision; each is flown to, dismissed with a reason, or made a zone.
 * @param wait something that is looked at is being worked out: they come after it
 */
export function Decisions({
  document,
  planning,
  wait = false,
}: {
  document: PlanDocument;
  planning: Planning;
  wait?: boolean;
}) {
  const show = useShow();
  const { stage } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const found = useDecisions(document, planning, wait);
  const [open, setOpen] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const [all, setAll] = useState(false);
  const { dismissed } = document.survey;
  const { stops } = document.jacket;
  const left = found && undecided(found, dismissed);
  const dismiss = ({ kind, at }: Decision) => {
    edit((plan) => ({
      ...plan,
      survey: {
        ...plan.survey,
        dismissed: [...plan.survey.dismissed, { kind, at, reason: reason.trim() || messages.decisions.seenTo }],
      },
    }));
    setOpen(null);
    setReason("");
  };
  const zone = (decision: Decision, kind: keyof typeof ZONES) => {
    const { kind: found, at } = decision;
    edit((plan) => ({
      ...plan,
      zones: { ...plan.zones, [kind]: withDab(plan.zones[kind], at, [0, 0, 0], zoneRadiusMm(decision)) },
      survey: {
        ...plan.survey,
        dismissed: [...plan.survey.dismissed, { kind: found, at, reason: ZONES[kind].reason }],
      },
    }));
    setOpen(null);
  };
  const stop = ({ loop }: Decision, kind: StopKind) => {
    if (!loop) return;
    edit((plan) => ({ ...plan, jacket: { ...plan.jacket, stops: [...plan.jacket.stops, { kind, loop }] } }));
    setOpen(null);
  };
  return (
    <Part
      title={messages.decisions.whatNeedsADecision}
      aside={left && <span className="tape text-sm">{left.length}</span>}
    >
      {!left && <p className="quiet text-sm">{messages.decisions.looking}</p>}
      {left?.length === 0 && <p className="quiet text-sm">{messages.decisions.nothingIsLeftToDecide}</p>}
      <ul className="text-sm" data-testid="decisions">
        {left?.slice(0, all ? undefined : FIRST_SHOWN).map((decision) => (
          <li key={keyOf(decision)} className="border-b border-base-300 last:border-b-0">
            <button
              type="button"
              aria-expanded={open === keyOf(decision)}
              className="flex w-full items-baseline justify-between gap-2 py-1.5 text-left"
              onClick={() => {
                stage?.comeTo(decision.at);
                setOpen(open === keyOf(decision) ? null : keyOf(decision));
                setReason("");
              }}
            >
              <span>
                {KINDS[decision.kind].name}{" "}
                <span className="quiet text-xs">{messages.decisions.up(show.length(decision.at[2]))}</span>
              </span>
              <span className="font-medium">{figureOf(decision, show)}</span>
            </button>
            {open === keyOf(decision) && (
              <div className="pb-2">
                <p className="quiet pb-1">{KINDS[decision.kind].usual}</p>
                <div className="flex gap-1">
                  <input
                    className="input input-sm min-w-0 grow"
                    placeholder={messages.decisions.whatWasDecided}
                    aria-label={messages.decisions.whatWasDecided}
                    value={reason}
                    maxLength={200}
                    onChange={(event) => setReason(event.target.value)}
                  />
                  <button type="button" className="btn btn-sm" onClick={() => dismiss(decision)}>
                    {messages.decisions.done}
                  </button>
                </div>
                <div className="mt-1 flex flex-wrap gap-1">
                  {decision.loop && stops.length < MOST_STOPS && (
                    <>
                      <button type="button" className="btn btn-xs" onClick={() => stop(decision, "clay")}>
                        {messages.decisions.closeItWithAWebOfClay}
                      </button>
                      <button type="button" className="btn btn-xs" onClick={() => stop(decision, "plug")}>
                        {messages.decisions.closeItWithAPlug}
                      </button>
                    </>
                  )}
                  {decision.kind !== "hole" &&
                    Object.entries(ZONES).map(([kind, { name }]) => (
                      <button
                        key={kind}
                        type="button"
                        className="btn btn-xs"
                        onClick={() => zone(decision, kind as keyof typeof ZONES)}
                      >
                        {name}
                      </button>
                    ))}
                </div>
              </div>
            )}
          </li>
        ))}
      </ul>
      {left && left.length > FIRST_SHOWN && (
        <button type="button" className="mt-1 text-sm underline" onClick={() => setAll(!all)}>
          {all ? messages.decisions.showFewer : messages.decisions.showAll(left.length)}
        </button>
      )}
      {stops.length > 0 && (
        <ul className="mt-2 text-sm" data-testid="stops">
          {stops.map((held) => (
            <li key={held.loop.slice(0, 3).join()} className="flex items-baseline justify-between gap-2 py-1">
              <span>
                {messages.decisions.throughHoleClosedWith} {held.kind === "plug" ? "a plug" : "clay"}{" "}
                <span className="quiet text-xs">{messages.decisions.loopUp(show.length(middleOf(held.loop)[2]))}</span>
              </span>
              <button
                type="button"
                className="btn btn-xs"
                onClick={() =>
                  edit((plan) => ({
                    ...plan,
                    jacket: { ...plan.jacket, stops: plan.jacket.stops.filter((other) => other !== held) },
                  }))
                }
              >
                {messages.decisions.takeItOut}
              </button>
            </li>
          ))}
        </ul>
      )}
      {dismissed.length > 0 && (
        <details className="mt-2 text-sm">
          <summary className="cursor-pointer underline decoration-dotted underline-offset-4">
            {messages.decisions.decided(dismissed.length)}
          </summary>
          <ul>
            {dismissed.map((done) => (
              <li key={keyOf(done)} className="flex items-baseline justify-between gap-2 py-1">
                <span>
                  {KINDS[done.kind].name}: {done.reason}
                </span>
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() =>
                    edit((plan) => ({
                      ...plan,
                      survey: { ...plan.survey, dismissed: plan.survey.dismissed.filter((other) => other !== done) },
                    }))
                  }
                >
                  {messages.decisions.bringBack}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </Part>
  );
}

function keyOf({ kind, at }: Pick<Decision, "kind" | "at">): string {
  return `${kind} ${at.join(" ")}`;
}

function middleOf(loop: readonly number[]): number[] {
  return [0, 1, 2].map((a) => loop.reduce((sum, x, k) => (k % 3 === a ? sum + x : sum), 0) / (loop.length / 3));
}

function figureOf({ kind, figureMm }: Decision, show: Show): string {
  switch (kind) {
    case "hole":
      return messages.decisions.round(show.length(figureMm));
    case "gap":
      return figureMm < 1 ? messages.decisions.runsToNothing : messages.decisions.wide(show.length(figureMm));
    case "thin":
      return figureMm < 1 ? messages.decisions.runsToAnEdge : messages.decisions.thick(show.length(figureMm));
    case "tip":
      return messages.decisions.deep(show.length(figureMm));
  }
}

function useDecisions(
  document: PlanDocument,
  { bundle, geometry, quality }: Planning,
  wait: boolean,
): readonly Decision[] | null {
  const [found, setFound] = useState<readonly Decision[] | null>(null);
  const { onBoard } = document.seat;
  const bridgedMm = bridgedGapMm(document.jacket.coats);
  // A piece that was surveyed is not surveyed again for every plan that is made of it.
  const surveyed = useRef<{ readonly piece: TriangleMesh; readonly survey: TriangleMesh } | null>(null);
  useEffect(() => {
    if (!bundle || !geometry || quality !== "settled" || wait) return;
    const { piece, survey } = bundle;
    const { current } = surveyed;
    if (current?.piece === piece && current.survey === survey) return;
    surveyed.current = { piece, survey };
    setFound(null);
    void geometry.api.decisions(piece, survey, bridgedMm, THIN_PART_MM, onBoard).then(setFound);
  }, [bundle, geometry, quality, bridgedMm, onBoard, wait]);
  return found;
}
