import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { redo, undo } from "../document/planStore.ts";
import { STATIONS } from "../stations/index.ts";
import { Dialog } from "../ui/Dialog.tsx";

interface Command {
  readonly name: string;
  readonly hint: string;
  readonly run: () => void;
}

const SHORTCUTS: readonly (readonly [string, string])[] = [
  ["/", "find anything to do"],
  ["Ctrl Z", "undo"],
  ["Ctrl Shift Z", "redo"],
  ["arrows on the stage", "walk round the piece"],
  ["+ and − on the stage", "nearer and farther"],
  ["P on the stage", "pick what is in the middle"],
  ["[ and ]", "from dot to dot of the lines in hand"],
  ["Shift and arrows", "move the dot farther"],
  ["space", "play the taking apart, and stop it"],
];

/** Search over everything there is to do, and the sheet of shortcuts. */
export function CommandSearch({
  open,
  setOpen,
  pieceId,
}: {
  open: boolean;
  setOpen: (open: boolean) => void;
  pieceId: string;
}) {
  const navigate = useNavigate();
  const [text, setText] = useState("");
  /** Place of the one that is taken with Enter. */
  const [chosen, setChosen] = useState(0);
  const commands = useMemo<Command[]>(
    () => [
      ...STATIONS.map(({ id, name, question }) => ({
        name,
        hint: question,
        run: () => navigate(`/pieces/${pieceId}/${id}`),
      })),
      { name: "Undo", hint: "Ctrl Z", run: () => undo() },
      { name: "Redo", hint: "Ctrl Shift Z", run: () => redo() },
      { name: "Print the buying list", hint: "Materials", run: () => navigate(`/pieces/${pieceId}/materials`) },
      { name: "Settings", hint: "units, rates, your name", run: () => navigate("/settings") },
      { name: "The shelf", hint: "all pieces", run: () => navigate("/") },
    ],
    [navigate, pieceId],
  );
  if (!open) return null;
  const found = commands.filter(({ name, hint }) => `${name} ${hint}`.toLowerCase().includes(text.toLowerCase()));
  const at = Math.min(chosen, found.length - 1);
  const close = () => {
    setText("");
    setChosen(0);
    setOpen(false);
  };
  const take = (command: Command | undefined) => {
    command?.run();
    close();
  };
  const byKey = (event: React.KeyboardEvent) => {
    if (event.key === "Enter") take(found[at]);
    else if (event.key === "ArrowDown") setChosen((at + 1) % Math.max(1, found.length));
    else if (event.key === "ArrowUp") setChosen((at + found.length - 1) % Math.max(1, found.length));
    else return;
    event.preventDefault();
  };
  return (
    <Dialog title="Find anything to do" onClose={close}>
      <input
        className="input mt-3 w-full"
        role="combobox"
        placeholder="What do you want to do?"
        aria-label="What do you want to do?"
        aria-expanded
        aria-controls="commands"
        aria-activedescendant={found[at] ? `command-${at}` : undefined}
        value={text}
        autoFocus
        onChange={(event) => {
          setText(event.target.value);
          setChosen(0);
        }}
        onKeyDown={byKey}
      />
      <div id="commands" role="listbox" aria-label="Commands" className="mt-2 w-full">
        {found.map((command, k) => (
          <div
            key={command.name}
            id={`command-${k}`}
            role="option"
            tabIndex={-1}
            aria-selected={k === at}
            className={`flex cursor-pointer justify-between rounded px-3 py-1.5 ${k === at ? "bg-base-300" : "hover:bg-base-200"}`}
            onClick={() => take(command)}
            onKeyDown={byKey}
          >
            <span>{command.name}</span>
            <span className="quiet text-sm">{command.hint}</span>
          </div>
        ))}
        {found.length === 0 && <p className="quiet px-3 py-1.5 text-sm">Nothing goes by that name.</p>}
      </div>
      <dl className="quiet mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 border-t border-base-300 pt-3 text-sm">
        {SHORTCUTS.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt className="font-medium">{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
