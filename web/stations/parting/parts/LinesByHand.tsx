import { type Dispatch, type SetStateAction, useCallback, useEffect, useMemo, useState } from "react";
import type { HandEdit } from "../../../../core/parting/hand/edit.ts";
import { type LaidLine, placesAlong } from "../../../../core/parting/hand/layout.ts";
import { troubleInWords } from "../../../../core/parting/hand/sections.ts";
import type { Way } from "../../../../core/parting/hand/ways.ts";
import type { PlanReport } from "../../../../core/plan/report.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution, Choice, More, Part } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import type { HandWork } from "../useHand.ts";
import { SuggestRest } from "./SuggestRest.tsx";

type Place = [number, number, number];
type WayKind = Way["kind"];

const WAYS: readonly { value: WayKind; name: string }[] = [
  { value: "shortest", name: "Shortest" },
  { value: "horizon", name: "Horizon" },
  { value: "creases", name: "Creases" },
];

/** A chosen handle is moved this far by an arrow key; with shift, `FAR_NUDGE` times as far, mm. */
const NUDGE_MM = 5;
const FAR_NUDGE = 5;
const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
/** A handle is added where a press is this near a line, mm. */
const ON_LINE_MM = 30;

interface Chosen {
  readonly line: number;
  readonly handle: number;
}

/** Moves, draws and merges the parting's lines. */
export function LinesByHand({
  hand,
  planning,
  sections,
  canTake,
  onSuggest,
}: {
  hand: HandWork;
  planning: StationProps["planning"];
  sections: PlanReport["sections"];
  canTake: boolean;
  onSuggest: () => void;
}) {
  const { layout } = hand;
  if (!layout) {
    return (
      <Part title="Lines by hand">
        <p className="quiet pb-2 text-sm">
          Take these lines in hand to move them, draw new ones, merge sections. What you lay stays; the proof follows
          it.
        </p>
        <button type="button" className="btn btn-sm w-full" disabled={!canTake} onClick={hand.take}>
          Take the lines in hand
        </button>
      </Part>
    );
  }
  return (
    <Part
      title="Lines by hand"
      aside={
        <button type="button" className="text-sm underline" onClick={onSuggest}>
          Suggest again
        </button>
      }
    >
      <HandTools
        hand={hand}
        layout={layout}
        sections={sections}
        settled={planning.quality === "settled" && !planning.glance}
      />
      <SuggestRest layout={layout} planning={planning} />
    </Part>
  );
}

function HandTools({
  hand,
  layout,
  sections,
  settled,
}: {
  hand: HandWork;
  layout: NonNullable<HandWork["layout"]>;
  sections: PlanReport["sections"];
  settled: boolean;
}) {
  const show = useShow();
  const [mode, setMode] = useState<"move" | "draw">("move");
  const [way, setWay] = useState<WayKind>("shortest");
  const [horizonOf, setHorizonOf] = useState(0);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [picked, setPicked] = useState<readonly Place[]>([]);
  const numberOf = (origin: number) => sections.find((section) => section.origin === origin)?.number ?? origin + 1;
  const wayTaken = useMemo(
    (): Way =>
      way === "horizon" ? { kind: way, pull: (layout.sections[horizonOf] ?? layout.sections[0]).pull } : { kind: way },
    [way, horizonOf, layout.sections],
  );
  const chosenLine = chosen && layout.lines[chosen.line] ? chosen : null;

  const finish = useCallback(
    async (closed: boolean) => {
      if (await hand.make({ kind: "draw", picked, closed, way: wayTaken })) {
        setPicked([]);
        setMode("move");
        setChosen(null);
      }
    },
    [hand, picked, wayTaken],
  );
  useStageHands({ hand, layout, mode, chosen: chosenLine, setChosen, picked, setPicked });
  useHandKeys({
    hand,
    layout,
    mode,
    chosen: chosenLine,
    setChosen,
    picked,
    setPicked,
    finish,
    stop: () => setMode("move"),
  });

  const change = (made: HandEdit) => {
    setChosen(null);
    void hand.make(made);
  };
  return (
    <div data-testid="hand">
      <Choice
        label="The hand"
        value={mode}
        options={[
          { value: "move", name: "Move handles" },
          { value: "draw", name: "Draw a line" },
        ]}
        onChange={(next) => {
          setMode(next);
          setPicked([]);
          setChosen(null);
        }}
      />
      {(mode === "draw" || chosenLine) && (
        <>
          <Choice label="How it runs between" value={way} options={WAYS} onChange={setWay} />
          {way === "horizon" && (
            <label className="flex items-center justify-between py-1 text-sm">
              <span className="quiet">Horizon of the pull of</span>
              <select
                className="select select-sm w-32"
                value={horizonOf}
                onChange={(event) => setHorizonOf(Number(event.target.value))}
              >
                {[...layout.sections.keys()].map((s) => (
                  <option key={s} value={s}>
                    {`section ${numberOf(s)}`}
                  </option>
                ))}
              </select>
            </label>
          )}
        </>
      )}
      {mode === "move" && !chosenLine && (
        <p className="quiet py-1 text-sm">
          Drag a dot on the stage. Click a line to add a dot; click a dot to choose it. Keys [ and ] go from dot to dot.
        </p>
      )}
      {mode === "move" && chosenLine && (
        <div className="mt-1 grid grid-cols-2 gap-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => void hand.make({ kind: "lay", ...chosenLine, way: wayTaken })}
          >
            Lay the stretch after it
          </button>
          <button type="button" className="btn btn-sm" onClick={() => change({ kind: "remove", ...chosenLine })}>
            Take the dot away
          </button>
          <p className="quiet col-span-2 text-xs">
            Arrow keys move it {show.length(NUDGE_MM)}, with shift {show.length(NUDGE_MM * FAR_NUDGE)}; delete takes it
            away.
          </p>
        </div>
      )}
      {mode === "draw" && (
        <>
          <p className="quiet py-1 text-sm" data-testid="picked">
            {picked.length === 0
              ? "Click places on the mould, or turn it by keys and press P for what is in the middle. Begin and end on a line or on the board, or close the line to a ring."
              : `${picked.length} ${picked.length === 1 ? "place" : "places"} picked.`}
          </p>
          <div className="grid grid-cols-3 gap-1">
            <button
              type="button"
              className="btn btn-sm"
              disabled={picked.length < 2}
              onClick={() => void finish(false)}
            >
              Finish
            </button>
            <button type="button" className="btn btn-sm" disabled={picked.length < 3} onClick={() => void finish(true)}>
              Close to a ring
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={picked.length === 0}
              onClick={() => setPicked((before) => before.slice(0, -1))}
            >
              Take back
            </button>
          </div>
        </>
      )}
      {hand.problem && <Caution>{hand.problem}</Caution>}
      {/* Once settled, the plan tells them itself. */}
      {!settled &&
        (hand.glance?.troubles ?? []).map((trouble) => {
          const number = sections.find(({ origin }) => origin === trouble.section)?.number ?? null;
          return <Caution key={trouble.section}>{troubleInWords(trouble, number)}</Caution>;
        })}
      <More title={`${layout.lines.length} ${layout.lines.length === 1 ? "line" : "lines"}: merge or mirror`}>
        <ul className="text-sm" data-testid="laid-lines">
          {layout.lines.map((line, n) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place.
              key={n}
              className="flex items-center justify-between gap-2 py-1"
            >
              <span>
                {numberOf(line.left)} | {numberOf(line.right)}{" "}
                <span className="quiet">{show.length(lengthOf(line))}</span>
              </span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() =>
                    change({
                      kind: "merge",
                      one: Math.min(line.left, line.right),
                      other: Math.max(line.left, line.right),
                    })
                  }
                >
                  Merge
                </button>
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => change({ kind: "mirror", line: n, across: "x" })}
                >
                  Mirror ↔
                </button>
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => change({ kind: "mirror", line: n, across: "y" })}
                >
                  Mirror ↕
                </button>
              </span>
            </li>
          ))}
        </ul>
      </More>
    </div>
  );
}

function lengthOf({ points, closed }: LaidLine): number {
  return placesAlong(points, closed).at(-1) ?? 0;
}

interface HandState {
  readonly hand: HandWork;
  readonly layout: NonNullable<HandWork["layout"]>;
  readonly mode: "move" | "draw";
  readonly chosen: Chosen | null;
  readonly setChosen: (chosen: Chosen | null) => void;
  readonly picked: readonly Place[];
  readonly setPicked: Dispatch<SetStateAction<readonly Place[]>>;
}

/** The lines and their handles on the stage, and what is done to them there. */
function useStageHands({ hand, layout, mode, chosen, setChosen, picked, setPicked }: HandState): void {
  const { stage, listeners } = useStage();
  useEffect(() => {
    stage?.setLines(layout.lines.map(({ points, closed }) => ({ points: Float32Array.from(points), closed })));
  }, [stage, layout.lines]);
  useEffect(() => {
    const handles = layout.lines.flatMap((line, n) =>
      line.handles.map((k, h) => ({
        id: `${n}/${h}`,
        at: placeOf(line, k),
        chosen: chosen?.line === n && chosen.handle === h,
      })),
    );
    stage?.setLineHandles(mode === "move" ? handles : []);
  }, [stage, layout.lines, mode, chosen]);
  useEffect(() => {
    stage?.setPicks(picked, false);
    stage?.setTouch({ on: "sections", how: "pick" });
  }, [stage, picked]);
  useEffect(() => {
    listeners.lineHandle = (id, point, phase) => {
      const [line, handle] = id.split("/").map(Number);
      if (phase === "begin") setChosen({ line, handle });
      else if (phase === "drag" && point) hand.attempt({ kind: "move", line, handle, to: point });
      else if (phase === "end" && point) hand.settle({ kind: "move", line, handle, to: point });
    };
    listeners.pick = (point) => {
      if (mode === "draw") {
        setPicked((before) => [...before, point]);
        return;
      }
      const line = lineAt(layout.lines, point);
      if (line === null) setChosen(null);
      else void hand.make({ kind: "insert", line, at: point });
    };
    return () => {
      listeners.lineHandle = null;
      listeners.pick = null;
    };
  }, [listeners, hand, layout.lines, mode, setChosen, setPicked]);
  useEffect(
    () => () => {
      stage?.setLineHandles([]);
      stage?.setPicks([]);
      stage?.setTouch(null);
    },
    [stage],
  );
}

function placeOf({ points }: LaidLine, k: number): Place {
  return [points[3 * k], points[3 * k + 1], points[3 * k + 2]];
}

/** The line a press is on. */
function lineAt(lines: readonly LaidLine[], [x, y, z]: Place): number | null {
  let found: number | null = null;
  let least = ON_LINE_MM;
  lines.forEach((line, n) => {
    for (let k = 0; k < line.points.length / 3; k++) {
      const [px, py, pz] = placeOf(line, k);
      const away = Math.hypot(px - x, py - y, pz - z);
      if (away >= least) continue;
      least = away;
      found = n;
    }
  });
  return found;
}

/** The same by keys: from handle to handle, nudge, take away; finish or take back a line. */
function useHandKeys({
  hand,
  layout,
  mode,
  chosen,
  setChosen,
  picked,
  setPicked,
  finish,
  stop,
}: HandState & { finish: (closed: boolean) => Promise<void>; stop: () => void }): void {
  const { stage } = useStage();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || event.ctrlKey || event.metaKey) return;
      const done = mode === "draw" ? drawKey(event.key) : moveKey(event);
      if (!done) return;
      event.preventDefault();
      event.stopPropagation();
    };
    const drawKey = (key: string): boolean => {
      if (key === "Enter" && picked.length > 1) void finish(false);
      else if (key === "Backspace" && picked.length > 0) setPicked((before) => before.slice(0, -1));
      else if (key === "Escape") {
        setPicked([]);
        stop();
      } else return false;
      return true;
    };
    const moveKey = (event: KeyboardEvent): boolean => {
      const all = layout.lines.flatMap((line, n) => line.handles.map((_, h) => ({ line: n, handle: h })));
      if (event.key === "[" || event.key === "]") {
        const at = chosen ? all.findIndex(({ line, handle }) => line === chosen.line && handle === chosen.handle) : -1;
        const step = event.key === "]" ? 1 : -1;
        setChosen(all[(Math.max(at, step < 0 ? 0 : -1) + step + all.length) % all.length] ?? null);
        return true;
      }
      if (!chosen) return false;
      const nudge = NUDGES[event.key];
      if (nudge && stage) {
        const mm = NUDGE_MM * (event.shiftKey ? FAR_NUDGE : 1);
        void stage.beside([0, 0, 0], nudge[0] * mm, nudge[1] * mm).then((by) => {
          if (by) void hand.make({ kind: "nudge", ...chosen, by });
        });
        return true;
      }
      if (event.key === "Delete" || event.key === "Backspace") {
        setChosen(null);
        void hand.make({ kind: "remove", ...chosen });
        return true;
      }
      if (event.key !== "Escape") return false;
      setChosen(null);
      return true;
    };
    // Before the stage takes the arrow keys for walking round.
    window.addEventListener("keydown", press, true);
    return () => window.removeEventListener("keydown", press, true);
  }, [stage, hand, layout.lines, mode, chosen, setChosen, picked, setPicked, finish, stop]);
}
