import { useCallback, useEffect, useState } from "react";
import { bridgedGapMm } from "../../../core/jacket/coat.ts";
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";
import { bearingAndElevation, type Direction, directionFrom } from "../../../core/space/directions.ts";
import { NEAR_LIMIT, THIN_PART_MM } from "../../../core/survey/walls.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { SURVEY_COLOURS } from "../../scene/materials.ts";
import type { Stage } from "../../scene/Stage.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { DirectionFields } from "../../ui/DirectionFields.tsx";
import { Choice, NumberField, Part } from "../../ui/fields.tsx";
import type { Geometry, ShownWalls } from "../../workers/geometry.ts";
import { proxied } from "../../workers/geometry.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { Decisions } from "./parts/Decisions.tsx";
import { ZonePainter } from "./parts/ZonePainter.tsx";
import { SPACING_MM, useSurveyMap } from "./useSurveyMap.ts";

type Look = "map" | "counts" | "lamp" | "gaps" | "thin" | "zones";

const NAMED: readonly { name: string; pull: Direction }[] = [
  { name: messages.sheet.front, pull: [0, -1, 0] },
  { name: messages.sheet.back, pull: [0, 1, 0] },
  { name: messages.sheet.left, pull: [-1, 0, 0] },
  { name: messages.sheet.right, pull: [1, 0, 0] },
  { name: messages.sheet.up, pull: [0, 0, 1] },
];

export function SurveyStation({ document, planning }: StationProps) {
  const { stage, listen } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const show = useShow();
  const [look, setLook] = useState<Look>("map");
  const [lamp, setLamp] = useState<Direction>([-0.94, -0.2, 0.28]);
  const [dragging, setDragging] = useState<Direction | null>(null);
  const { bundle, geometry } = planning;
  const pull = dragging ?? document.survey.pull;
  const { onBoard } = document.seat;
  const keepOffBoard = useCallback(
    (d: Direction): Direction => (onBoard && d[2] < 0 ? directionFrom(bearingAndElevation(d).bearingDeg, 0) : d),
    [onBoard],
  );
  const setPull = useCallback(
    (next: Direction) => edit((plan) => ({ ...plan, survey: { ...plan.survey, pull: keepOffBoard(next) } })),
    [edit, keepOffBoard],
  );
  const map = useSurveyMap(
    look === "map" ? (bundle?.piece ?? null) : null,
    geometry,
    pull,
    document.survey.draftDeg,
    onBoard,
  );
  const counts = useCounts(
    look === "counts" ? (bundle?.piece ?? null) : null,
    geometry,
    document.survey.draftDeg,
    onBoard,
  );

  // Rubber brushed on both walls of a gap closes it when the gap is narrower than two jackets.
  const bridgedMm = bridgedGapMm(document.jacket.coats);
  const walls = useWalls(
    look === "gaps" || look === "thin" ? (bundle?.piece ?? null) : null,
    geometry,
    bridgedMm,
    THIN_PART_MM,
    onBoard,
  );
  const narrow = look === "gaps" ? walls?.gaps : look === "thin" ? walls?.thin : undefined;

  useShown(bundle, onBoard, { piece: look === "zones" ? "painter" : "own" });
  useEffect(() => {
    // The painter sees to its own look.
    if (!stage || !bundle || look === "zones") return;
    if (look === "lamp") stage.setPieceLook({ kind: "lamp" });
    else if (look === "map" && map) stage.setPieceLook({ kind: "classes", classes: map.classes });
    else if (narrow) stage.setPieceLook({ kind: "classes", classes: narrow.classes });
    else if (look === "counts" && counts.result) stage.setPieceLook({ kind: "counts", ...counts.result });
    else stage.setPieceLook({ kind: "plaster" });
  }, [stage, bundle, look, map, narrow, counts.result]);
  useEffect(() => stage?.setLamp(lamp), [stage, lamp]);
  useEffect(() => {
    stage?.setHandles(
      look === "lamp"
        ? [{ id: "lamp", direction: lamp, colour: "#e0a43a", kind: "lamp" }]
        : look === "map"
          ? [{ id: "pull", direction: pull, colour: "#1e4e8c", kind: "pull" }]
          : [],
    );
    return listen("onHandle", (id, direction, phase) => {
      if (id === "lamp") setLamp(direction);
      else if (phase === "drag") setDragging(keepOffBoard(direction));
      else {
        setDragging(null);
        setPull(direction);
      }
    });
  }, [stage, listen, look, lamp, pull, keepOffBoard, setPull]);
  useEffect(() => () => stage?.setHandles([]), [stage]);

  return (
    <>
      <Decisions document={document} planning={planning} wait={look === "map" && !map} />
      <Part title={messages.sheet.lookAtItBy}>
        <Choice<Look>
          label=""
          value={look}
          options={[
            { value: "map", name: messages.sheet.onePull },
            { value: "counts", name: messages.sheet.allPulls },
            { value: "lamp", name: messages.sheet.lamp },
            { value: "gaps", name: messages.sheet.gaps },
            { value: "thin", name: messages.sheet.thin },
            { value: "zones", name: messages.sheet.zones },
          ]}
          onChange={setLook}
        />
      </Part>
      {look === "map" && (
        <>
          <Part title={messages.sheet.thePull}>
            <p className="quiet pb-1 text-sm">{messages.sheet.dragTheArrowOnTheStageOr}</p>
            <div className="flex flex-wrap gap-1 pb-1">
              {NAMED.map(({ name, pull: named }) => (
                <button key={name} type="button" className="btn btn-xs" onClick={() => setPull(named)}>
                  {name}
                </button>
              ))}
            </div>
            <DirectionFields direction={pull} leastElevationDeg={onBoard ? 0 : -90} onChange={setPull} />
            <NumberField
              label={messages.sheet.leastDraft}
              unit="°"
              value={document.survey.draftDeg}
              least={0}
              most={30}
              step={0.5}
              onChange={(draftDeg) => edit((plan) => ({ ...plan, survey: { ...plan.survey, draftDeg } }))}
            />
          </Part>
          <Part title={messages.sheet.alongThisPull}>
            <Legend
              entries={[
                [SURVEY_COLOURS[0], "free", map?.shares[0]],
                [SURVEY_COLOURS[1], "low draft", map?.shares[1]],
                [SURVEY_COLOURS[2], "locked", map?.shares[2]],
              ]}
            />
          </Part>
        </>
      )}
      {look === "counts" && (
        <Part title={messages.sheet.freeFromHowManyPulls}>
          {counts.result ? (
            <>
              <Legend
                entries={[
                  ["#5b1533", messages.sheet.freeFromNoneOrFew],
                  ["#d59a3b", messages.sheet.freeFromSome],
                  ["#e9efe4", messages.sheet.freeFromMany],
                ]}
              />
              <p className="mt-2 text-sm">
                {messages.sheet.freeFromNone((100 * counts.trouble).toFixed(1), counts.result.pulls)}
              </p>
            </>
          ) : (
            <progress className="progress progress-primary w-full" value={counts.progress} max={1} />
          )}
        </Part>
      )}
      {look === "gaps" && (
        <Part title={messages.sheet.gapsTheRubberWouldClose}>
          <p className="quiet pb-1 text-sm">{messages.sheet.gapsHelp(show.length(bridgedMm))}</p>
          <NarrowList narrow={walls?.gaps} limitMm={bridgedMm} what="gap" stage={stage} />
        </Part>
      )}
      {look === "thin" && (
        <Part title={messages.sheet.thinPartsOfThePiece}>
          <p className="quiet pb-1 text-sm">{messages.sheet.thinHelp(show.length(THIN_PART_MM))}</p>
          <NarrowList narrow={walls?.thin} limitMm={THIN_PART_MM} what="part" stage={stage} />
        </Part>
      )}
      {look === "zones" && <ZonePainter document={document} mesh={bundle?.piece ?? null} />}
      {look === "lamp" && (
        <Part title={messages.sheet.theLamp}>
          <p className="text-sm">{messages.sheet.lampHelp}</p>
          <DirectionFields direction={lamp} leastElevationDeg={-90} onChange={setLamp} />
          <button type="button" className="btn btn-sm mt-2 w-full" onClick={() => setPull(lamp)}>
            {messages.sheet.useTheLampsDirectionAsThe}
          </button>
        </Part>
      )}
    </>
  );
}

/** The places within a limit, largest first; each can be marked on the stage. */
function NarrowList({
  narrow,
  limitMm,
  what,
  stage,
}: {
  narrow: ShownWalls["gaps"] | undefined;
  limitMm: number;
  what: string;
  stage: Stage | null;
}) {
  const show = useShow();
  useEffect(() => {
    stage?.setTags(
      (narrow?.places ?? []).slice(0, MOST_TAGS).map(({ at, narrowestMm }) => ({
        at,
        text:
          narrowestMm < CLOSED_MM
            ? messages.sheet.tagRunsToNothing(what)
            : messages.sheet.tag(what, show.length(narrowestMm)),
      })),
    );
    return () => stage?.setTags([]);
  }, [stage, narrow, what, show]);
  if (!narrow) return <progress className="progress progress-primary w-full" />;
  return (
    <>
      <Legend
        entries={[
          [SURVEY_COLOURS[2], messages.sheet.under(show.length(limitMm))],
          [SURVEY_COLOURS[1], messages.sheet.under(show.length(NEAR_LIMIT * limitMm))],
        ]}
      />
      {narrow.places.length === 0 ? (
        <p className="text-sm">{messages.sheet.noneFound}</p>
      ) : (
        <ol className="mt-2 text-sm" data-testid="narrow-places">
          {narrow.places.slice(0, MOST_LISTED).map(({ at, narrowestMm }) => (
            <li key={at.join()} className="flex justify-between py-0.5">
              <span>{messages.sheet.aboveTheBoard(show.length(at[2]))}</span>
              <span className="font-medium">
                {narrowestMm < CLOSED_MM ? messages.sheet.runsToNothing : show.length(narrowestMm)}
              </span>
            </li>
          ))}
          {narrow.places.length > MOST_LISTED && (
            <li className="quiet">{messages.sheet.andMore(narrow.places.length - MOST_LISTED)}</li>
          )}
        </ol>
      )}
    </>
  );
}

/** More tags than this would cover the piece; more lines than this nobody reads. */
const MOST_TAGS = 4;
/** Walls nearer than this meet, in a fold or a crease. */
const CLOSED_MM = 1;
const MOST_LISTED = 12;

function useWalls(
  mesh: TriangleMesh | null,
  geometry: Geometry | null,
  gapMm: number,
  thinMm: number,
  onBoard: boolean,
) {
  const [walls, setWalls] = useState<(ShownWalls & { readonly mesh: TriangleMesh }) | null>(null);
  useEffect(() => {
    setWalls(null);
    if (!mesh || !geometry) return;
    let gone = false;
    void geometry.api.walls(mesh, gapMm, thinMm, onBoard).then((next) => !gone && setWalls({ ...next, mesh }));
    return () => {
      gone = true;
    };
  }, [mesh, geometry, gapMm, thinMm, onBoard]);
  return walls?.mesh === mesh ? walls : null;
}

function Legend({ entries }: { entries: readonly (readonly [string, string, number?])[] }) {
  return (
    <ul>
      {entries.map(([colour, name, share]) => (
        <li key={name} className="flex items-center gap-3 py-1">
          <span className="h-5 w-8 border border-base-content/40" style={{ background: colour }} />
          <span className="grow">{name}</span>
          {share !== undefined && <span className="font-medium">{(100 * share).toFixed(share < 0.1 ? 1 : 0)} %</span>}
        </li>
      ))}
    </ul>
  );
}

function useCounts(mesh: TriangleMesh | null, geometry: Geometry | null, draftDeg: number, onBoard: boolean) {
  const [held, setResult] = useState<{ mesh: TriangleMesh; counts: Uint8Array; pulls: number } | null>(null);
  const result = held?.mesh === mesh ? held : null;
  const [progress, setProgress] = useState(0);
  useEffect(() => {
    setResult(null);
    if (!mesh || !geometry) return;
    let gone = false;
    void geometry.api
      .counts(
        mesh,
        draftDeg,
        SPACING_MM,
        onBoard,
        proxied((fraction: number) => !gone && setProgress(fraction)),
      )
      .then((next) => !gone && setResult({ ...next, mesh }));
    return () => {
      gone = true;
    };
  }, [mesh, geometry, draftDeg, onBoard]);
  const trouble = result
    ? result.counts.reduce((sum, count) => sum + (count === 0 ? 1 : 0), 0) / Math.max(1, result.counts.length)
    : 0;
  return { result, progress, trouble };
}
