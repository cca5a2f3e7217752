/** The hand on the parting's lines: their handles dragged on the stage, places picked there, and the same by keys. */
import { type Dispatch, type SetStateAction, useEffect } from "react";
import type { LaidLine } from "../../../core/parting/layout/layout.ts";
import { useStage } from "../../scene/useStage.tsx";
import type { HandWork } from "./useHand.ts";

export type Place = [number, number, number];

/** A chosen handle is moved this far by an arrow key; with shift, `FAR_NUDGE` times as far, mm. */
export const NUDGE_MM = 5;
export const FAR_NUDGE = 5;
const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
/** A handle is added where a press is this near a line, mm. */
const ON_LINE_MM = 30;

export interface Chosen {
  readonly line: number;
  readonly handle: number;
}

export interface HandState {
  readonly hand: HandWork;
  readonly layout: NonNullable<HandWork["layout"]>;
  readonly mode: "move" | "draw";
  readonly chosen: Chosen | null;
  readonly setChosen: (chosen: Chosen | null) => void;
  readonly picked: readonly Place[];
  readonly setPicked: Dispatch<SetStateAction<readonly Place[]>>;
}

/** The lines and their handles on the stage, and what is done to them there. */
export function useStageHands({ hand, layout, mode, chosen, setChosen, picked, setPicked }: HandState): void {
  const { stage, listen } = useStage();
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
    const stopHandles = listen("onLineHandle", (id, point, phase) => {
      const [line, handle] = id.split("/").map(Number);
      if (phase === "begin") setChosen({ line, handle });
      else if (phase === "drag" && point) hand.attempt({ kind: "move", line, handle, to: point });
      else if (phase === "end" && point) hand.settle({ kind: "move", line, handle, to: point });
    });
    const stopPicks = listen("onPick", (point) => {
      if (mode === "draw") {
        setPicked((before) => [...before, point]);
        return;
      }
      const line = lineAt(layout.lines, point);
      if (line === null) setChosen(null);
      else void hand.make({ kind: "insert", line, at: point });
    });
    return () => {
      stopHandles();
      stopPicks();
    };
  }, [listen, hand, layout.lines, mode, setChosen, setPicked]);
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
export function useHandKeys({
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
