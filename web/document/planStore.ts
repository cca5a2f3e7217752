/** The plan document being edited, with undo over it alone. One drag is one step: `editing` holds the steps back. */
import { temporal } from "zundo";
import { create } from "zustand";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { Identity } from "../../core/plan/document/identity.ts";
import { sameValue } from "../../core/plan/document/sameValue.ts";
import { type SearchRates, searchRatesOf } from "../../core/plan/document/searchRates.ts";

interface PlanState {
  readonly partId: string | null;
  readonly document: PlanDocument | null;
  /** Revision on the server the document is based on. */
  readonly revision: number;
  load(partId: string, document: PlanDocument, revision: number): void;
  edit(change: (document: PlanDocument) => PlanDocument): void;
  saved(revision: number): void;
}

export const usePlan = create<PlanState>()(
  temporal(
    (set) => ({
      partId: null,
      document: null,
      revision: 0,
      load: (partId, document, revision) => set({ partId, document, revision }),
      edit: (change) => set((state) => (state.document ? { document: change(state.document) } : state)),
      saved: (revision) => set({ revision }),
    }),
    {
      partialize: ({ document }) => ({ document }),
      equality: (past, current) => past.document === current.document,
      limit: 200,
    },
  ),
);

export const undo = () => usePlan.temporal.getState().undo();
export const redo = () => usePlan.temporal.getState().redo();

/** Opens a plan: what came before it cannot be undone into it. */
export function openPlan(partId: string, document: PlanDocument, revision: number): void {
  usePlan.getState().load(partId, document, revision);
  usePlan.temporal.getState().clear();
}

/**
 * Notes what a settled plan has found: the rates its lines were suggested at, where that is not noted yet, and the ids of
 * what is in it. It is no edit of the user's, and so no step of undo.
 */
export function notePlanned(partId: string, rates: SearchRates, identity: Identity): void {
  const { document, partId: open, edit } = usePlan.getState();
  if (!document || open !== partId || before) return;
  const { layout, suggestedAt } = document.parting;
  const noted = {
    ...document,
    identity: sameValue(identity, document.identity) ? document.identity : identity,
    parting: layout || suggestedAt ? document.parting : { ...document.parting, suggestedAt: searchRatesOf(rates) },
  };
  if (noted.identity === document.identity && noted.parting === document.parting) return;
  const { pause, resume } = usePlan.temporal.getState();
  pause();
  edit(() => noted);
  resume();
}

let before: PlanDocument | null = null;

/** Begins a drag: the edits until `endDrag` become one step of undo. */
export function beginDrag(): void {
  before = usePlan.getState().document;
  usePlan.temporal.getState().pause();
}

export function endDrag(): void {
  const after = usePlan.getState().document;
  const { resume } = usePlan.temporal.getState();
  if (!before || !after || before === after) {
    resume();
    before = null;
    return;
  }
  usePlan.setState({ document: before });
  resume();
  usePlan.setState({ document: after });
  before = null;
}
