/** What is done to sections by lines: split one by a new line or a ring, merge two, and say which vertex is whose. */

import { connectedPieces, floodFrom } from "../../mesh/flood.ts";
import { facingOf } from "../../mesh/normals.ts";
import type { Direction } from "../../space/directions.ts";
import { labelsFrom, type SidedLine } from "../lines/network.ts";
import { SegmentIndex, sideOf } from "../lines/segments.ts";
import { endsOf, type Place, placeAt, placeOn, samePlace } from "./handles.ts";
import { evenHandles, type LaidLine, type Layout, MOST_SECTIONS, networkOn, setBack, tenths } from "./layout.ts";
import { SIDE_REACH } from "./potentials.ts";
import { type Surface, vertexAt } from "./surface.ts";
import { pathBetween, type Way } from "./ways.ts";

export type HandResult =
  | { readonly ok: true; readonly layout: Layout }
  | { readonly ok: false; readonly problem: string };

/** Ends of a new line this near another line or the board are set on it, mm; or as near as the mesh is fine. */
const SNAP_MM = 20;
/** A line may stray over another by this share of its points: where it begins and ends. */
const STRAY_SHARE = 0.06;

/** A line that would cross another is led past it by so many edges of the surface. */
const BERTH = 2;

/** The section of every vertex of a surface. */
export function labelsOfLayout(surface: Surface, layout: Layout): Uint8Array {
  const { mesh, near, nearest, edgeMm } = surface;
  const blank = new Uint8Array(mesh.positions.length / 3);
  return labelsFrom(mesh, networkOn(layout, nearest), blank, near, SIDE_REACH * edgeMm);
}

/** A plan of one section, to begin drawing from. */
export function undivided(pull: Direction): Layout {
  return { sections: [{ pull }], lines: [] };
}

/** Draws a line through places that were picked; it parts the section it runs over. */
export function drawLine(
  surface: Surface,
  layout: Layout,
  picked: readonly Place[],
  { closed, way }: { readonly closed: boolean; readonly way: Way },
): HandResult {
  if (picked.length < (closed ? 3 : 2))
    return refused(`Pick at least ${closed ? "three" : "two"} places for the line.`);
  if (closed) {
    const legs = picked.map((from, k) => pathBetween(surface, from, picked[(k + 1) % picked.length], way));
    return part(surface, layout, joined(legs).slice(0, -3), true);
  }
  const [first, last] = [snapped(surface, layout, picked[0]), snapped(surface, layout, picked[picked.length - 1])];
  if (!first || !last) return refused("Begin and end the line on another line or on the board, or close it to a ring.");
  const places = [first, ...picked.slice(1, -1), last];
  const laid = (shun: Uint8Array | null) => {
    const points = wayThrough(surface, places, way, shun);
    // Just where the other lines were met.
    points.splice(0, 3, ...first);
    points.splice(points.length - 3, 3, ...last);
    return { points, made: part(surface, layout, points, false) };
  };
  const { points, made } = laid(null);
  if (wholeSections(surface, made)) return made;
  // Under an overhang the easiest way may lead over other lines: then it is sought well within one of the sections.
  for (const { section } of pointsUnder(surface, labelsOfLayout(surface, layout), points, layout)) {
    const within = laid(outsideOf(surface, layout, section)).made;
    if (wholeSections(surface, within)) return within;
  }
  return made;
}

function wholeSections(surface: Surface, made: HandResult): boolean {
  return made.ok && troublesOf(surface, made.layout, labelsOfLayout(surface, made.layout)).length === 0;
}

/** 1 at the vertices that are not in a section, or beside its edge. */
function outsideOf(surface: Surface, layout: Layout, section: number): Uint8Array {
  const lines = new SegmentIndex(networkOn(layout, surface.nearest), BERTH * surface.edgeMm);
  const p = surface.mesh.positions;
  return labelsOfLayout(surface, layout).map((own, v) =>
    own !== section || lines.nearest(p[3 * v], p[3 * v + 1], p[3 * v + 2]) ? 1 : 0,
  );
}

/** The mirror image of a line across the upright plane through the middle of the piece, drawn as a line of its own. */
export function mirrorLine(surface: Surface, layout: Layout, line: number, across: "x" | "y"): HandResult {
  const own = layout.lines[line];
  const axis = across === "x" ? 0 : 1;
  const p = surface.mesh.positions;
  let [low, high] = [Infinity, -Infinity];
  for (let k = axis; k < p.length; k += 3) {
    low = Math.min(low, p[k]);
    high = Math.max(high, p[k]);
  }
  const turned = own.points.map((value, k) => (k % 3 === axis ? low + high - value : value));
  const points = Array.from(setBack(turned, surface.nearest), tenths);
  if (own.closed) return part(surface, layout, points, true);
  const count = points.length / 3;
  const ends = [0, count - 1].map((k) => snapped(surface, layout, placeAt({ points }, k)));
  if (!ends[0] || !ends[1]) return refused("Mirrored, the line would end on no other line and not on the board.");
  points.splice(0, 3, ...ends[0]);
  points.splice(points.length - 3, 3, ...ends[1]);
  return part(surface, layout, points, false);
}

/**
 * A line through places, the ways between them of one kind; xyz per point, tenths of a mm.
 * @param shun 1 at the vertices that it keeps off where it can
 */
export function wayThrough(
  surface: Surface,
  places: readonly Place[],
  way: Way,
  shun: Uint8Array | null = null,
): number[] {
  return joined(places.slice(1).map((to, k) => pathBetween(surface, places[k], to, way, shun)));
}

function joined(legs: readonly Float64Array[]): number[] {
  return legs.flatMap((leg, k) => Array.from(k === 0 ? leg : leg.subarray(3), tenths));
}

/** The place on a line, a junction or the board that an end is set on; null where none is near. */
export function snapped(surface: Surface, layout: Layout, [x, y, z]: Place): Place | null {
  const snapMm = Math.max(SNAP_MM, 2 * surface.edgeMm);
  let best: Place | null = null;
  let least = snapMm;
  for (const line of layout.lines) {
    const ends = endsOf(line);
    for (let k = 0; k < line.points.length / 3; k++) {
      const place = placeAt(line, k);
      // A junction draws an end from twice as far as a line does.
      const away = Math.hypot(place[0] - x, place[1] - y, place[2] - z) / (ends.includes(k) ? 2 : 1);
      if (away >= least) continue;
      least = away;
      best = place;
    }
  }
  if (best) return best;
  const { boardMm } = surface;
  return boardMm !== null && z - boardMm < snapMm ? placeOn(surface, [x, y, boardMm], true) : null;
}

const refused = (problem: string): HandResult => ({ ok: false, problem });

/** Parts the section a new line runs over; the smaller part becomes the new section. */
function part(surface: Surface, layout: Layout, points: number[], closed: boolean): HandResult {
  if (layout.sections.length >= MOST_SECTIONS) return refused(`A mould here has at most ${MOST_SECTIONS} sections.`);
  const label = labelsOfLayout(surface, layout);
  const [own, ...others] = sectionsUnder(surface, label, points, layout);
  if (own === undefined) return refused("The line runs along another line all the way.");
  if (others.length > 0)
    return refused(
      `The line runs over ${others.length + 1} sections: draw it within one of them, up to the line between.`,
    );
  const fresh = layout.sections.length;
  const line: LaidLine = { points, handles: evenHandles(points, closed), closed, left: own, right: fresh };
  const sides = sidesWithin(surface, label, own, line);
  if (!sides) return refused("The line does not part the section: lead both its ends to other lines, or close it.");
  const [leftMm2, rightMm2] = [own, fresh].map((side) => areaOfSide(surface, sides, side));
  if (Math.min(leftMm2, rightMm2) < surface.edgeMm ** 2) return refused("One side of the line would be empty.");
  // The larger part keeps the section's number, whichever side of the line it lies on.
  const isTurned = leftMm2 < rightMm2;
  const numberOf = (side: number) => (isTurned ? own + fresh - side : side);
  const pull = closed ? pullOver(surface, sides, isTurned ? own : fresh) : layout.sections[own].pull;
  const bordering = rebordered(surface, layout.lines, { label, sides, line, own, fresh, numberOf });
  const laid = { ...line, left: numberOf(own), right: numberOf(fresh) };
  return { ok: true, layout: { sections: [...layout.sections, { pull }], lines: [...bordering, laid] } };
}

function areaOfSide(surface: Surface, sides: Uint8Array, side: number): number {
  return sides.reduce((sum, at, v) => sum + (at === side ? surface.areasMm2[v] : 0), 0);
}

/** A section that is parted by a line, and the numbers that its two parts get. */
interface PartedSection {
  readonly label: Uint8Array;
  /** Side of the line at each vertex of the section, see `sidesWithin`. */
  readonly sides: Uint8Array;
  readonly line: LaidLine;
  readonly own: number;
  readonly fresh: number;
  readonly numberOf: (side: number) => number;
}

/** The lines cut where the new one ends on them; those of the parted section know which of its parts they border. */
function rebordered(
  surface: Surface,
  lines: readonly LaidLine[],
  { label, sides, line, own, fresh, numberOf }: PartedSection,
): LaidLine[] {
  const knotted = endsOf(line).reduce((held, at) => cutAt(held, placeAt(line, at)), lines);
  const votes = votesOf(surface, label, own, sides, knotted);
  return knotted.map((held, n) => {
    if (held.left !== own && held.right !== own) return held;
    const next = numberOf(votes[n] >= 0 ? own : fresh);
    return held.left === own ? { ...held, left: next } : { ...held, right: next };
  });
}

/** The sections a line runs over, most first; short strays are not counted. */
function sectionsUnder(surface: Surface, label: Uint8Array, points: readonly number[], layout: Layout): number[] {
  const found = pointsUnder(surface, label, points, layout);
  const all = found.reduce((sum, { count }) => sum + count, 0);
  return found.filter(({ count }) => count > STRAY_SHARE * all).map(({ section }) => section);
}

/** How many points of a line lie in which section, most first; those beside other lines are not counted. */
function pointsUnder(
  surface: Surface,
  label: Uint8Array,
  points: readonly number[],
  layout: Layout,
): { section: number; count: number }[] {
  const lines = new SegmentIndex(networkOn(layout, surface.nearest), surface.edgeMm);
  const counts = new Map<number, number>();
  for (let k = 0; k < points.length; k += 3) {
    if (lines.nearest(points[k], points[k + 1], points[k + 2])) continue;
    const section = label[vertexAt(surface, points[k], points[k + 1], points[k + 2])];
    counts.set(section, (counts.get(section) ?? 0) + 1);
  }
  return [...counts].map(([section, count]) => ({ section, count })).sort((a, b) => b.count - a.count);
}

const NO_SIDE = 255;

/** The side of a line for every vertex of the section it parts (`NO_SIDE` elsewhere); null where it does not part it. */
function sidesWithin(surface: Surface, label: Uint8Array, section: number, line: LaidLine): Uint8Array | null {
  const { mesh, near, normals, edgeMm } = surface;
  const p = mesh.positions;
  const sided: SidedLine = { ...line, points: Float64Array.from(line.points) };
  const segments = new SegmentIndex([sided], SIDE_REACH * edgeMm);
  const side = new Uint8Array(label.length).fill(NO_SIDE);
  const beside = new Uint8Array(label.length);
  for (let v = 0; v < label.length; v++) {
    if (label[v] !== section) continue;
    const found = segments.nearest(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    if (!found) continue;
    side[v] = sideOf(found, normals, 3 * v, p, 3 * v) >= 0 ? line.left : line.right;
    beside[v] = 1;
  }
  floodFrom(
    beside.slice(),
    near,
    (v, from) => {
      side[v] = side[from];
    },
    (v) => label[v] === section,
  );
  // Where both sides meet away from the line, there is a way round it.
  for (let v = 0; v < label.length; v++) {
    if (side[v] === NO_SIDE || beside[v]) continue;
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const other = near.list[k];
      if (label[other] === section && !beside[other] && side[other] !== side[v]) return null;
    }
  }
  return side;
}

/** Above 0 where a line borders the part that lies to the left of the new one, by the vertices beside it. */
function votesOf(
  surface: Surface,
  label: Uint8Array,
  section: number,
  sides: Uint8Array,
  lines: readonly LaidLine[],
): Float64Array {
  const p = surface.mesh.positions;
  const sided = lines.map((line): SidedLine => ({ ...line, points: setBack(line.points, surface.nearest) }));
  const segments = new SegmentIndex(sided, SIDE_REACH * surface.edgeMm);
  const votes = new Float64Array(lines.length);
  for (let v = 0; v < label.length; v++) {
    if (label[v] !== section) continue;
    const found = segments.nearest(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    if (found && sides[v] !== NO_SIDE) votes[sided.indexOf(found.line)] += sides[v] === section ? 1 : -1;
  }
  return votes;
}

/** The lines with the one that runs through a place cut in two there; an end that is there already is one. */
function cutAt(lines: readonly LaidLine[], place: Place): LaidLine[] {
  return lines.flatMap((line) => {
    const count = line.points.length / 3;
    let at = -1;
    for (let k = 0; k < count; k++) if (samePlace(placeAt(line, k), place)) at = k;
    if (at < 0 || endsOf(line).includes(at)) return [line];
    if (line.closed) {
      const points = [...line.points.slice(3 * at), ...line.points.slice(0, 3 * at + 3)];
      return [{ ...line, points, closed: false, handles: evenHandles(points, false) }];
    }
    return [line.points.slice(0, 3 * at + 3), line.points.slice(3 * at)].map((points, half) => {
      const held = line.handles.map((k) => (half === 0 ? k : k - at)).filter((k) => k > 0 && k < points.length / 3 - 1);
      return { ...line, points, handles: [0, ...held, points.length / 3 - 1] };
    });
  });
}

/** Where a part of the surface faces on the whole; never into the board. */
function pullOver(surface: Surface, sides: Uint8Array, side: number): Direction {
  const members = [...sides.keys()].filter((v) => sides[v] === side);
  return facingOf(surface, members, surface.boardMm !== null) ?? [0, 0, 1];
}

/** Sections that share a line with another. */
export function neighboursOf({ lines }: Layout, section: number): number[] {
  const found = lines.flatMap(({ left, right }) => (left === section ? [right] : right === section ? [left] : []));
  return [...new Set(found)].sort((a, b) => a - b);
}

/** Makes one section of two that share a line; the first one's pull stays. */
export function mergeSections(layout: Layout, one: number, other: number): HandResult {
  if (!neighboursOf(layout, one).includes(other)) return refused(`Sections ${one + 1} and ${other + 1} share no line.`);
  const number = (s: number) => {
    const held = s === other ? one : s;
    return held > other ? held - 1 : held;
  };
  const left = layout.lines
    .map((line) => ({ ...line, left: number(line.left), right: number(line.right) }))
    .filter((line) => line.left !== line.right);
  return {
    ok: true,
    layout: { sections: layout.sections.filter((_, s) => s !== other), lines: withoutLooseKnots(left) },
  };
}

/** Joins the lines of a place where only two ends of the same two sections are left. */
function withoutLooseKnots(lines: readonly LaidLine[]): LaidLine[] {
  let held = [...lines];
  for (;;) {
    const next = joinedOnce(held);
    if (!next) return held;
    held = next;
  }
}

function joinedOnce(lines: readonly LaidLine[]): LaidLine[] | null {
  const ends = lines.flatMap((line) => endsOf(line).map((at) => ({ line, at, place: placeAt(line, at) })));
  for (const end of ends) {
    const here = ends.filter(({ place }) => samePlace(place, end.place));
    if (here.length !== 2) continue;
    const [a, b] = here;
    if (a.line === b.line) {
      const points = a.line.points.slice(0, -3);
      const ring = { ...a.line, points, closed: true, handles: a.line.handles.slice(0, -1) };
      return lines.map((line) => (line === a.line ? ring : line));
    }
    // The first runs up to the place, the second on from it.
    const first = a.at === 0 ? reversed(a.line) : a.line;
    const second = b.at === 0 ? b.line : reversed(b.line);
    if (first.left !== second.left || first.right !== second.right) continue;
    const before = first.points.length / 3 - 1;
    const through: LaidLine = {
      ...first,
      points: [...first.points, ...second.points.slice(3)],
      handles: [...first.handles, ...second.handles.slice(1).map((k) => k + before)],
    };
    return [...lines.filter((line) => line !== a.line && line !== b.line), through];
  }
  return null;
}

function reversed(line: LaidLine): LaidLine {
  const count = line.points.length / 3;
  const points = Array.from({ length: count }, (_, k) => placeAt(line, count - 1 - k)).flat();
  const handles = line.handles.map((k) => count - 1 - k).reverse();
  return { ...line, points, handles, left: line.right, right: line.left };
}

/** Scraps smaller than this come of a sharp corner and go to the section about them, mm2. */
const SCRAP_MM2 = 2000;

/** A section of a layout, counted from 0, that is in more pieces than one, or in none. */
export interface Trouble {
  readonly section: number;
  readonly pieces: number;
}

/** What is wrong with a layout on a surface; nothing where every section is one whole piece. */
export function troublesOf(surface: Pick<Surface, "near" | "areasMm2">, layout: Layout, label: Uint8Array): Trouble[] {
  const { of, label: owners } = connectedPieces(label, surface.near);
  const areasMm2 = new Float64Array(owners.length);
  of.forEach((piece, v) => {
    areasMm2[piece] += surface.areasMm2[v];
  });
  const pieces = layout.sections.map(() => 0);
  owners.forEach((section, piece) => {
    if (areasMm2[piece] >= SCRAP_MM2) pieces[section]++;
  });
  return pieces.flatMap((count, section) => (count === 1 ? [] : [{ section, pieces: count }]));
}

/** @param number of the section as it is shown; null where it has none */
export function troubleInWords({ pieces }: Trouble, number: number | null): string {
  const name = number === null ? "A section" : `Section ${number}`;
  return pieces === 0
    ? `${name} has nothing left of it: a line was drawn over another.`
    : `${name} has fallen into ${pieces} pieces: a line crosses another.`;
}
