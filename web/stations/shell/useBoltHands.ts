/** The bolts of the picked wall in hand on the stage: each has a handle that drags it along its wall. */
import { useEffect } from "react";
import type { BoltPlace } from "../../../core/flange/settings.ts";
import type { BuiltWall } from "../../../core/plan/builtWalls.ts";
import { useStage } from "../../scene/useStage.tsx";
import { usePicked } from "./picked.ts";
import { boltsOf, useFlangeEdits, wholeMm } from "./useWalls.ts";

/** Just beyond the wall's outer edge, where it is seen from either side. */
function handleAt({ along }: BuiltWall, { alongMm }: BoltPlace): [number, number, number] {
  return along.place({ alongMm, offMm: along.widthMm(alongMm) + BEYOND_MM });
}

const BEYOND_MM = 8;

/** @param othersHold something else has the handles while no wall is picked */
export function useBoltHands(walls: readonly BuiltWall[], othersHold: boolean): void {
  const { stage, listen } = useStage();
  const { wall: number, keyHand, drag } = usePicked();
  const { choose } = useFlangeEdits();
  const built = number === null || keyHand !== null ? undefined : walls[number - 1];
  const bolts = built?.fastenings.bolts;
  useEffect(() => {
    // Keys in hand have the handles.
    if (keyHand !== null || (number === null && othersHold)) return;
    const handles = (bolts ?? []).map((bolt, k) => ({
      id: String(k),
      at: handleAt(built as BuiltWall, bolt),
      chosen: false,
    }));
    stage?.setLineHandles(handles);
  }, [stage, built, bolts, keyHand, number, othersHold]);
  useEffect(() => {
    if (!built?.id || number === null) return;
    const { id, along } = built;
    return listen("onLineHandle", (handle, point, phase) => {
      const bolt = Number(handle);
      const held = boltsOf(walls, number)?.[bolt];
      if (!point || !held || phase === "begin") return;
      // It slides along its wall, as far off the jacket as it was.
      const place: BoltPlace = { alongMm: along.alongNear(point), offMm: held.offMm };
      if (phase === "drag") drag({ wall: number, bolt, place });
      else {
        drag(null);
        const moved = (boltsOf(walls, number) ?? []).map((each, k) => (k === bolt ? wholeMm(place) : each));
        choose(id, { bolts: moved.sort((a, b) => a.alongMm - b.alongMm) });
      }
    });
  }, [listen, built, number, walls, drag, choose]);
}
