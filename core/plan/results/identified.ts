/**
 * Gives the sections, lines and fills of a plan the ids of those they stand for in the plan before, by overlap:
 *
 * - A section keeps its id where it holds well over half of the places that were spread over it before; each of both
 *   plans counts once, the greatest overlap first. Of those that are left, one keeps its id that is made from the same
 *   pull, or the same section laid by hand: turned by a quarter, it is still the section that was turned.
 * - A line keeps its id where it parts the same two sections; of several, the one nearest to where it ran.
 * - A fill keeps its id where it is nearest to where it was, and no farther from there than a hand is wide.
 *
 * Whatever is left gets an id that nothing had before. Greedy assignment: at these numbers no better one is needed.
 */
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { PartingLine } from "../../parting/lines/cut.ts";
import type { FillPart } from "../../release/fills.ts";
import type { PlanDocument } from "../document/document.ts";
import { freshId, type Identity, type KnownFill, type KnownLine, type KnownSection } from "../document/identity.ts";
import type { PlanBundle } from "./bundle.ts";

/** What of a plan is told apart, in its own order. */
export interface Identifiable {
  /** What each section was made from, see `KnownSection`; null where all were suggested again. */
  readonly origins: readonly number[] | null;
  readonly skins: readonly TriangleMesh[];
  readonly lines: readonly Pick<PartingLine, "sections" | "points">[];
  readonly fills: readonly Pick<FillPart, "at">[];
}

/** Places of a section that are kept, and that new sections are compared by. */
const KEPT_PLACES = 40;
const COMPARED_PLACES = 400;
/** Places of a line that are kept. */
const LINE_PLACES = 12;
/** More than this share of a section's places is the section: over half, and what spreading the places leaves to chance. */
const LEAST_SHARE = 0.6;
/** A fill is the same one no farther away than this, mm. */
const FILL_REACH_MM = 100;

/** What of a result is told apart. */
export function identifiable(
  { skins, lines, figures: { report } }: Pick<PlanBundle, "skins" | "lines" | "figures">,
  { pulls, layout }: PlanDocument["parting"],
): Identifiable {
  const origins = pulls || layout ? report.sections.map(({ origin }) => origin) : null;
  return { skins, lines, fills: report.fillParts, origins };
}

/** @returns the identity with everything of the plan in it, in the plan's own order */
export function identified(plan: Identifiable, known: Identity): Identity {
  let identity = known;
  const idOf = (what: string, held: string | undefined): string => {
    if (held) return held;
    const fresh = freshId(identity, what);
    identity = fresh.identity;
    return fresh.id;
  };
  const sectionIds = matched(
    shares(known.sections, plan.skins),
    (share) => share > LEAST_SHARE,
    "most",
    plan.skins.length,
  );
  plan.origins?.forEach((origin, k) => {
    const before = known.sections.findIndex((section) => section.origin === origin);
    if (sectionIds[k] === -1 && before >= 0 && !sectionIds.includes(before)) sectionIds[k] = before;
  });
  const sections = plan.skins.map(
    (skin, k): KnownSection => ({
      id: idOf("section", known.sections[sectionIds[k]]?.id),
      origin: plan.origins?.[k] ?? k,
      places: rounded(spreadOver(skin, KEPT_PLACES)),
    }),
  );
  const between = plan.lines.map(({ sections: [a, b] }) => [sections[a].id, sections[b].id].sort() as [string, string]);
  const away = known.lines.map((line) =>
    plan.lines.map(({ points }, k) =>
      line.between.join() === between[k].join() ? meanAwayMm(line.places, points) : Number.POSITIVE_INFINITY,
    ),
  );
  const lineIds = matched(away, (mm) => mm < Number.POSITIVE_INFINITY, "least", plan.lines.length);
  const lines = plan.lines.map(
    ({ points }, k): KnownLine => ({
      id: idOf("line", known.lines[lineIds[k]]?.id),
      between: between[k],
      places: rounded(everyFew(points, LINE_PLACES)),
    }),
  );
  const apart = known.fills.map(({ at }) => plan.fills.map((fill) => Math.hypot(...at.map((x, a) => x - fill.at[a]))));
  const fillIds = matched(apart, (mm) => mm < FILL_REACH_MM, "least", plan.fills.length);
  const fills = plan.fills.map(
    ({ at }, k): KnownFill => ({
      id: idOf("fill", known.fills[fillIds[k]]?.id),
      at: rounded(at) as [number, number, number],
    }),
  );
  return { next: identity.next, sections, lines, fills };
}

/**
 * Pairs of old and new, the best first, each used once.
 * @param worth of old (rows) for new (columns)
 * @param count of the new ones
 * @returns for every new one the old one's place; -1 where there is none
 */
function matched(
  worth: readonly (readonly number[])[],
  good: (worth: number) => boolean,
  best: "most" | "least",
  count: number,
): number[] {
  const pairs = worth.flatMap((row, before) => row.map((value, after) => ({ before, after, value })));
  pairs.sort((a, b) => (best === "most" ? b.value - a.value : a.value - b.value));
  const of = Array.from({ length: count }, () => -1);
  const used = new Set<number>();
  for (const { before, after, value } of pairs) {
    if (!good(value) || of[after] >= 0 || used.has(before)) continue;
    of[after] = before;
    used.add(before);
  }
  return of;
}

/** Of the places of each old section, which share lies on each new one: on the one with the nearest place. */
function shares(known: readonly KnownSection[], skins: readonly TriangleMesh[]): number[][] {
  const total = skins.reduce((sum, { positions }) => sum + positions.length, 0);
  const places = skins.map((skin) =>
    spreadOver(skin, Math.ceil((COMPARED_PLACES * skins.length * skin.positions.length) / Math.max(1, total))),
  );
  return known.map((section) => {
    const votes = skins.map(() => 0);
    const { places: p } = section;
    for (let a = 0; a < p.length; a += 3) {
      const near = places.map((others) => leastAway2(p, a, others));
      votes[near.indexOf(Math.min(...near))] += 3 / p.length;
    }
    return votes;
  });
}

/** About so many vertices of a mesh, evenly by number: xyz each. */
function spreadOver({ positions }: TriangleMesh, count: number): number[] {
  return everyFew(positions, count);
}

function everyFew(points: ArrayLike<number>, count: number): number[] {
  const every = 3 * Math.max(1, Math.floor(points.length / 3 / Math.max(1, count)));
  const out: number[] = [];
  for (let at = 0; at + 2 < points.length; at += every) out.push(points[at], points[at + 1], points[at + 2]);
  return out;
}

function leastAway2(p: ArrayLike<number>, a: number, others: ArrayLike<number>): number {
  let least = Number.POSITIVE_INFINITY;
  for (let b = 0; b < others.length; b += 3) {
    const away = (p[a] - others[b]) ** 2 + (p[a + 1] - others[b + 1]) ** 2 + (p[a + 2] - others[b + 2]) ** 2;
    if (away < least) least = away;
  }
  return least;
}

/** How far places lie from the nearest of some others, on average, mm. */
function meanAwayMm(places: readonly number[], others: ArrayLike<number>): number {
  let sum = 0;
  for (let a = 0; a < places.length; a += 3) sum += Math.sqrt(leastAway2(places, a, others));
  return (3 * sum) / Math.max(1, places.length);
}

function rounded(values: ArrayLike<number>): number[] {
  return Array.from(values, Math.round);
}
