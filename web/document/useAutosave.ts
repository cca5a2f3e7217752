import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { planConflict, type StoredPlan, storedPlan } from "../../contract/pieces.ts";
import { HttpProblem, sendJson } from "../lib/http.ts";
import { keys } from "../lib/queries.ts";
import { openPlan, usePlan } from "./planStore.ts";

export type SaveState =
  | { readonly kind: "saved" }
  | { readonly kind: "saving" }
  | { readonly kind: "waiting"; readonly message: string }
  | { readonly kind: "conflict"; readonly theirs: StoredPlan };

const PAUSE_MS = 500;
const RETRY_MS = 4000;

/** Saves every edit a moment after it is made; holds edits while the server is away; asks when two people edited. */
export function useAutosave(pieceId: string): { state: SaveState; keepMine: () => void; takeTheirs: () => void } {
  const [state, setState] = useState<SaveState>({ kind: "saved" });
  const document = usePlan((plan) => (plan.pieceId === pieceId ? plan.document : null));
  const lastSaved = useRef<unknown>(null);
  const busy = useRef(false);
  const [attempt, setAttempt] = useState(0);
  const client = useQueryClient();

  // biome-ignore lint/correctness/useExhaustiveDependencies: `attempt` looks again after each try, for edits made meanwhile.
  useEffect(() => {
    if (!document || state.kind === "conflict") return;
    if (lastSaved.current === null) lastSaved.current = document;
    if (lastSaved.current === document || busy.current) return;
    const timer = setTimeout(
      async () => {
        busy.current = true;
        setState({ kind: "saving" });
        const sent = document;
        try {
          const { revision } = usePlan.getState();
          const saved = await sendJson("PUT", `/pieces/${pieceId}/plan`, { revision, document: sent }, storedPlan);
          lastSaved.current = sent;
          usePlan.getState().saved(saved.revision);
          client.setQueryData(keys.plan(pieceId), saved);
          setState({ kind: "saved" });
        } catch (error) {
          setState(afterFailure(error));
        } finally {
          busy.current = false;
          setAttempt((n) => n + 1);
        }
      },
      state.kind === "waiting" ? RETRY_MS : PAUSE_MS,
    );
    return () => clearTimeout(timer);
  }, [document, pieceId, state.kind, attempt, client]);

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (lastSaved.current !== null && lastSaved.current !== usePlan.getState().document) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, []);

  const keepMine = useCallback(() => {
    if (state.kind !== "conflict") return;
    usePlan.getState().saved(state.theirs.revision);
    lastSaved.current = state.theirs.document;
    setState({ kind: "saving" });
    setAttempt((n) => n + 1);
  }, [state]);

  const takeTheirs = useCallback(() => {
    if (state.kind !== "conflict") return;
    openPlan(pieceId, state.theirs.document, state.theirs.revision);
    lastSaved.current = usePlan.getState().document;
    setState({ kind: "saved" });
  }, [state, pieceId]);

  return { state, keepMine, takeTheirs };
}

function afterFailure(error: unknown): SaveState {
  if (error instanceof HttpProblem && error.code === "conflict") {
    const conflict = planConflict.safeParse(error.body);
    if (conflict.success) return { kind: "conflict", theirs: conflict.data.current };
  }
  return { kind: "waiting", message: error instanceof Error ? error.message : "Not saved yet." };
}
