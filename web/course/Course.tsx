import { Link } from "react-router";
import { type Piece, type Station, stations } from "../../contract/pieces.ts";
import { jacketThicknessMm } from "../../core/jacket/coat.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { SaveState } from "../document/useAutosave.ts";
import { type Show, useShow } from "../lib/show.ts";
import type { Planning } from "../planning/usePlanning.ts";
import { Later } from "../ui/Later.tsx";
import { BuiltFrom } from "./builds/BuiltFrom.tsx";
import { sectionCount, stationNames, stationQuestions } from "./stations.ts";

type StationState = "set" | "look" | "working";

/** The stations in the order of the work, each with its state and its one telling number. */
export function Course({
  piece,
  station,
  planning,
  document,
  save,
}: {
  piece: Piece;
  station: Station;
  planning: Planning;
  document: PlanDocument;
  save: SaveState;
}) {
  const show = useShow();
  return (
    <nav className="flex w-48 shrink-0 flex-col border-r border-base-300 bg-base-100 py-3" aria-label="Course">
      <ol>
        {stations.map((name, k) => {
          const { state, figure } = telling(name, planning, document, show);
          const here = name === station;
          return (
            <li key={name} className="relative">
              {k > 0 && (
                <span
                  aria-hidden="true"
                  className="absolute -top-2 left-[1.72rem] h-4 border-l-2 border-dotted border-base-300"
                />
              )}
              <Link
                to={`/pieces/${piece.id}/${name}`}
                aria-current={here ? "step" : undefined}
                className={`flex gap-3 border-l-4 px-4 py-3 ${here ? "border-accent bg-base-200" : "border-transparent hover:bg-base-200"}`}
              >
                <StateMark state={state} />
                <span className="min-w-0">
                  <span className="block leading-tight font-semibold">{stationNames[name]}</span>
                  <span className="quiet block text-xs leading-snug">{stationQuestions[name]}</span>
                  {figure && <span className="tape mt-1.5 inline-block text-sm whitespace-nowrap">{figure}</span>}
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
      <Later>
        <BuiltFrom piece={piece} document={document} planning={planning} save={save} />
      </Later>
    </nav>
  );
}

function StateMark({ state }: { state: StationState }) {
  const { mark, name, tone } = {
    set: { mark: "●", name: "set", tone: "text-success" },
    look: { mark: "▲", name: "needs a look", tone: "text-warning" },
    working: { mark: "○", name: "being worked out", tone: "quiet" },
  }[state];
  return (
    <span className={`mt-0.5 w-4 text-center text-sm leading-tight ${tone}`} role="img" aria-label={name} title={name}>
      {mark}
    </span>
  );
}

function telling(
  station: Station,
  { bundle }: Planning,
  document: PlanDocument,
  show: Show,
): { state: StationState; figure: string | null } {
  if (!bundle) return { state: "working", figure: null };
  const { report, takeoff, wholePiece } = bundle.figures;
  switch (station) {
    case "piece":
      return {
        state: !wholePiece ? "working" : report.piece.openEdges + report.piece.nonManifoldEdges > 0 ? "look" : "set",
        figure: `${show.length(report.piece.sizeMm[2])} high`,
      };
    case "survey": {
      const filled = report.sections.filter((section) => section.fillMm3 > 0).length;
      return { state: "set", figure: filled === 0 ? "no locks" : `locks in ${filled} of ${report.sections.length}` };
    }
    case "jacket":
      return {
        state: jacketThicknessMm(document.jacket.coats) > 12 ? "look" : "set",
        figure: `${show.mass(report.jacket.siliconeG)}`,
      };
    case "parting":
      return {
        state: report.sections.every((section) => section.releases) ? "set" : "look",
        figure: sectionCount(report.sections.length),
      };
    case "materials":
      return { state: "set", figure: show.money(takeoff.costMinor) };
  }
}
