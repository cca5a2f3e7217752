import { useEffect, useState } from "react";
import type { Piece } from "../../contract/pieces.ts";
import { usePlan } from "../document/planStore.ts";
import { call } from "../lib/http.ts";
import type { Planning } from "../planning/usePlanning.ts";
import type { NamedView } from "../scene/Stage.ts";
import { useStage } from "../scene/useStage.tsx";

const VIEWS: readonly { view: NamedView; name: string }[] = [
  { view: "front", name: "Front" },
  { view: "back", name: "Back" },
  { view: "left", name: "Left" },
  { view: "right", name: "Right" },
  { view: "above", name: "Above" },
  { view: "pull", name: "Along the pull" },
];

/** What floats over the stage: views, a person for size, and any trouble. */
export function StageTools({ planning, piece }: { planning: Planning; piece: Piece }) {
  const { stage } = useStage();
  const [person, setPerson] = useState(false);
  const pull = usePlan((plan) => plan.document?.survey.pull);
  useEffect(() => stage?.setPerson(person), [stage, person]);
  const { bundle, quality, geometry } = planning;
  useEffect(() => {
    if (!geometry || piece.hasCover || quality !== "settled" || !bundle) return;
    void geometry.api.cover(bundle.piece).then(
      (image) =>
        image &&
        call(`/pieces/${piece.id}/cover`, {
          method: "PUT",
          headers: { "content-type": "image/png" },
          body: image,
        }).catch(() => undefined),
    );
  }, [geometry, piece.hasCover, piece.id, quality, bundle]);
  return (
    <>
      <div className="absolute top-3 left-3 flex flex-wrap gap-1">
        {VIEWS.map(({ view, name }) => (
          <button
            key={view}
            type="button"
            className="btn btn-xs border-base-300 bg-base-100/90 font-medium"
            onClick={() => stage?.look(view, pull)}
          >
            {name}
          </button>
        ))}
        <button
          type="button"
          aria-pressed={person}
          className={`btn btn-xs font-medium ${person ? "btn-neutral" : "border-base-300 bg-base-100/90"}`}
          onClick={() => setPerson(!person)}
        >
          Person for size
        </button>
      </div>
      {planning.problem && (
        <div
          role="alert"
          className="absolute inset-x-3 bottom-3 flex items-center justify-between gap-4 border-l-4 border-error bg-base-100 px-4 py-3 shadow"
        >
          <span>{planning.problem}</span>
          <button type="button" className="btn btn-sm" onClick={planning.again}>
            Try again
          </button>
        </div>
      )}
      {planning.notice && !planning.problem && (
        <p
          role="status"
          className="absolute inset-x-3 bottom-3 border-l-4 border-warning bg-base-100 px-4 py-2 text-sm shadow"
        >
          {planning.notice}
        </p>
      )}
      {!planning.bundle && !planning.problem && (
        <p className="absolute inset-0 m-auto h-fit w-fit rounded-box bg-base-100/90 px-5 py-3" role="status">
          {planning.progress ? "Working out the first answer…" : "Setting the piece on the board…"}
        </p>
      )}
    </>
  );
}
