/** The profile that is looked at: a plane through the shell, and what it cuts. Not part of the plan. */
import { useMemo } from "react";
import { create } from "zustand";
import {
  inSpace,
  type ProfileLine,
  type ProfilePlane,
  profileOf,
  profileRange,
} from "../../../core/patterns/profile.ts";
import { madeFrom, solidsFor, useSolids } from "../../planning/solids.ts";
import type { StationProps } from "../station.ts";

interface ProfileChoice {
  readonly shown: boolean;
  readonly plane: ProfilePlane;
  /** Where it lies across the piece, 0..1. */
  readonly share: number;
  readonly set: (change: Partial<Omit<ProfileChoice, "set">>) => void;
}

export const useProfileChoice = create<ProfileChoice>((set) => ({
  shown: false,
  plane: "level",
  share: 0.5,
  set: (change) => set(change),
}));

export interface ShownProfile {
  readonly plane: ProfilePlane;
  readonly atMm: number;
  readonly lines: readonly ProfileLine[];
  /** Was it cut through the solid sections, and not through their faces on the jacket alone? */
  readonly ofSolids: boolean;
  readonly inSpace: readonly { readonly points: Float32Array; readonly closed: boolean }[];
}

/** Cuts reach a little into the piece at either end, as a share of it. */
const ENDS = 0.005;

export function useProfile({ document, planning }: Pick<StationProps, "document" | "planning">): ShownProfile | null {
  const { shown, plane, share } = useProfileChoice();
  const made = useSolids((held) => held.made);
  const { bundle } = planning;
  const skins = bundle?.skins;
  const box = bundle?.figures.report.piece.boxMm;
  const solids = bundle && solidsFor(made, madeFrom(bundle.walls, document.shell));
  return useMemo(() => {
    if (!shown || !skins || !box) return null;
    const [low, high] = profileRange(box, plane);
    const atMm = low + (high - low) * (ENDS + (1 - 2 * ENDS) * share);
    const lines = profileOf(solids ? solids.sections.map(({ mesh }) => mesh) : skins, plane, atMm);
    return {
      ...{ plane, atMm, lines, ofSolids: Boolean(solids) },
      inSpace: lines.map((line) => ({ points: inSpace(line, plane, atMm), closed: line.closed })),
    };
  }, [shown, skins, box, solids, plane, share]);
}
