/**
 * Keys on the jacket: tapered buttons or strips of cured silicone that hold it in its shell. They stand where it would sag away from
 * the shell, spread evenly (see `farthestFirst.ts`), more of them on undersides, and only where the section
 * over them leaves them free. A key's flank is behind by h (tan a - tan t) on the way out, for a height h, a taper t and an
 * angle a between pull and axis; it is free where that is no more than the rubber gives.
 */
import { once } from "../job/once.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Direction } from "../space/directions.ts";
import { DAB_FIGURES } from "../survey/zones.ts";
import { farthestFirst } from "./farthestFirst.ts";
import { type JacketKeySettings, STRIP_RADII } from "./settings.ts";

/** What speaks against a key where it was set. */
export type KeyTrouble = "locks" | "line" | "board" | "bent" | "zone" | "off the jacket";

export interface JacketKey {
  /** Number of the section whose shell it stands in, from one. */
  readonly section: number;
  readonly at: readonly [number, number, number];
  readonly normal: readonly [number, number, number];
  /** How deep the section presses into it on its way out, mm. */
  readonly biteMm: number;
  /** Along which a strip lies; null for a button. */
  readonly along: readonly [number, number, number] | null;
  /** To the nearest parting line, mm, as the crow flies. */
  readonly toLineMm: number;
  /** None where it was placed by rule. */
  readonly troubles: readonly KeyTrouble[];
}

export interface JacketKeysRequest {
  /** Of each section, in the order they are built: its face on the jacket, and its pull. */
  readonly sections: readonly { readonly skin: TriangleMesh; readonly pull: Direction }[];
  /** Points of the parting lines, xyz. */
  readonly lines: readonly { readonly points: Float32Array }[];
  /** Painted zones that are kept free of keys: fragile, and those that nothing is to cross. */
  readonly zones: readonly (readonly number[])[];
  readonly jacketMm: number;
  /** What the rubber yields to, mm. */
  readonly giveMm: number;
  readonly boardMm: number | null;
  readonly keys: JacketKeySettings;
}

/** A key keeps so far off lines and the board, mm beyond its own size. */
const LINE_CLEAR_MM = 25;
/** An underside weighs so much more than a wall. */
const UNDERSIDE_WEIGHT = 0.6;
/** Places of a section that keys are chosen among. */
const PLACES = 2500;

export function jacketKeys(request: JacketKeysRequest): JacketKey[] {
  const { sections, keys } = request;
  if (keys.kind === "none") return [];
  if (keys.placed) return keysByHand(request, keys.placed);
  return sections.flatMap((_, s) => keysOf(request, s));
}

/** Farther from the jacket than this a key set by hand has nothing to stand on, mm. */
const OFF_JACKET_MM = 25;

/** Keys where they were set, in that order, each on the nearest place of the jacket, with what speaks against it. */
function keysByHand(request: JacketKeysRequest, places: readonly (readonly [number, number, number])[]): JacketKey[] {
  const grounds = request.sections.map((_, s) => new KeyBed(request, s));
  return places.flatMap(([x, y, z]): JacketKey[] => {
    const [nearest] = grounds
      .flatMap((ground, s) => {
        const found = ground.nearest([x, y, z]);
        return found ? [{ s, ...found }] : [];
      })
      .sort((a, b) => a.awayMm - b.awayMm);
    if (!nearest) return [];
    const { s, v, awayMm } = nearest;
    const { normal, biteMm, toLine, troubles } = grounds[s].keyAt(v);
    const away: readonly KeyTrouble[] = awayMm > OFF_JACKET_MM ? ["off the jacket"] : [];
    const along = alongOf(request, s, normal);
    return [
      { section: s + 1, at: [x, y, z], normal, biteMm, toLineMm: toLine(), along, troubles: [...away, ...troubles] },
    ];
  });
}

/** The place of the jacket that is nearest to one; null where there is none. */
export function nearestOnJacket(
  sections: readonly { readonly skin: TriangleMesh }[],
  [x, y, z]: readonly [number, number, number],
): [number, number, number] | null {
  let best: [number, number, number] | null = null;
  let least2 = Number.POSITIVE_INFINITY;
  for (const { skin } of sections) {
    const p = skin.positions;
    for (let v = 0; v + 2 < p.length; v += 3) {
      const away2 = (p[v] - x) ** 2 + (p[v + 1] - y) ** 2 + (p[v + 2] - z) ** 2;
      if (away2 >= least2) continue;
      least2 = away2;
      best = [p[v], p[v + 1], p[v + 2]];
    }
  }
  return best;
}

/** The way a strip lies; null for a button. */
function alongOf({ keys, sections }: JacketKeysRequest, s: number, normal: readonly number[]) {
  return keys.kind === "strips" ? stripAlong(normal, sections[s].pull) : null;
}

interface Candidate {
  readonly at: [number, number, number];
  readonly normal: [number, number, number];
  readonly biteMm: number;
  readonly toLineMm: number;
  readonly weight: number;
}

function keysOf(request: JacketKeysRequest, s: number): JacketKey[] {
  const { keys } = request;
  const out: JacketKey[] = [];
  for (const { place, worthMm } of farthestFirst(candidatesOf(request, s))) {
    // Half of the spacing lies on either side of it.
    if (worthMm < keys.spacingMm / 2) break;
    const { at, normal, biteMm, toLineMm } = place;
    out.push({ section: s + 1, at, normal, biteMm, along: alongOf(request, s, normal), toLineMm, troubles: [] });
  }
  return out;
}

/** Where a key may stand. */
function candidatesOf(request: JacketKeysRequest, s: number): Candidate[] {
  const p = request.sections[s].skin.positions;
  const every = 3 * Math.max(1, Math.floor(p.length / 3 / PLACES));
  const bed = new KeyBed(request, s);
  const out: Candidate[] = [];
  for (let v = 0; v + 2 < p.length; v += every) {
    const { at, normal, biteMm, toLine, troubles } = bed.keyAt(v, "the first");
    if (troubles.length > 0) continue;
    out.push({ at, normal, biteMm, toLineMm: toLine(), weight: 1 + UNDERSIDE_WEIGHT * Math.max(0, -normal[2]) });
  }
  return out;
}

/** What a section's face on the jacket bears, and what speaks against a key on it. */
class KeyBed {
  private readonly normals: Float32Array;
  private readonly beds: Beds;
  private readonly clearMm: number;

  constructor(
    private readonly request: JacketKeysRequest,
    private readonly s: number,
  ) {
    const { sections, keys } = request;
    const { skin } = sections[s];
    this.normals = vertexNormals(skin).normals;
    this.clearMm = keys.radiusMm * (keys.kind === "strips" ? STRIP_RADII / 2 : 1) + LINE_CLEAR_MM;
    this.beds = new Beds(skin, this.normals, BED_RADII * keys.radiusMm);
  }

  /** The vertex nearest to a place, by where its figures begin; null where the face is empty. */
  nearest([x, y, z]: readonly number[]): { readonly v: number; readonly awayMm: number } | null {
    const p = this.request.sections[this.s].skin.positions;
    let [best, least2] = [-1, Number.POSITIVE_INFINITY];
    for (let v = 0; v + 2 < p.length; v += 3) {
      const away2 = (p[v] - x) ** 2 + (p[v + 1] - y) ** 2 + (p[v + 2] - z) ** 2;
      if (away2 < least2) [best, least2] = [v, away2];
    }
    return best < 0 ? null : { v: best, awayMm: Math.sqrt(least2) };
  }

  /**
   * @param v where the vertex's figures begin
   * @param told all that speaks against it, or only the first, which is quicker
   */
  keyAt(v: number, told: "all" | "the first" = "all") {
    const { sections, lines, zones, jacketMm, giveMm, boardMm, keys } = this.request;
    const { skin, pull } = sections[this.s];
    const p = skin.positions;
    const at: [number, number, number] = [p[v], p[v + 1], p[v + 2]];
    const normal: [number, number, number] = [this.normals[v], this.normals[v + 1], this.normals[v + 2]];
    const biteMm = keyBiteMm(normal, pull, keys);
    // The way to the lines takes longest: it is measured last, and only where it is wanted.
    const toLine = once(() => nearestMm(lines, at));
    const checks: readonly (readonly [KeyTrouble, () => boolean])[] = [
      ["locks", () => biteMm > giveMm],
      ["board", () => boardMm !== null && at[2] - boardMm < this.clearMm],
      ["bent", () => !this.beds.isFlat(v)],
      ["zone", () => zones.some((zone) => inZone(zone, at, this.clearMm - LINE_CLEAR_MM + jacketMm))],
      ["line", () => toLine() < this.clearMm],
    ];
    const troubles: KeyTrouble[] = [];
    for (const [trouble, isSo] of checks) {
      if (!isSo()) continue;
      troubles.push(trouble);
      if (told === "the first") break;
    }
    return { at, normal, biteMm, toLine, troubles };
  }
}

/** A key's bed is looked at within so many of its radii. */
const BED_RADII = 1.5;
/** It is flat enough for a key where its normals, averaged, are no shorter than this: a spread of some 15 degrees. */
const FLAT_SHARE = 0.965;

/** Tells where the jacket is flat enough to glue a key on: not on corners, ridges and edges. */
class Beds {
  /** Vertices by cell, each by where its figures begin; cells of one number share a list, which only costs a look. */
  private readonly cells = new Map<number, number[]>();

  constructor(
    private readonly skin: TriangleMesh,
    private readonly normals: Float32Array,
    private readonly radiusMm: number,
  ) {
    const { positions: p } = skin;
    for (let v = 0; v + 2 < p.length; v += 3) {
      const cell = numberOf(this.along(p[v]), this.along(p[v + 1]), this.along(p[v + 2]));
      const held = this.cells.get(cell);
      if (held) held.push(v);
      else this.cells.set(cell, [v]);
    }
  }

  private along(mm: number): number {
    return Math.floor(mm / this.radiusMm);
  }

  /** @param v where the vertex's figures begin */
  isFlat(v: number): boolean {
    const { positions: p } = this.skin;
    const { normals } = this;
    const [i, j, k] = [this.along(p[v]), this.along(p[v + 1]), this.along(p[v + 2])];
    let [x, y, z, count] = [0, 0, 0, 0];
    for (let n = 0; n < 27; n++) {
      const near = this.cells.get(
        numberOf(i + (n % 3) - 1, j + (Math.floor(n / 3) % 3) - 1, k + Math.floor(n / 9) - 1),
      );
      for (const w of near ?? []) {
        const [dx, dy, dz] = [p[w] - p[v], p[w + 1] - p[v + 1], p[w + 2] - p[v + 2]];
        if (dx * dx + dy * dy + dz * dz > this.radiusMm ** 2) continue;
        count++;
        x += normals[w];
        y += normals[w + 1];
        z += normals[w + 2];
      }
    }
    return Math.hypot(x, y, z) >= FLAT_SHARE * count;
  }
}

/** Names a cell of space. */
function numberOf(i: number, j: number, k: number): number {
  return i * 73_856_093 + j * 19_349_663 + k * 83_492_791;
}

/** How deep a section presses into a key on its way out, mm. */
export function keyBiteMm(
  normal: readonly number[],
  pull: Direction,
  { heightMm, taperDeg }: Pick<JacketKeySettings, "heightMm" | "taperDeg">,
): number {
  const cosine = normal[0] * pull[0] + normal[1] * pull[1] + normal[2] * pull[2];
  if (cosine <= 1e-3) return Number.POSITIVE_INFINITY;
  const aslant = Math.sqrt(Math.max(0, 1 - cosine ** 2)) / cosine;
  return Math.max(0, heightMm * (aslant - Math.tan((taperDeg * Math.PI) / 180)));
}

/** A strip lies across the pull, so that the section slides over its side and not along it; of level pulls, level. */
function stripAlong(normal: readonly number[], pull: Direction): [number, number, number] {
  const helper: readonly number[] = Math.abs(pull[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const [nx, ny, nz] = normal;
  const way = [ny * helper[2] - nz * helper[1], nz * helper[0] - nx * helper[2], nx * helper[1] - ny * helper[0]];
  const length = Math.hypot(...way);
  return length > 1e-6 ? [way[0] / length, way[1] / length, way[2] / length] : [1, 0, 0];
}

function inZone(zone: readonly number[], at: readonly number[], moreMm: number): boolean {
  for (let k = 0; k + DAB_FIGURES <= zone.length; k += DAB_FIGURES) {
    const away = Math.hypot(at[0] - zone[k], at[1] - zone[k + 1], at[2] - zone[k + 2]);
    if (away < zone[k + DAB_FIGURES - 1] + moreMm) return true;
  }
  return false;
}

function nearestMm(lines: readonly { readonly points: Float32Array }[], [x, y, z]: readonly number[]): number {
  let least2 = Number.POSITIVE_INFINITY;
  for (const { points: q } of lines) {
    for (let k = 0; k < q.length; k += 3) {
      const away2 = (q[k] - x) ** 2 + (q[k + 1] - y) ** 2 + (q[k + 2] - z) ** 2;
      if (away2 < least2) least2 = away2;
    }
  }
  return Math.sqrt(least2);
}

/** The tray that they are cast in beforehand. */
export interface KeyTray {
  readonly count: number;
  readonly columns: number;
  readonly rows: number;
  /** Its sides, mm, and the silicone of all keys, mm3. */
  readonly sizeMm: readonly [number, number];
  readonly siliconeMm3: number;
}

/** Between two keys in the tray, mm. */
const TRAY_APART_MM = 12;

export function keyTray(count: number, { kind, radiusMm, heightMm, taperDeg }: JacketKeySettings): KeyTray {
  const top = Math.max(0, radiusMm - heightMm * Math.tan((taperDeg * Math.PI) / 180));
  // A frustum; a strip is a ridge with half of one at either end.
  const button = (Math.PI * heightMm * (radiusMm ** 2 + radiusMm * top + top ** 2)) / 3;
  const strip = button + (STRIP_RADII - 2) * radiusMm * heightMm * (radiusMm + top);
  const long = (kind === "strips" ? STRIP_RADII * radiusMm : 2 * radiusMm) + TRAY_APART_MM;
  const wide = 2 * radiusMm + TRAY_APART_MM;
  const columns = count === 0 ? 0 : Math.max(1, Math.round(Math.sqrt((count * wide) / long)));
  const rows = columns === 0 ? 0 : Math.ceil(count / columns);
  return {
    ...{ count, columns, rows },
    sizeMm: [columns * long + TRAY_APART_MM, rows * wide + TRAY_APART_MM],
    siliconeMm3: count * (kind === "strips" ? strip : button),
  };
}
