import type { Piece } from "../../contract/pieces.ts";
import { partPath } from "../../contract/pieces.ts";
import { openPart } from "../lib/queries.ts";

/** The latest revision of the plan cannot be read any more: says so, and offers it as a file. */
export function UnreadablePlan({ piece, revision }: { piece: Piece; revision: number }) {
  return (
    <p role="alert" className="flex items-baseline gap-3 border-b border-base-300 bg-base-200 px-4 py-2 text-sm">
      <span className="font-medium text-warning">
        The last state of this plan (revision {revision}) cannot be read any more. You see the last one that can;
        nothing was thrown away.
      </span>
      <a
        className="btn btn-xs shrink-0"
        href={`/api${partPath(piece.id, openPart(piece).id)}/revisions/${revision}/file`}
        download
      >
        Take it away as a file
      </a>
    </p>
  );
}
