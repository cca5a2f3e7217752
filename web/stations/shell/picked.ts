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
  readonly pick: (wall: number | null) => void;
  readonly drag: (dragged: Picked["dragged"]) => void;
  readonly add: (adding: boolean) => void;
}

export const usePicked = create<Picked>((set) => ({
  wall: null,
  dragged: null,
  adding: false,
  pick: (wall) => set({ wall, adding: false }),
  drag: (dragged) => set({ dragged }),
  add: (adding) => set({ adding }),
}));
