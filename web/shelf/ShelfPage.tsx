import { Boxes, Plus, Settings2 } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Piece } from "../../contract/pieces.ts";
import { scanExtensions } from "../../core/mesh/io/index.ts";
import { usePieces, useSession } from "../lib/queries.ts";
import { GlanceCard } from "./GlanceCard.tsx";
import { PieceCard } from "./PieceCard.tsx";
import { useAddPiece } from "./useAddPiece.ts";

const ACCEPT = scanExtensions.map((ending) => `.${ending}`).join(",");

export function ShelfPage() {
  const { data: session } = useSession();
  const { data, error } = usePieces();
  const [away, setAway] = useState(false);
  const [over, setOver] = useState(false);
  const navigate = useNavigate();
  const adding = useAddPiece((piece) => navigate(`/pieces/${piece.id}/piece`));
  const shown = data?.pieces.filter((piece) => piece.away === away) ?? [];
  const putAway = data?.pieces.filter((piece) => piece.away).length ?? 0;

  return (
    <main
      className={`min-h-full bg-base-200 ${over ? "outline-4 -outline-offset-8 outline-dashed outline-primary" : ""}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const file = event.dataTransfer.files[0];
        if (file) void adding.add(file);
      }}
    >
      <div className="mx-auto max-w-6xl px-8 py-8">
        <header className="mb-8 flex flex-wrap items-end justify-between gap-4">
          <div>
            <p className="font-stencil text-3xl tracking-wide">RIMEFELL</p>
            <h1 className="quiet mt-1">{session ? `The shelf of ${session.workshop.name}` : "The shelf"}</h1>
          </div>
          <div className="flex items-center gap-2">
            {(putAway > 0 || away) && (
              <button type="button" className="btn btn-ghost" onClick={() => setAway(!away)}>
                {away ? "Back to the shelf" : `Put away (${putAway})`}
              </button>
            )}
            <Link to="/store" className="btn btn-ghost">
              <Boxes aria-hidden="true" size={18} />
              Store
            </Link>
            <Link to="/settings" className="btn btn-ghost">
              <Settings2 aria-hidden="true" size={18} />
              Settings
            </Link>
            <label className="btn btn-primary">
              <Plus aria-hidden="true" size={18} />
              Add a scan
              <input
                type="file"
                accept={ACCEPT}
                className="sr-only"
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  if (file) void adding.add(file);
                  event.target.value = "";
                }}
              />
            </label>
          </div>
        </header>
        {adding.progress && (
          <p className="mb-6 flex items-center gap-4" role="status">
            <progress
              className="progress progress-primary w-64"
              value={adding.progress.fraction ?? undefined}
              max={1}
            />
            {adding.progress.what}
          </p>
        )}
        {adding.glance && <GlanceCard glance={adding.glance} />}
        {adding.problem && (
          <p role="alert" className="mb-6 border-l-4 border-error bg-base-100 px-4 py-3">
            {adding.problem}
          </p>
        )}
        {error && (
          <p role="alert" className="mb-6 border-l-4 border-error bg-base-100 px-4 py-3">
            {error.message}
          </p>
        )}
        <Pieces
          pieces={shown}
          away={away}
          ready={data !== undefined}
          onDemo={adding.progress ? null : () => void adding.addDemo()}
        />
      </div>
    </main>
  );
}

interface PiecesProps {
  readonly pieces: readonly Piece[];
  readonly away: boolean;
  readonly ready: boolean;
  /** Puts the demo piece on the shelf; null while one is being put there. */
  readonly onDemo: (() => void) | null;
}

function Pieces({ pieces, away, ready, onDemo }: PiecesProps) {
  if (ready && pieces.length === 0) {
    return (
      <div className="rounded-box border-2 border-dashed border-base-300 px-8 py-20 text-center">
        <p className="text-xl">{away ? "Nothing is put away." : "Drop a scan of your piece here."}</p>
        {!away && (
          <>
            <p className="quiet mt-2">
              STL, OBJ, PLY, GLB or 3MF. A minute later you see where it parts and what to buy.
            </p>
            <button
              type="button"
              className="btn mt-6 border-base-300 bg-base-100"
              disabled={!onDemo}
              onClick={() => onDemo?.()}
            >
              No scan at hand? Take the demo piece
            </button>
          </>
        )}
      </div>
    );
  }
  return (
    <>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(19rem,1fr))] gap-6">
        {pieces.map((piece) => (
          <PieceCard key={piece.id} piece={piece} />
        ))}
      </ul>
      {ready && !away && (
        <p className="quiet mt-10 text-center text-sm">
          Drop a scan anywhere on this page to put a new piece on the shelf.
        </p>
      )}
    </>
  );
}
