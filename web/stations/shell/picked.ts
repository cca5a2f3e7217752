/** What is picked at the station: not part of the plan, and not undone. */
import { create } from "zustand";
import type { BoltPlace } from "../../../core/flange/settings.ts";

interface Picked {
  /** Number of the wall, from one; null where none is picked. */
  readonly wall: number | null;
  /** A bolt under the finger, where it has got to. */
  readonly dragged: { readonly wall: number; readonly bolt: number; readonly place: BoltPlace } | null;
  /** The next press on the picked wall sets a bolt. */
  readonly adding: boolean;
  /** Keys on the jacket are in hand: moved where they stand, or set where one presses; null while they are not. */
  readonly keyHand: "move" | "add" | null;
  /** The key that is chosen, from 0, and where it has got to under the finger. */
  readonly key: number | null;
  readonly keyAt: readonly [number, number, number] | null;
  /** The step that is looked at while the shell is built, from 0; null where all of it is shown. */
  readonly step: number | null;
  readonly walk: (step: number | null) => void;
  readonly takeKeys: (change: Partial<Pick<Picked, "keyHand" | "key" | "keyAt">>) => void;
  readonly pick: (wall: number | null) => void;
  readonly drag: (dragged: Picked["dragged"]) => void;
  readonly add: (adding: boolean) => void;
}

export const usePicked = create<Picked>((set) => ({
  wall: null,
  dragged: null,
  adding: false,
  keyHand: null,
  key: null,
  keyAt: null,
  step: null,
  walk: (step) => set({ step }),
  takeKeys: (change) => set(change),
  pick: (wall) => set({ wall, adding: false }),
  drag: (dragged) => set({ dragged }),
  add: (adding) => set({ adding }),
}));
