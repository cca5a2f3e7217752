/** Lines laid by hand: takes a plan's lines in hand, sends edits to their worker, and keeps the tally beside them. */

import { useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import { type HandEdit, treated } from "../../../core/parting/layout/edit.ts";
import { type Layout, type Treatment, takenInHand } from "../../../core/parting/layout/layout.ts";
import { figuresAtAGlance, type GlanceResult } from "../../../core/plan/advice/glance.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { usePlan } from "../../document/planStore.ts";
import { SettingsContext } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { type GlanceTerms, Hand } from "../../workers/hand.ts";

export interface HandWork {
  /** The layout as it is being moved, or as the document has it. */
  readonly layout: Layout | null;
  /** What the last edit came to at a glance. */
  readonly glance: GlanceResult | null;
  readonly problem: string | null;
  readonly take: () => void;
  /** Decides something for a section; takes the lines in hand where they are not. */
  readonly treat: (section: number, treatment: Treatment) => void;
  /** An edit of the document; takes the lines in hand where they are not. */
  readonly make: (change: HandEdit) => Promise<boolean>;
  /** An edit on trial, from the layout as the document has it; the latest wins. */
  readonly attempt: (change: HandEdit) => void;
  /** Makes the edit on trial last, or lets it go. */
  readonly settle: (change: HandEdit | null) => void;
}

export function useHand(document: PlanDocument, planning: Planning): HandWork {
  const edit = usePlan((plan) => plan.edit);
  const { rates } = useContext(SettingsContext);
  const { bundle, setGlance } = planning;
  const laid = document.parting.layout;
  const [moving, setMoving] = useState<Layout | null>(null);
  const [glance, setResult] = useState<GlanceResult | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const hand = useRef<Hand | null>(null);
  const inHand = laid !== null;
  const survey = bundle?.survey ?? null;
  const { onBoard } = document.seat;
  /** Opened once the worker of the lines holds the surface they lie on. */
  const ready = useRef(gate());
  useEffect(() => {
    if (!inHand) return;
    const worker = new Hand();
    hand.current = worker;
    return () => {
      hand.current = null;
      ready.current = gate();
      worker.end();
    };
  }, [inHand]);
  const terms = useMemo(
    (): GlanceTerms => ({
      zones: document.zones,
      overMm: jacketThicknessMm(document.jacket.coats),
    }),
    [document.zones, document.jacket.coats],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a glance at what lies there, so that the first edit finds its pulls surveyed.
  useEffect(() => {
    const api = hand.current?.api;
    if (!laid || !survey || !api) return;
    void api.takeUp(survey, onBoard).then(ready.current.open);
    void api.edit(laid, null, terms);
  }, [inHand, survey, onBoard]);
  const { prepare, quality } = planning;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when a settled plan is in hand.
  useEffect(() => {
    if (inHand && quality === "settled") prepare();
  }, [inHand, quality === "settled"]);
  // The document's own layout is shown again once it has changed.
  // biome-ignore lint/correctness/useExhaustiveDependencies: an edit of the layout ends what was on trial.
  useEffect(() => setMoving(null), [laid]);
  const answerTo = useCallback(
    async (change: HandEdit): Promise<Layout | null> => {
      // As the document has it by now: the edit before may have been made a moment ago.
      const from = usePlan.getState().document?.parting.layout;
      if (!from || !hand.current) return null;
      const start = performance.now();
      const answer = await hand.current.api.edit(from, change, terms);
      performance.measure("line moved", { start });
      setProblem(answer.ok ? null : answer.problem);
      if (!answer.ok) return null;
      setResult(answer.glance);
      if (bundle) setGlance(figuresAtAGlance(bundle.figures, answer.glance, answer.layout, document, rates));
      return answer.layout;
    },
    [terms, bundle, document, rates, setGlance],
  );
  const keep = useCallback(
    (layout: Layout) => edit((plan) => ({ ...plan, parting: { ...plan.parting, layout } })),
    [edit],
  );

  const take = useCallback(() => {
    if (!bundle) return;
    keep(takenInHand(bundle.drawn, bundle.figures.report.sections));
  }, [bundle, keep]);
  const trial = useRef<{ busy: boolean; next: HandEdit | null }>({ busy: false, next: null });
  const attempt = useCallback(
    (change: HandEdit) => {
      trial.current.next = change;
      if (trial.current.busy) return;
      trial.current.busy = true;
      void (async () => {
        for (let next = trial.current.next; next; next = trial.current.next) {
          trial.current.next = null;
          const layout = await answerTo(next);
          if (layout) setMoving(layout);
        }
        trial.current.busy = false;
      })();
    },
    [answerTo],
  );
  /** Edits are made one after the other, each from what the one before left. */
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const make = useCallback(
    (change: HandEdit): Promise<boolean> => {
      const made = queue.current.then(async () => {
        if (!usePlan.getState().document?.parting.layout) {
          if (!bundle) return false;
          take();
        }
        await ready.current.opened;
        const layout = await answerTo(change);
        if (layout) keep(layout);
        return layout !== null;
      });
      queue.current = made.catch(() => undefined);
      return made;
    },
    [answerTo, keep, bundle, take],
  );
  const settle = useCallback(
    (change: HandEdit | null) => {
      trial.current.next = null;
      if (change) void make(change);
      else {
        setMoving(null);
        setGlance(null);
      }
    },
    [make, setGlance],
  );
  const treat = useCallback(
    (number: number, treatment: Treatment) => {
      const section = bundle?.figures.report.sections[number - 1];
      if (!bundle || !section) return;
      const held = usePlan.getState().document?.parting.layout;
      if (held) keep(treated(held, section.origin, treatment));
      else keep(treated(takenInHand(bundle.drawn, bundle.figures.report.sections), number - 1, treatment));
    },
    [bundle, keep],
  );
  const layout = moving ?? laid;
  return useMemo(
    () => ({ layout, glance, problem, take, treat, make, attempt, settle }),
    [layout, glance, problem, take, treat, make, attempt, settle],
  );
}

/** Something to wait for that is opened from elsewhere. */
function gate(): { readonly opened: Promise<void>; readonly open: () => void } {
  let open = () => {};
  const opened = new Promise<void>((resolve) => {
    open = resolve;
  });
  return { opened, open };
}
