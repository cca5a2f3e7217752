import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { planConflict, type StoredPlan, storedPlan } from "../../contract/pieces.ts";
import { builtAlike } from "../../core/plan/document/differences.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { sameValue } from "../../core/plan/document/sameValue.ts";
import { HttpProblem, sendJson } from "../lib/http.ts";
import { keys } from "../lib/queries.ts";
import { noteSave } from "../lib/saves.ts";
import { openPlan, usePlan } from "./planStore.ts";
import { dropUnsaved, keepUnsaved, unsavedOf } from "./unsaved.ts";

export type SaveState =
  | { readonly kind: "saved" }
  | { readonly kind: "saving" }
  /** Tried again in a while. */
  | { readonly kind: "waiting"; readonly message: string }
  /** Not taken as it is, and not tried again until it is changed; kept on this machine. */
  | { readonly kind: "refused"; readonly message: string }
  | { readonly kind: "conflict"; readonly theirs: StoredPlan };

const PAUSE_MS = 500;
const RETRY_MS = 4000;
/** Browsers let a page that is closed send no more than this, bytes. */
const PARTING_BYTES = 60_000;

export interface Autosave {
  readonly state: SaveState;
  readonly keepMine: () => void;
  readonly takeTheirs: () => void;
}

/**
 * Saves every edit a moment after it is made, and at once when the page is left; holds edits while the server is away;
 * asks when two people edited.
 * @param path where the part's plan stands
 */
export function useAutosave(partId: string, path: string): Autosave {
  const [state, setState] = useState<SaveState>({ kind: "saved" });
  const document = usePlan((plan) => (plan.partId === partId ? plan.document : null));
  const [attempt, setAttempt] = useState(0);
  const client = useQueryClient();
  const lastSaved = useRef<PlanDocument | null>(null);
  /** Refused for good as it is. */
  const refused = useRef<PlanDocument | null>(null);
  /** The document and its revision as they were last seen: the store lets go of them when the piece is left. */
  const latest = useRef<{ readonly document: PlanDocument; readonly revision: number } | null>(null);
  if (document) latest.current = { document, revision: usePlan.getState().revision };
  const inConflict = useRef(false);
  inConflict.current = state.kind === "conflict";
  /** The save that is on its way; null where none is. */
  const saving = useRef<Promise<void> | null>(null);

  const put = useCallback(
    async (sent: PlanDocument, revision: number, keepalive: boolean): Promise<void> => {
      try {
        const saved = await sendJson("PUT", `${path}/plan`, { revision, document: sent }, storedPlan, { keepalive });
        lastSaved.current = sent;
        dropUnsaved(partId);
        if (latest.current) latest.current = { ...latest.current, revision: saved.revision };
        if (usePlan.getState().partId === partId) usePlan.getState().saved(saved.revision);
        client.setQueryData(keys.plan(partId), saved);
        setState({ kind: "saved" });
      } catch (error) {
        const next = afterFailure(error);
        const isNote = lastSaved.current !== null && builtAlike(sent, lastSaved.current);
        // The page's own notes of what was planned are no edit: somebody else's plan is taken over them without a question.
        if (next.kind === "conflict" && isNote && usePlan.getState().document === sent) {
          openPlan(partId, next.theirs.document, next.theirs.revision);
          lastSaved.current = usePlan.getState().document;
          setState({ kind: "saved" });
          return;
        }
        if (next.kind === "refused") refused.current = sent;
        if (next.kind !== "conflict" && !isNote) keepUnsaved(partId, { revision, document: sent });
        setState(next);
      } finally {
        saving.current = null;
        setAttempt((n) => n + 1);
      }
    },
    [partId, path, client],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: `attempt` looks again after each try, for edits made meanwhile.
  useEffect(() => {
    if (!document || state.kind === "conflict") return;
    lastSaved.current ??= document;
    if (lastSaved.current === document || refused.current === document || saving.current) return;
    const save = () => {
      if (lastSaved.current === document || saving.current) return;
      setState({ kind: "saving" });
      saving.current = put(document, usePlan.getState().revision, false);
    };
    const timer = setTimeout(save, state.kind === "waiting" ? RETRY_MS : PAUSE_MS);
    return () => clearTimeout(timer);
  }, [document, state.kind, attempt, put]);

  useEffect(() => {
    const isUnsaved = () =>
      lastSaved.current !== null && latest.current !== null && !builtAlike(latest.current.document, lastSaved.current);
    /** Nobody waits for the answer: what is not acknowledged is found on this machine the next time. */
    const flush = (): void => {
      if (!latest.current || !isUnsaved() || inConflict.current) return;
      const edit = latest.current;
      if (refused.current === edit.document) return;
      keepUnsaved(partId, edit);
      const keepalive = JSON.stringify(edit).length < PARTING_BYTES;
      saving.current = saving.current?.then(flush) ?? put(edit.document, edit.revision, keepalive);
      noteSave(partId, saving.current);
    };
    const warn = (event: BeforeUnloadEvent) => {
      if (isUnsaved()) event.preventDefault();
    };
    const hidden = () => {
      if (window.document.visibilityState === "hidden") flush();
    };
    window.addEventListener("beforeunload", warn);
    window.addEventListener("pagehide", flush);
    window.document.addEventListener("visibilitychange", hidden);
    return () => {
      window.removeEventListener("beforeunload", warn);
      window.removeEventListener("pagehide", flush);
      window.document.removeEventListener("visibilitychange", hidden);
      flush();
    };
  }, [partId, put]);

  const keepMine = useCallback(() => {
    if (state.kind !== "conflict") return;
    usePlan.getState().saved(state.theirs.revision);
    lastSaved.current = state.theirs.document;
    setState({ kind: "saving" });
    setAttempt((n) => n + 1);
  }, [state]);

  const takeTheirs = useCallback(() => {
    if (state.kind !== "conflict") return;
    dropUnsaved(partId);
    openPlan(partId, state.theirs.document, state.theirs.revision);
    lastSaved.current = usePlan.getState().document;
    setState({ kind: "saved" });
  }, [state, partId]);

  // What was kept on this machine goes on from where it was left; on another plan than it was made on, it is asked about.
  useEffect(() => {
    const kept = unsavedOf(partId);
    const stored = usePlan.getState();
    if (!kept || stored.partId !== partId || !stored.document) return;
    // Sent when the page was closed, and arrived: only the answer did not.
    if (sameValue(kept.document, stored.document)) {
      dropUnsaved(partId);
      return;
    }
    const theirs = client.getQueryData<StoredPlan>(keys.plan(partId));
    lastSaved.current = stored.document;
    stored.edit(() => kept.document);
    if (theirs && kept.revision !== stored.revision) setState({ kind: "conflict", theirs });
  }, [partId, client]);

  return { state, keepMine, takeTheirs };
}

function afterFailure(error: unknown): SaveState {
  if (!(error instanceof HttpProblem))
    return { kind: "waiting", message: error instanceof Error ? error.message : "Not saved yet." };
  if (error.code === "conflict") {
    const conflict = planConflict.safeParse(error.body);
    if (conflict.success) return { kind: "conflict", theirs: conflict.data.current };
  }
  const passing = error.code === "offline" || error.code === "unavailable" || error.code === "internal";
  return passing
    ? { kind: "waiting", message: error.message }
    : { kind: "refused", message: `${error.message} Your edits are kept on this machine.` };
}
