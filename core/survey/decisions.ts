/** What of a piece needs a decision before the jacket is laid, in one list: each with its place and its figure. */
import type { ThroughHole } from "./holes.ts";
import type { AirTip } from "./tips.ts";
import type { NarrowPlace } from "./walls.ts";

export const DECISION_KINDS = ["hole", "gap", "thin", "tip"] as const;
export type DecisionKind = (typeof DECISION_KINDS)[number];

export interface Decision {
  readonly kind: DecisionKind;
  readonly at: readonly [number, number, number];
  /** Girth of a hole, width of a gap, thickness of a thin part, depth of a tip. */
  readonly figureMm: number;
  /** Of a hole, the loop round its inside, xyz per point. */
  readonly loop?: readonly number[];
}

/** A decision the user has made: the entry at the place is done with, for the reason given. */
export interface Dismissal {
  readonly kind: DecisionKind;
  readonly at: readonly [number, number, number];
  readonly reason: string;
}

/** What is left to decide: each dismissal takes away the one place of its kind that is nearest to it, and near enough. */
export function undecided(found: readonly Decision[], dismissed: readonly Dismissal[]): Decision[] {
  const pairs = dismissed.flatMap((done, d) =>
    found.flatMap((place, p) => {
      const awayMm = done.kind === place.kind ? Math.hypot(...done.at.map((x, a) => x - place.at[a])) : Infinity;
      return awayMm <= SAME_PLACE_MM ? [{ d, p, awayMm }] : [];
    }),
  );
  pairs.sort((a, b) => a.awayMm - b.awayMm);
  const [used, gone] = [new Set<number>(), new Set<number>()];
  for (const { d, p } of pairs) {
    if (used.has(d) || gone.has(p)) continue;
    used.add(d);
    gone.add(p);
  }
  return found.filter((_, p) => !gone.has(p));
}

/** Places nearer than this are the same place when the piece is surveyed again, mm. */
const SAME_PLACE_MM = 40;
/** Of each kind, the most telling so many. */
const MOST_OF_A_KIND = 8;

/** Least radius of a zone that a place is made, mm. */
const LEAST_ZONE_MM = 20;

/** Radius of the zone that a place is made: twice its figure, so that what is about it is in it too. */
export function zoneRadiusMm({ figureMm }: Decision): number {
  return Math.max(LEAST_ZONE_MM, 2 * figureMm);
}

export function decisionsOf(found: {
  readonly holes: readonly ThroughHole[];
  readonly gaps: readonly NarrowPlace[];
  readonly thin: readonly NarrowPlace[];
  readonly tips: readonly AirTip[];
}): Decision[] {
  const of = (kind: DecisionKind, places: readonly Pick<Decision, "at" | "figureMm" | "loop">[]) =>
    places.slice(0, MOST_OF_A_KIND).map((place): Decision => ({ ...place, kind }));
  return byTurns([
    of(
      "hole",
      found.holes.map(({ at, girthMm, loop }) => ({ at, figureMm: girthMm, loop: Array.from(loop, tenths) })),
    ),
    of(
      "gap",
      found.gaps.map(({ at, narrowestMm }) => ({ at, figureMm: narrowestMm })),
    ),
    of(
      "thin",
      found.thin.map(({ at, narrowestMm }) => ({ at, figureMm: narrowestMm })),
    ),
    of(
      "tip",
      found.tips.map(({ at, depthMm }) => ({ at, figureMm: depthMm })),
    ),
  ]);
}

const tenths = (value: number): number => Math.round(value * 10) / 10;

/** The first of every list, then the second, and so on. */
function byTurns<T>(lists: readonly (readonly T[])[]): T[] {
  const longest = Math.max(...lists.map((list) => list.length));
  return Array.from({ length: longest }, (_, k) => lists.flatMap((list) => list.slice(k, k + 1))).flat();
}
