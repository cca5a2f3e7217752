/** The solid sections that were worked out last, and what they were made from: an edit leaves them out of date. */
import { create } from "zustand";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { PlanBundle } from "../../core/plan/results/bundle.ts";
import type { ShownSolids } from "../workers/geometry.ts";

/** What solids follow from. */
export interface MadeFrom {
  readonly walls: PlanBundle["walls"];
  readonly shell: string;
}

interface Solids {
  readonly made: { readonly from: MadeFrom; readonly solids: ShownSolids } | null;
  readonly busy: boolean;
  readonly problem: string | null;
  readonly set: (change: Partial<Omit<Solids, "set">>) => void;
}

export const useSolids = create<Solids>((set) => ({
  made: null,
  busy: false,
  problem: null,
  set: (change) => set(change),
}));

/** How the mould is filled, and what is only kept to compare, change no body. */
export function madeFrom(walls: PlanBundle["walls"], whole: PlanDocument["shell"]): MadeFrom {
  const { casting: _casting, variants: _variants, ...shell } = whole;
  return { walls, shell: JSON.stringify(shell) };
}

/** The solids of the plan as it stands; null where there are none, or they are out of date. */
export function solidsFor(made: Solids["made"], from: MadeFrom): ShownSolids | null {
  return made && made.from.walls === from.walls && made.from.shell === from.shell ? made.solids : null;
}
