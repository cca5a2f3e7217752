/** The profile that is looked at: a plane through the shell, and what it cuts. Not part of the plan. */
import { useEffect, useMemo, useRef } from "react";
import { create } from "zustand";
import {
  type CutPlane,
  cutPlane,
  inSpace,
  type ProfileLine,
  type ProfilePlane,
  profileOf,
  profileRange,
} from "../../../core/patterns/profile.ts";
import { madeFrom, solidsFor, useSolids } from "../../planning/solids.ts";
import type { LineHandle } from "../../scene/lineHandles.ts";
import { useStage } from "../../scene/useStage.tsx";
import type { StationProps } from "../station.ts";
import { usePicked } from "./picked.ts";

interface ProfileChoice {
  readonly shown: boolean;
  readonly plane: ProfilePlane;
  /** Of any plane: how it is turned and leaned, degrees. */
  readonly bearingDeg: number;
  readonly leanDeg: number;
  /** Where it lies across the piece, 0..1. */
  readonly share: number;
  readonly set: (change: Partial<Omit<ProfileChoice, "set">>) => void;
}

export const useProfileChoice = create<ProfileChoice>((set) => ({
  shown: false,
  plane: "level",
  bearingDeg: 0,
  leanDeg: 0,
  share: 0.5,
  set: (change) => set(change),
}));

export interface ShownProfile {
  readonly plane: ProfilePlane;
  readonly cut: CutPlane;
  /** How far it can be moved, mm. */
  readonly rangeMm: readonly [number, number];
  readonly atMm: number;
  readonly lines: readonly ProfileLine[];
  /** Was it cut through the solid sections, and not through their faces on the jacket alone? */
  readonly ofSolids: boolean;
  readonly inSpace: readonly { readonly points: Float32Array; readonly closed: boolean }[];
}

/** Cuts reach a little into the piece at either end, as a share of it. */
const ENDS = 0.005;

export function useProfile({ document, planning }: Pick<StationProps, "document" | "planning">): ShownProfile | null {
  const { shown, plane, bearingDeg, leanDeg, share } = useProfileChoice();
  const made = useSolids((held) => held.made);
  const { bundle } = planning;
  const skins = bundle?.skins;
  const box = bundle?.figures.report.piece.boxMm;
  const solids = bundle && solidsFor(made, madeFrom(bundle.walls, document.shell));
  return useMemo(() => {
    if (!shown || !skins || !box) return null;
    const cut = cutPlane(plane, bearingDeg, leanDeg);
    const rangeMm = profileRange(box, cut);
    const [low, high] = rangeMm;
    const atMm = low + (high - low) * (ENDS + (1 - 2 * ENDS) * share);
    const lines = profileOf(solids ? solids.sections.map(({ mesh }) => mesh) : skins, cut, atMm);
    return {
      ...{ plane, cut, rangeMm, atMm, lines, ofSolids: Boolean(solids) },
      inSpace: lines.map((line) => ({ points: inSpace(line, cut, atMm), closed: line.closed })),
    };
  }, [shown, skins, box, solids, plane, bearingDeg, leanDeg, share]);
}

/** Handles on the profile drag its plane through the shell; they are left alone while walls or keys have the handles. */
export function useProfileHand(profile: ShownProfile | null): void {
  const { stage, listen } = useStage();
  const { wall, keyHand } = usePicked();
  const set = useProfileChoice((held) => held.set);
  const isFree = profile !== null && wall === null && keyHand === null;
  useEffect(() => {
    if (!isFree || !profile) return;
    stage?.setLineHandles(handlesOn(profile));
  }, [stage, profile, isFree]);
  useEffect(() => {
    if (isFree) return () => stage?.setLineHandles([]);
  }, [stage, isFree]);
  const latest = useRef(profile);
  latest.current = profile;
  useEffect(() => {
    if (!isFree) return;
    return listen("onLineHandle", (id, point, phase) => {
      const held = latest.current;
      if (!id.startsWith(HANDLE) || !point || !held || phase === "begin") return;
      const [low, high] = held.rangeMm;
      const atMm = held.cut.across.reduce((sum, x, a) => sum + x * point[a], 0);
      set({ share: Math.min(1, Math.max(0, ((atMm - low) / (high - low) - ENDS) / (1 - 2 * ENDS))) });
    });
  }, [listen, isFree, set]);
}

const HANDLE = "profile";

/** Where the profile reaches farthest to either side, up and down: one of them is seen from wherever it is looked at. */
function handlesOn({ inSpace: lines, cut: { right, up } }: ShownProfile): LineHandle[] {
  const ways = [right, up, right.map((x) => -x), up.map((x) => -x)];
  return ways.flatMap((way, n) => {
    let at: [number, number, number] | null = null;
    let most = Number.NEGATIVE_INFINITY;
    for (const { points } of lines)
      for (let k = 0; k < points.length; k += 3) {
        const along = way[0] * points[k] + way[1] * points[k + 1] + way[2] * points[k + 2];
        if (along <= most) continue;
        most = along;
        at = [points[k], points[k + 1], points[k + 2]];
      }
    return at ? [{ id: `${HANDLE} ${n}`, at, chosen: true }] : [];
  });
}
