/**
 * What holds two flanges together and in register: bolts, flange keys, pry slots, placed by rule on the wall between them.
 *
 * - Bolts: so far off the jacket that nut and washer stand clear of the shell, two diameters from the outer edge, none at
 *   corners, evenly no farther apart than the pitch. Where there is no room for them the sections are strapped.
 * - Keys: a spherical dimple or a bevelled groove; it stands at least 10 mm clear of the jacket, and no washer lies on it. Its edge
 *   slopes no more steeply than the section that leaves first can leave it along its pull.
 * - Pry slots: at the outer edge, away from bolts and keys.
 *
 * Lengths along a wall are those of its foot, from its beginning.
 */
import type { AlongWall } from "./along.ts";
import {
  type BoltHold,
  type BoltPlace,
  choiceFor,
  FLANGE_WIDTHS_MM,
  type FlangeSettings,
  type WallChoice,
} from "./settings.ts";

/** Of the section whose flanges these are. */
export interface FlangeTerms {
  /** Thickness of the flanges, and of the shell's edge beside them, mm. */
  readonly flangeMm: number;
}

/** What speaks against a bolt where it stands. */
export type BoltTrouble = "edge" | "shell" | "corner" | "crowded" | "key" | "off the wall";

/** How the nut is turned: straight on; drilled aslant, by degrees and away from which section; or there is no room. */
export type NutAccess =
  | { readonly kind: "clear" }
  | { readonly kind: "aslant"; readonly deg: number; readonly section: number }
  | { readonly kind: "none"; readonly section: number };

export interface Bolt extends BoltPlace {
  readonly access: NutAccess;
  readonly troubles: readonly BoltTrouble[];
  /** What is left between its washer and the shell, and between its hole and the outer edge, mm. */
  readonly toShellMm: number;
  readonly toEdgeMm: number;
}

export interface Dimple extends BoltPlace {
  readonly radiusMm: number;
  readonly depthMm: number;
}

export interface Groove {
  readonly fromMm: number;
  readonly toMm: number;
  readonly offMm: number;
  readonly widthMm: number;
  readonly depthMm: number;
}

export interface PrySlot {
  readonly fromMm: number;
  readonly toMm: number;
}

export interface Stretch {
  readonly fromMm: number;
  readonly toMm: number;
}

export interface Fastenings {
  readonly bolts: readonly Bolt[];
  readonly dimples: readonly Dimple[];
  readonly grooves: readonly Groove[];
  readonly slots: readonly PrySlot[];
  /** Stretches longer than the pitch that no bolt holds: strapped or clamped. */
  readonly unbolted: readonly Stretch[];
}

/** A washer reaches so many diameters from its bolt's axis. */
const WASHER_SHARE = 1.1;
/** Between a washer and the shell, mm. */
const WASHER_CLEAR_MM = 2;
/** Room round a washer to turn a nut, mm. */
const TURN_MM = 1;
/** From a hole's middle to the outer edge, in diameters. */
const EDGE_DIAMETERS = 2;
/** Nearest to the jacket that bolts are set, mm. */
const LEAST_OFF_MM = 18;
/** From the ends of a wall, mm. */
const CORNER_MM = 40;
/** Between two bolts, in diameters. */
const APART_DIAMETERS = 4;
/** Behind the flange the bolt needs so much, mm: an aslant hole gains room over it. */
const BEHIND_MM = 30;
/** Steeper than this no hole is drilled aslant, degrees. */
const MOST_ASLANT_DEG = 20;

/** A key stands at least so far clear of the jacket, mm. */
const KEY_CLEAR_MM = 10;
/** And of the outer edge. */
const KEY_EDGE_MM = 5;
/** Keys slope no more steeply than this, degrees; */
const KEY_SLOPE_DEG = 60;
/** by so much less than the pull would allow; */
const KEY_SPARE_DEG = 5;
/** and a shallower one holds nothing. */
const LEAST_SLOPE_DEG = 20;
/** A shorter groove holds nothing, mm. */
const LEAST_GROOVE_MM = 40;

const SLOT_MM = 30;
/** How deep a pry slot goes in from the outer edge, mm. */
export const SLOT_DEPTH_MM = 12;
/** Between a slot and bolts or keys, mm. */
const SLOT_CLEAR_MM = 20;
/** A slot every so much of a wall, mm. */
const SLOT_PITCH_MM = 500;
/** Places are tried in steps of this, mm. */
const TRY_MM = 5;

const RADIANS = Math.PI / 180;

export const washerMm = (diameterMm: number) => WASHER_SHARE * diameterMm;

/** How far off the jacket bolts stand by rule, mm. */
export function boltOffMm({ bolts, keys }: FlangeSettings, { flangeMm }: FlangeTerms): number {
  if (bolts.offMm !== null) return bolts.offMm;
  const washer = washerMm(bolts.diameterMm);
  const besideShell = flangeMm + washer + WASHER_CLEAR_MM;
  // A groove runs all along the wall, and no washer may lie on it.
  const besideGroove = keys.kind === "groove" ? keyOffMm(keys.radiusMm) + keys.radiusMm + washer + TURN_MM : 0;
  return Math.max(LEAST_OFF_MM, besideShell, besideGroove);
}

const keyOffMm = (radiusMm: number) => KEY_CLEAR_MM + radiusMm;

/** The width that bolts and keys ask for, mm. */
export function leastWidthMm(settings: FlangeSettings, terms: FlangeTerms): number {
  const { bolts, keys } = settings;
  const forKeys = keys.kind === "none" ? 0 : keyOffMm(keys.radiusMm) + keys.radiusMm + KEY_EDGE_MM;
  return Math.max(boltOffMm(settings, terms) + EDGE_DIAMETERS * bolts.diameterMm, forKeys);
}

/** A flange by rule is no narrower, and of a round width, mm. */
const LEAST_WIDTH_MM = 45;
const ROUND_WIDTH_MM = 5;

/** The width of all flanges for which nothing else was decided, mm: what bolts and keys ask for, where it goes by rule. */
export function flangeWidthMm(settings: FlangeSettings, terms: FlangeTerms): number {
  if (settings.widthMm !== null) return settings.widthMm;
  const wanted = Math.max(LEAST_WIDTH_MM, ROUND_WIDTH_MM * Math.ceil(leastWidthMm(settings, terms) / ROUND_WIDTH_MM));
  return Math.min(FLANGE_WIDTHS_MM.most, wanted);
}

/** The width that is wanted of a wall, mm. @param id of the line it stands on */
export function widthFor(settings: FlangeSettings, id: string | null, terms: FlangeTerms): number {
  return choiceFor(settings, id)?.widthMm ?? flangeWidthMm(settings, terms);
}

export function fasteningsOf(
  along: AlongWall,
  forAll: FlangeSettings,
  choice: WallChoice | null,
  terms: FlangeTerms,
): Fastenings {
  const settings = choice?.keys ? { ...forAll, keys: { ...forAll.keys, kind: choice.keys } } : forAll;
  const bolted = (choice?.joint ?? "bolts") === "bolts";
  const places = !bolted ? [] : (choice?.bolts ?? boltsByRule(along, settings, terms));
  const dimples = settings.keys.kind === "dimples" ? dimplesBetween(along, settings, places) : [];
  const grooves = settings.keys.kind === "groove" ? groovesAlong(along, settings) : [];
  const bolts = places.map((place) => boltAt(along, settings, terms, place, { places, dimples, grooves }));
  return {
    ...{ bolts, dimples, grooves },
    slots: slotsOf(along, bolts, dimples, settings),
    unbolted: unboltedOf(along, bolts, settings.bolts.pitchMm),
  };
}

/** Runs of a wall where something holds all along, mm along its foot. */
function runsWhere(along: AlongWall, holds: (alongMm: number, ruling: number) => boolean): Stretch[] {
  const out: Stretch[] = [];
  let from = -1;
  const { alongMm } = along;
  for (let k = 0; k <= alongMm.length; k++) {
    const good = k < alongMm.length && holds(alongMm[k], k);
    if (good && from < 0) from = k;
    if (good || from < 0) continue;
    out.push({ fromMm: alongMm[from], toMm: alongMm[k - 1] });
    from = -1;
  }
  return out;
}

/** Bolts where there is room for them, evenly, no farther apart than the pitch. */
export function boltsByRule(along: AlongWall, settings: FlangeSettings, terms: FlangeTerms): BoltPlace[] {
  const { diameterMm, pitchMm } = settings.bolts;
  const offMm = boltOffMm(settings, terms);
  const { lengthMm, wall } = along;
  const wide = runsWhere(along, (_, k) => wall.widthsMm[k] >= offMm + EDGE_DIAMETERS * diameterMm);
  const [only] = wide;
  const allRound = wall.closed && wide.length === 1 && only.fromMm <= 0 && only.toMm >= lengthMm;
  if (allRound) {
    const count = Math.max(2, Math.ceil(lengthMm / pitchMm));
    return Array.from({ length: count }, (_, n) => ({ alongMm: ((n + 0.5) * lengthMm) / count, offMm }));
  }
  const apartMm = APART_DIAMETERS * diameterMm;
  const places = wide.flatMap(({ fromMm, toMm }) => {
    // None at corners: where walls meet, and on the board.
    const low = wall.closed ? fromMm : Math.max(fromMm, CORNER_MM);
    const high = wall.closed ? toMm : Math.min(toMm, lengthMm - CORNER_MM);
    if (high < low) return [];
    // Thick bolts at a small pitch would crowd each other: then the pitch gives way.
    const gaps = Math.min(Math.ceil((high - low) / pitchMm - 1e-9), Math.floor((high - low) / apartMm + 1e-9));
    if (gaps <= 0) return [{ alongMm: (low + high) / 2, offMm }];
    return Array.from({ length: gaps + 1 }, (_, n) => ({ alongMm: low + (n * (high - low)) / gaps, offMm }));
  });
  // Two runs may end close to each other, with a short narrow place between them.
  const kept: BoltPlace[] = [];
  for (const place of places) {
    const last = kept[kept.length - 1];
    if (!last || place.alongMm - last.alongMm >= apartMm - 1e-6) kept.push(place);
  }
  return kept;
}

interface Beside {
  readonly places: readonly BoltPlace[];
  readonly dimples: readonly Dimple[];
  readonly grooves: readonly Groove[];
}

/** A bolt with what speaks against it, and how its nut is reached. */
function boltAt(
  along: AlongWall,
  { bolts: { diameterMm, hold } }: FlangeSettings,
  { flangeMm }: FlangeTerms,
  place: BoltPlace,
  { places, dimples, grooves }: Beside,
): Bolt {
  const washer = washerMm(diameterMm);
  const toShellMm = place.offMm - washer - flangeMm;
  const toEdgeMm = along.widthMm(place.alongMm) - place.offMm;
  const apart = (other: BoltPlace) => Math.hypot(other.alongMm - place.alongMm, other.offMm - place.offMm);
  const onKey =
    dimples.some((dimple) => apart(dimple) < dimple.radiusMm + washer) ||
    grooves.some(
      ({ fromMm, toMm, offMm, widthMm }) =>
        place.alongMm > fromMm - washer &&
        place.alongMm < toMm + washer &&
        Math.abs(place.offMm - offMm) < widthMm / 2 + washer,
    );
  const { lengthMm, wall } = along;
  const found: readonly (readonly [BoltTrouble, boolean])[] = [
    ["off the wall", place.alongMm < 0 || place.alongMm > lengthMm || toEdgeMm <= 0],
    ["edge", toEdgeMm > 0 && toEdgeMm < EDGE_DIAMETERS * diameterMm - 1e-6],
    ["shell", toShellMm < 0],
    ["corner", !wall.closed && Math.min(place.alongMm, lengthMm - place.alongMm) < CORNER_MM - 1e-6],
    ["crowded", places.some((other) => other !== place && apart(other) < APART_DIAMETERS * diameterMm)],
    ["key", onKey],
  ];
  return {
    ...place,
    access: accessTo(along, place, flangeMm + washer + TURN_MM, hold),
    troubles: found.filter(([, is]) => is).map(([trouble]) => trouble),
    ...{ toShellMm, toEdgeMm },
  };
}

/** Number of the section whose flange is built first: inserts lie in it. */
export function firstBuilt({ wall: { sections } }: Pick<AlongWall, "wall">): number {
  return Math.min(...sections);
}

/** An insert is as long as this many of its bolt's diameters, where the flange is thick enough; so much stays behind it, mm. */
const INSERT_DIAMETERS = 2;
const BEHIND_INSERT_MM = 4;
/** And so many of those thick. */
export const INSERT_ACROSS = 1.5;

/** How long an insert may be in a flange, mm. */
export function insertLengthMm(flangeMm: number, diameterMm: number): number {
  return Math.max(diameterMm, Math.min(INSERT_DIAMETERS * diameterMm, flangeMm - BEHIND_INSERT_MM));
}

/** @param neededMm how far the jacket must be from the bolt's axis behind the flange, mm */
function accessTo(along: AlongWall, place: BoltPlace, neededMm: number, hold: BoltHold): NutAccess {
  const [left, right] = ([0, 1] as const).map((side) =>
    // Nothing is turned behind the flange that an insert lies in.
    hold === "inserts" && along.wall.sections[side] === firstBuilt(along)
      ? Number.POSITIVE_INFINITY
      : along.nutMm(place, side) - neededMm,
  );
  const side = left <= right ? 0 : 1;
  const shortMm = -Math.min(left, right);
  if (shortMm <= 0) return { kind: "clear" };
  const section = along.wall.sections[side];
  const deg = Math.atan(shortMm / BEHIND_MM) / RADIANS;
  // A hole that leans away from one shell leans towards the other.
  const otherSpareMm = Math.max(left, right);
  return deg <= MOST_ASLANT_DEG && otherSpareMm >= shortMm
    ? { kind: "aslant", deg, section }
    : { kind: "none", section };
}

/** The steepest slope of a key's edge that the section which leaves first can leave, degrees; 0 where none can. */
function keySlopeDeg(along: AlongWall, alongMm: number): number {
  const [left, right] = along.wall.sections;
  const sine = along.draft(alongMm, left > right ? 0 : 1);
  const slope = Math.min(KEY_SLOPE_DEG, Math.asin(Math.max(-1, Math.min(1, sine))) / RADIANS - KEY_SPARE_DEG);
  return slope >= LEAST_SLOPE_DEG ? slope : 0;
}

/** Depth of a spherical cap by the radius of its rim and the slope there. */
const capDepthMm = (radiusMm: number, slopeDeg: number) => radiusMm * Math.tan((slopeDeg * RADIANS) / 2);

/** Dimples midway between bolts, about the pitch apart; by the pitch alone where there are no bolts. */
function dimplesBetween(
  along: AlongWall,
  { keys: { radiusMm, pitchMm }, bolts }: FlangeSettings,
  places: readonly BoltPlace[],
): Dimple[] {
  const offMm = keyOffMm(radiusMm);
  const washer = washerMm(bolts.diameterMm);
  const { lengthMm, wall } = along;
  const fits = (alongMm: number) =>
    along.widthMm(alongMm) >= offMm + radiusMm + KEY_EDGE_MM &&
    (wall.closed || Math.min(alongMm, lengthMm - alongMm) >= CORNER_MM) &&
    places.every((bolt) => Math.hypot(bolt.alongMm - alongMm, bolt.offMm - offMm) >= radiusMm + washer + TURN_MM);
  const sorted = [...places].sort((a, b) => a.alongMm - b.alongMm);
  const wanted =
    sorted.length > 1
      ? sorted.slice(1).map((bolt, k) => (bolt.alongMm + sorted[k].alongMm) / 2)
      : Array.from(
          { length: Math.max(1, Math.round(lengthMm / pitchMm)) },
          (_, n, count = Math.max(1, Math.round(lengthMm / pitchMm))) => ((n + 0.5) * lengthMm) / count,
        );
  const out: Dimple[] = [];
  for (const alongMm of wanted) {
    const last = out[out.length - 1];
    if (last && alongMm - last.alongMm < 0.75 * pitchMm) continue;
    const slope = keySlopeDeg(along, alongMm);
    if (slope === 0 || !fits(alongMm)) continue;
    out.push({ alongMm, offMm, radiusMm, depthMm: capDepthMm(radiusMm, slope) });
  }
  return out;
}

/** A bevelled groove wherever one can be left, as steep as the least steep place of each stretch. */
function groovesAlong(along: AlongWall, { keys: { radiusMm } }: FlangeSettings): Groove[] {
  const offMm = keyOffMm(radiusMm);
  const { lengthMm, wall } = along;
  const runs = runsWhere(
    along,
    (mm, k) =>
      wall.widthsMm[k] >= offMm + radiusMm + KEY_EDGE_MM &&
      (wall.closed || Math.min(mm, lengthMm - mm) >= CORNER_MM / 2) &&
      keySlopeDeg(along, mm) > 0,
  );
  return runs
    .filter(({ fromMm, toMm }) => toMm - fromMm >= LEAST_GROOVE_MM)
    .map(({ fromMm, toMm }) => {
      let slope = KEY_SLOPE_DEG;
      for (let mm = fromMm; mm <= toMm; mm += TRY_MM) slope = Math.min(slope, keySlopeDeg(along, mm));
      // Half as deep as it is wide would be 45 degrees; a flat bottom of a third stays.
      const depthMm = Math.min(radiusMm, (2 / 3) * radiusMm * Math.tan(slope * RADIANS));
      return { fromMm, toMm, offMm, widthMm: 2 * radiusMm, depthMm };
    });
}

function slotsOf(
  along: AlongWall,
  bolts: readonly BoltPlace[],
  dimples: readonly Dimple[],
  { bolts: { diameterMm } }: FlangeSettings,
): PrySlot[] {
  const { lengthMm, wall } = along;
  const count = Math.max(1, Math.round(lengthMm / SLOT_PITCH_MM));
  const washer = washerMm(diameterMm);
  const free = (alongMm: number) => {
    const width = along.widthMm(alongMm);
    if (width < 2 * SLOT_DEPTH_MM) return false;
    if (!wall.closed && Math.min(alongMm, lengthMm - alongMm) < SLOT_MM / 2 + SLOT_CLEAR_MM) return false;
    const clear = (other: BoltPlace, radius: number) =>
      Math.abs(other.alongMm - alongMm) >= SLOT_MM / 2 + radius + SLOT_CLEAR_MM / 2;
    return bolts.every((bolt) => clear(bolt, washer)) && dimples.every((dimple) => clear(dimple, dimple.radiusMm));
  };
  const out: PrySlot[] = [];
  for (let n = 0; n < count; n++) {
    const wanted = ((n + 0.5) * lengthMm) / count;
    for (let away = 0; away < lengthMm / count / 2; away += TRY_MM) {
      const at = [wanted + away, wanted - away].find(free);
      if (at === undefined) continue;
      out.push({ fromMm: at - SLOT_MM / 2, toMm: at + SLOT_MM / 2 });
      break;
    }
  }
  return out;
}

/** Stretches longer than one and a half pitches that no bolt holds. */
function unboltedOf(along: AlongWall, bolts: readonly Bolt[], pitchMm: number): Stretch[] {
  const held = bolts
    .filter(({ access }) => access.kind !== "none")
    .map(({ alongMm }) => alongMm)
    .sort((a, b) => a - b);
  const { lengthMm, wall } = along;
  if (wall.closed && held.length > 0) {
    const [first] = held;
    const round = [...held, first + lengthMm];
    return gapsIn(round, pitchMm);
  }
  return gapsIn([0, ...held, lengthMm], pitchMm);
}

/** A gap this many times the pitch needs something else to hold it. */
const GAP_PITCHES = 1.5;

function gapsIn(places: readonly number[], pitchMm: number): Stretch[] {
  return places
    .slice(1)
    .flatMap((toMm, k) => (toMm - places[k] > GAP_PITCHES * pitchMm ? [{ fromMm: places[k], toMm }] : []));
}
