/** The keys on the shown plan's jacket, with the one under the finger where it has got to; and what is done to them by hand. */
import { useCallback, useEffect, useMemo } from "react";
import { type JacketKey, nearestOnJacket } from "../../../core/keys/jacketKeys.ts";
import { keysOf } from "../../../core/plan/fixings.ts";
import { usePlan } from "../../document/planStore.ts";
import { useStage } from "../../scene/useStage.tsx";
import type { StationProps } from "../station.ts";
import { usePicked } from "./picked.ts";

export type ShownKeys = readonly JacketKey[];
type Place = readonly [number, number, number];

export function useJacketKeys({ document, planning }: Pick<StationProps, "document" | "planning">): ShownKeys {
  const { bundle, quality } = planning;
  const { key, keyAt } = usePicked();
  const { placed } = document.shell.jacketKeys;
  const shown = useMemo(() => {
    if (key === null || !keyAt || !placed) return document;
    const moved = placed.map((at, k) => (k === key ? keyAt : at));
    return withKeys(document, moved);
  }, [document, placed, key, keyAt]);
  // Placed once the sections stand: a first glance would have them jump.
  return useMemo(() => (bundle && quality === "settled" ? keysOf(bundle, shown) : []), [bundle, quality, shown]);
}

function withKeys(document: StationProps["document"], placed: readonly Place[] | null): StationProps["document"] {
  const { shell } = document;
  return { ...document, shell: { ...shell, jacketKeys: { ...shell.jacketKeys, placed: placed && [...placed] } } };
}

/** Places to a tenth of a millimetre: no hand sets a key finer. */
const rounded = (at: Place): Place => [
  Math.round(10 * at[0]) / 10,
  Math.round(10 * at[1]) / 10,
  Math.round(10 * at[2]) / 10,
];

export interface KeyHands {
  /** Takes the keys in hand where they stand, or leaves them. */
  readonly take: (hand: "move" | "add" | null) => void;
  readonly remove: (key: number) => void;
  readonly byRule: () => void;
}

/** Keys in hand on the stage: each has a handle that drags it over the jacket, and a press sets another. */
export function useKeyHands(keys: ShownKeys, { planning }: Pick<StationProps, "planning">): KeyHands {
  const { stage, listen } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const { keyHand, key, takeKeys } = usePicked();
  const skins = planning.bundle?.skins;
  const set = useCallback((placed: readonly Place[] | null) => edit((plan) => withKeys(plan, placed)), [edit]);
  const onJacket = useCallback(
    (at: Place) => {
      const place =
        skins &&
        nearestOnJacket(
          skins.map((skin) => ({ skin })),
          [at[0], at[1], at[2]],
        );
      return place ? rounded(place) : null;
    },
    [skins],
  );
  const places = useMemo(() => keys.map(({ at }): Place => at), [keys]);
  useEffect(() => {
    const handles = places.map((at, k) => ({
      id: String(k),
      at: [...at] as [number, number, number],
      chosen: k === key,
    }));
    // Else the handles are those of the picked wall's bolts.
    if (keyHand !== null) stage?.setLineHandles(keyHand === "move" ? handles : []);
  }, [stage, places, keyHand, key]);
  useEffect(() => {
    if (keyHand === null) return;
    const stopHandles = listen("onLineHandle", (id, point, phase) => {
      const chosen = Number(id);
      if (phase === "begin") takeKeys({ key: chosen, keyAt: null });
      const place = point && onJacket(point);
      if (!place) return;
      if (phase === "drag") takeKeys({ key: chosen, keyAt: place });
      if (phase !== "end") return;
      takeKeys({ key: chosen, keyAt: null });
      set(places.map((at, k) => (k === chosen ? place : rounded(at))));
    });
    const stopPicks = listen("onPick", (point) => {
      const place = keyHand === "add" ? onJacket(point) : null;
      if (!place) return;
      set([...places.map(rounded), place]);
      takeKeys({ keyHand: "move", key: places.length });
    });
    return () => {
      stopHandles();
      stopPicks();
    };
  }, [listen, keyHand, places, onJacket, set, takeKeys]);
  useEffect(
    () => () => {
      stage?.setLineHandles([]);
      takeKeys({ keyHand: null, key: null, keyAt: null });
    },
    [stage, takeKeys],
  );
  return useMemo(
    () => ({
      take: (hand) => {
        // From here on they stand where they are, whatever the rule would have.
        if (hand && !usePlan.getState().document?.shell.jacketKeys.placed) set(places.map(rounded));
        takeKeys({ keyHand: hand, keyAt: null });
      },
      remove: (gone) => {
        set(places.filter((_, k) => k !== gone).map(rounded));
        takeKeys({ key: null, keyAt: null });
      },
      byRule: () => {
        set(null);
        takeKeys({ keyHand: null, key: null, keyAt: null });
      },
    }),
    [places, set, takeKeys],
  );
}
