import { Command } from "cmdk";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { redo, undo } from "../document/planStore.ts";
import { STATIONS } from "../stations/index.ts";
import { Dialog } from "../ui/Dialog.tsx";

interface Deed {
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

/** 1 for what holds the words as they are typed, in its name or in the question it answers. */
function named(name: string, words: string, hints: readonly string[] = []): number {
  return [name, ...hints].join(" ").toLowerCase().includes(words.toLowerCase()) ? 1 : 0;
}

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
  const commands = useMemo<Deed[]>(
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
  const close = () => setOpen(false);
  return (
    <Dialog title="Find anything to do" onClose={close}>
      <Command label="What do you want to do?" loop filter={named} className="mt-3">
        <Command.Input className="input w-full" placeholder="What do you want to do?" autoFocus />
        <Command.List label="Commands" className="mt-2">
          <Command.Empty className="quiet px-3 py-1.5 text-sm">Nothing goes by that name.</Command.Empty>
          {commands.map(({ name, hint, run }) => (
            <Command.Item
              key={name}
              value={name}
              keywords={[hint]}
              className="flex cursor-pointer justify-between rounded px-3 py-1.5 data-[selected=true]:bg-base-300"
              onSelect={() => {
                run();
                close();
              }}
            >
              <span>{name}</span>
              <span className="quiet text-sm">{hint}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
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
