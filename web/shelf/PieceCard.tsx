import { Ellipsis } from "lucide-react";
import { useState } from "react";
import { Button, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import { Link } from "react-router";
import type { Piece } from "../../contract/pieces.ts";
import { longDate } from "../lib/dates.ts";
import { useChangePiece, useDuplicatePiece } from "../lib/queries.ts";
import { stationOf } from "../stations/index.ts";

/** A line of a menu; the one that the keys are on is shaded. */
const ITEM = "cursor-pointer rounded px-3 py-1.5 outline-none data-[focused]:bg-base-200";

export function PieceCard({ piece }: { piece: Piece }) {
  const change = useChangePiece();
  const duplicate = useDuplicatePiece();
  const [renaming, setRenaming] = useState(false);
  const rename = (name: string) => {
    setRenaming(false);
    if (name.trim() && name.trim() !== piece.name) change.mutate({ id: piece.id, change: { name: name.trim() } });
  };
  return (
    <li className="group relative flex flex-col border-b-[6px] border-base-300 bg-base-100">
      <Link
        to={`/pieces/${piece.id}/${piece.station}`}
        // The whole card opens the piece: what else is pressed on it lies over the link.
        className="block aspect-[6/5] overflow-hidden after:absolute after:inset-0"
        aria-label={`Open ${piece.name}`}
      >
        {piece.hasCover ? (
          <img
            src={`/api/pieces/${piece.id}/cover?${piece.updatedAt}`}
            alt=""
            className="h-full w-full object-contain transition-transform group-hover:scale-[1.03]"
          />
        ) : (
          <span className="quiet grid h-full place-items-center">No picture yet</span>
        )}
      </Link>
      <div className="flex items-start justify-between gap-2 px-4 pt-2 pb-4">
        <div className="min-w-0 grow">
          {renaming ? (
            <input
              aria-label="Name of the piece"
              className="input input-sm relative z-10 w-full"
              defaultValue={piece.name}
              maxLength={120}
              // biome-ignore lint/a11y/noAutofocus: the user has just asked to rename.
              autoFocus
              onFocus={(event) => event.target.select()}
              onBlur={(event) => rename(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === "Enter") rename(event.currentTarget.value);
                if (event.key === "Escape") setRenaming(false);
              }}
            />
          ) : (
            <h2 className="truncate text-lg font-semibold">{piece.name}</h2>
          )}
          <p className="quiet text-sm">
            At <span className="font-medium">{stationOf(piece.station)?.name ?? piece.station}</span>
            {piece.summary && ` · ${piece.summary}`}
          </p>
          <p className="quiet text-sm">{longDate(piece.updatedAt)}</p>
        </div>
        <MenuTrigger>
          <Button className="btn btn-ghost btn-sm relative z-10 px-2" aria-label={`More for ${piece.name}`}>
            <Ellipsis aria-hidden="true" size={20} />
          </Button>
          <Popover placement="bottom end">
            <Menu className="w-40 rounded-box border border-base-300 bg-base-100 p-1 shadow outline-none">
              <MenuItem className={ITEM} onAction={() => setRenaming(true)}>
                Rename
              </MenuItem>
              <MenuItem className={ITEM} onAction={() => duplicate.mutate(piece.id)}>
                Duplicate
              </MenuItem>
              <MenuItem
                className={ITEM}
                onAction={() => change.mutate({ id: piece.id, change: { away: !piece.away } })}
              >
                {piece.away ? "Bring back" : "Put away"}
              </MenuItem>
            </Menu>
          </Popover>
        </MenuTrigger>
      </div>
    </li>
  );
}
