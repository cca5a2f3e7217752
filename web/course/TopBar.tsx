import { Redo2, Search, Settings2, Undo2 } from "lucide-react";
import { useEffect } from "react";
import { Link } from "react-router";
import { useStore } from "zustand";
import type { Piece } from "../../contract/pieces.ts";
import { redo, undo, usePlan } from "../document/planStore.ts";
import type { SaveState } from "../document/useAutosave.ts";

export function TopBar({ piece, save, onSearch }: { piece: Piece; save: SaveState; onSearch: () => void }) {
  const canUndo = useStore(usePlan.temporal, (state) => state.pastStates.length > 0);
  const canRedo = useStore(usePlan.temporal, (state) => state.futureStates.length > 0);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === "z" && !typing) {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
      } else if (event.key === "/" && !typing) {
        event.preventDefault();
        onSearch();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onSearch]);
  return (
    <header className="flex h-12 shrink-0 items-center gap-3 border-b border-base-300 bg-base-100 px-4">
      <Link to="/" className="font-stencil text-lg tracking-wide" title="Back to the shelf">
        RIMEFELL
      </Link>
      <h1 className="truncate border-l border-base-300 pl-3 text-lg font-semibold">{piece.name}</h1>
      <SaveMark state={save} />
      <span className="grow" />
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        disabled={!canUndo}
        onClick={() => undo()}
        title="Undo (Ctrl Z)"
      >
        <Undo2 aria-hidden="true" size={16} />
        Undo
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        disabled={!canRedo}
        onClick={() => redo()}
        title="Redo (Ctrl Shift Z)"
      >
        <Redo2 aria-hidden="true" size={16} />
        Redo
      </button>
      <button type="button" className="btn btn-ghost btn-sm" onClick={onSearch} title="Find anything to do (/)">
        <Search aria-hidden="true" size={16} />
        Find <kbd className="kbd kbd-sm">/</kbd>
      </button>
      <Link to="/settings" className="btn btn-ghost btn-sm">
        <Settings2 aria-hidden="true" size={16} />
        Settings
      </Link>
    </header>
  );
}

function SaveMark({ state }: { state: SaveState }) {
  const text = {
    saved: "Saved",
    saving: "Saving…",
    waiting: "Not saved yet",
    refused: "Not saved",
    conflict: "Two versions",
  }[state.kind];
  const told = state.kind === "waiting" || state.kind === "refused" ? state.message : null;
  const tone = told !== null || state.kind === "conflict" ? "text-warning font-medium" : "quiet";
  return (
    <span role="status" data-testid="save-state" className={`truncate text-sm ${tone}`} title={told ?? undefined}>
      {told === null ? text : `${text}: ${told}`}
    </span>
  );
}
