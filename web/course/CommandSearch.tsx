import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { redo, undo } from "../document/planStore.ts";
import { STATIONS } from "../stations/index.ts";

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
  const close = () => {
    setText("");
    setOpen(false);
  };
  const take = (command: Command | undefined) => {
    command?.run();
    close();
  };
  return (
    <div className="modal modal-open modal-top items-start" role="dialog" aria-label="Find anything to do">
      <div className="modal-box mx-auto mt-16 max-w-lg rounded-box">
        <input
          className="input w-full"
          placeholder="What do you want to do?"
          aria-label="What do you want to do?"
          value={text}
          // biome-ignore lint/a11y/noAutofocus: the user has just asked to search.
          autoFocus
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") take(found[0]);
            if (event.key === "Escape") close();
          }}
        />
        <ul className="menu mt-2 w-full px-0">
          {found.map((command) => (
            <li key={command.name}>
              <button type="button" className="flex justify-between" onClick={() => take(command)}>
                <span>{command.name}</span>
                <span className="quiet text-sm">{command.hint}</span>
              </button>
            </li>
          ))}
        </ul>
        <dl className="quiet mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 border-t border-base-300 pt-3 text-sm">
          {SHORTCUTS.map(([keys, what]) => (
            <div key={keys} className="contents">
              <dt className="font-medium">{keys}</dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </div>
      <button type="button" className="modal-backdrop" aria-label="Close" onClick={close} />
    </div>
  );
}
