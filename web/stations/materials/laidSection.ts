/** Whose lay-up is looked at and changed: the whole shell's, or that of one section by its id. Not part of the plan. */
import { create } from "zustand";
import { layupOf, withLayup } from "../../../core/plan/document/choose.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import type { Layup } from "../../../core/shell/layup.ts";
import { usePlan } from "../../document/planStore.ts";
import type { Planning } from "../../planning/usePlanning.ts";

interface LaidSection {
  readonly section: string | null;
  readonly choose: (section: string | null) => void;
}

export const useLaidSection = create<LaidSection>((set) => ({
  section: null,
  choose: (section) => set({ section }),
}));

export interface LaidUp {
  /** Null for the whole shell. */
  readonly section: string | null;
  readonly layup: Layup;
  /** Has the section one of its own? */
  readonly isOwn: boolean;
  /** Ids of all sections, in their order. */
  readonly ids: readonly string[];
  readonly choose: (section: string | null) => void;
  /** Null lets the section be laid up as the rest. */
  readonly change: (layup: Layup | null) => void;
}

/** The lay-up that is looked at; the whole shell's where its section is there no more. */
export function useLaidUp(document: PlanDocument, planning: Planning): LaidUp {
  const { section: chosen, choose } = useLaidSection();
  const edit = usePlan((plan) => plan.edit);
  const ids = planning.bundle?.figures.ids?.sections ?? [];
  const section = chosen !== null && ids.includes(chosen) ? chosen : null;
  return {
    ...{ section, ids, choose },
    layup: layupOf(document, section),
    isOwn: section !== null && document.shell.sections.some((own) => own.section === section),
    change: (layup) => edit((plan) => withLayup(plan, section, layup, ids)),
  };
}
