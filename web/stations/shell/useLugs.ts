/** Lugs of the shown plan's sections that are heavier than one person lifts, once they are worked out as solids. */
import { useMemo } from "react";
import type { Lift } from "../../../core/plan/builtSections.ts";
import { type Lugs, lugsFor } from "../../../core/solids/lugs.ts";
import { type Neck, neckOf } from "../../../core/solids/neck.ts";
import { madeFrom, solidsFor, useSolids } from "../../planning/solids.ts";
import type { StationProps } from "../station.ts";

export interface SectionLugs {
  readonly section: number;
  /** How many sections there are. */
  readonly of: number;
  readonly lift: Lift;
  /** Null where it has no room for them. */
  readonly lugs: Lugs | null;
  /** Where it is parted best, if it wants a hoist; null where it has no such place, or is light enough. */
  readonly neck: Neck | null;
}

const NONE: readonly SectionLugs[] = [];

export function useLugs({ document, planning }: Pick<StationProps, "document" | "planning">): readonly SectionLugs[] {
  const { bundle } = planning;
  const made = useSolids((held) => held.made);
  const solids = bundle && solidsFor(made, madeFrom(bundle.walls, document.shell));
  return useMemo(() => {
    if (!bundle || !solids) return NONE;
    return solids.sections
      .filter(({ lift }) => lift !== "one")
      .map(({ number, lift, centreMm }) => {
        const edges = bundle.lines.filter(({ sections }) => sections.includes(number - 1)).map(({ points }) => points);
        return {
          section: number,
          of: solids.sections.length,
          lift,
          lugs: lugsFor(bundle.skins[number - 1], edges, centreMm),
          neck: lift === "hoist" ? neckOf(bundle.skins[number - 1]) : null,
        };
      });
  }, [bundle, solids]);
}
