/** Which of the station's tables is open: not part of the plan, and what is printed. */
import { create } from "zustand";

export const TABS = ["buildUp", "pots", "buying", "costs", "cautions", "compare"] as const;
export type Tab = (typeof TABS)[number];

interface OpenTab {
  readonly tab: Tab;
  readonly open: (tab: Tab) => void;
}

export const useTab = create<OpenTab>((set) => ({ tab: "buying", open: (tab) => set({ tab }) }));
