import { ChevronLeft, ChevronRight } from "lucide-react";
import { lazy, Suspense, useContext, useEffect, useMemo, useState } from "react";
import { Navigate, useParams } from "react-router";
import { type Piece, partPath } from "../../contract/pieces.ts";
import { openPlan, usePlan } from "../document/planStore.ts";
import { useAutosave } from "../document/useAutosave.ts";
import { openPart, useChangePiece, usePiece, useStoredPlan } from "../lib/queries.ts";
import { SettingsContext, sectionCount } from "../lib/show.ts";
import { usePlanning } from "../planning/usePlanning.ts";
import { Clay } from "../scene/Clay.tsx";
import { StageProvider } from "../scene/useStage.tsx";
import { STATIONS, stationOf } from "../stations/index.ts";
import type { Station } from "../stations/station.ts";
import { Later } from "../ui/Later.tsx";
import { CommandSearch } from "./CommandSearch.tsx";
import { ConflictDialog } from "./ConflictDialog.tsx";
import { Course } from "./Course.tsx";
import { StageTools } from "./StageTools.tsx";
import { Tally } from "./Tally.tsx";
import { TopBar } from "./TopBar.tsx";
import { UnreadablePlan } from "./UnreadablePlan.tsx";

/** Sheets and middles of the stations, fetched together with the course: none is waited for when it is gone to. */
const PANES = new Map(
  STATIONS.map(({ id, sheet, middle }) => {
    const fetched = { sheet: sheet(), middle: middle?.() };
    const pane = (found: ReturnType<Station["sheet"]>) => lazy(async () => ({ default: await found }));
    return [id, { Sheet: pane(fetched.sheet), Middle: fetched.middle ? pane(fetched.middle) : null }];
  }),
);

export function CoursePage() {
  const { pieceId = "", station: stationId } = useParams();
  const station = stationOf(stationId);
  const piece = usePiece(pieceId);
  const stored = useStoredPlan(piece.data);
  const partId = piece.data ? openPart(piece.data).id : null;
  const loaded = usePlan((plan) => plan.partId !== null && plan.partId === partId);
  useEffect(() => {
    if (stored.data && partId && usePlan.getState().partId !== partId)
      openPlan(partId, stored.data.document, stored.data.revision);
  }, [stored.data, partId]);
  // Leaving the piece lets go of its document, so that coming back reads what the server holds.
  useEffect(() => () => usePlan.setState({ partId: null, document: null, revision: 0 }), []);
  const trouble = piece.error ?? stored.error;
  if (trouble) throw trouble;
  if (!station) return <Navigate to={`/pieces/${pieceId}/${STATIONS[0].id}`} replace />;
  if (!piece.data || !loaded) return <p className="p-8">Fetching the piece…</p>;
  return <OpenPiece key={pieceId} piece={piece.data} station={station} unreadable={stored.data?.unreadableRevision} />;
}

function OpenPiece({
  piece,
  station,
  unreadable,
}: {
  piece: Piece;
  station: Station;
  /** A revision that cannot be read any more. */
  unreadable: number | undefined;
}) {
  const planning = usePlanning(piece);
  const { theme } = useContext(SettingsContext);
  const document = usePlan((plan) => plan.document);
  const part = openPart(piece);
  const save = useAutosave(part.id, partPath(piece.id, part.id));
  const { mutate: changePiece } = useChangePiece();
  const [searching, setSearching] = useState(false);
  /** On a narrow page the side sheet folds away. */
  const [unfolded, setUnfolded] = useState(true);
  useEffect(() => {
    if (piece.station !== station.id) changePiece({ id: piece.id, change: { station: station.id } });
  }, [piece.id, piece.station, station, changePiece]);
  const summary = useMemo(() => {
    const figures = planning.quality === "settled" ? planning.bundle?.figures : null;
    return figures
      ? `${sectionCount(figures.report.sections.length)}, ${(figures.takeoff.siliconeG / 1000).toFixed(1)} kg silicone`
      : null;
  }, [planning.bundle, planning.quality]);
  useEffect(() => {
    if (summary && summary !== piece.summary) changePiece({ id: piece.id, change: { summary } });
  }, [summary, piece.summary, piece.id, changePiece]);
  if (!document) return null;
  const panes = PANES.get(station.id);
  if (!panes) return null;
  const { Sheet, Middle } = panes;
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <TopBar piece={piece} save={save.state} onSearch={() => setSearching(true)} />
      {unreadable !== undefined && <UnreadablePlan piece={piece} revision={unreadable} />}
      <div className="flex min-h-0 grow">
        <Course piece={piece} station={station} planning={planning} document={document} save={save.state} />
        <StageProvider
          night={theme === "night"}
          middle={
            Middle && (
              <Suspense fallback={null}>
                <Middle piece={piece} document={document} planning={planning} />
              </Suspense>
            )
          }
          overlay={
            <Later>
              <StageTools planning={planning} piece={piece} />
            </Later>
          }
        >
          <Clay stops={document.jacket.stops} onBoard={document.seat.onBoard} />
          <button
            type="button"
            className="h-full w-9 shrink-0 border-l border-base-300 bg-base-100 min-[1101px]:hidden"
            aria-expanded={unfolded}
            aria-label={unfolded ? "Fold the sheet away" : "Unfold the sheet"}
            onClick={() => setUnfolded(!unfolded)}
          >
            {unfolded ? <ChevronRight aria-hidden="true" size={18} /> : <ChevronLeft aria-hidden="true" size={18} />}
          </button>
          <aside
            className={`relative w-[22.5rem] shrink-0 overflow-y-auto border-l border-base-300 bg-base-100 ${unfolded ? "" : "max-[1100px]:hidden"}`}
            aria-label="Side sheet"
          >
            <Later>
              <Suspense fallback={null}>
                <Sheet piece={piece} document={document} planning={planning} />
              </Suspense>
            </Later>
          </aside>
        </StageProvider>
      </div>
      <Tally planning={planning} document={document} />
      {save.state.kind === "conflict" && (
        <ConflictDialog theirs={save.state.theirs} keepMine={save.keepMine} takeTheirs={save.takeTheirs} />
      )}
      <CommandSearch open={searching} setOpen={setSearching} pieceId={piece.id} />
    </div>
  );
}
