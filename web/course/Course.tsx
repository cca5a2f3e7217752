import { Link } from "react-router";
import type { Piece } from "../../contract/pieces.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { SaveState } from "../document/useAutosave.ts";
import { useShow } from "../lib/show.ts";
import type { Planning } from "../planning/usePlanning.ts";
import { STATIONS } from "../stations/index.ts";
import type { Station } from "../stations/station.ts";
import { Later } from "../ui/Later.tsx";
import { StateIcon } from "../ui/StateIcon.tsx";
import { BuiltFrom } from "./builds/BuiltFrom.tsx";

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
    <nav
      className="flex w-48 shrink-0 flex-col overflow-y-auto border-r border-base-300 bg-base-100 py-3 max-[1100px]:w-36"
      aria-label="Course"
    >
      <ol>
        {STATIONS.map(({ id, name, question, telling }, k) => {
          const figures = planning.bundle?.figures;
          const { state, figure } = figures
            ? telling(figures, document, show)
            : { state: "working" as const, figure: null };
          const here = id === station.id;
          return (
            <li key={id} className="relative">
              {k > 0 && (
                <span
                  aria-hidden="true"
                  className="absolute -top-2 left-[1.72rem] max-[1100px]:left-[1.1rem] h-4 border-l-2 border-dotted border-base-300"
                />
              )}
              <Link
                to={`/pieces/${piece.id}/${id}`}
                aria-current={here ? "step" : undefined}
                className={`flex gap-3 border-l-4 px-4 py-3 max-[1100px]:gap-2 max-[1100px]:px-2 ${here ? "border-accent bg-base-200" : "border-transparent hover:bg-base-200"}`}
              >
                <StateIcon standing={state} />
                <span className="min-w-0">
                  <span className="block leading-tight font-semibold">{name}</span>
                  <span className="quiet block text-xs leading-snug max-[1100px]:hidden">{question}</span>
                  {figure && (
                    <span className="tape mt-1.5 inline-block text-sm whitespace-nowrap max-[1100px]:text-xs">
                      {figure}
                    </span>
                  )}
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
