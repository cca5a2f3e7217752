/** The name of the piece, raised under the number of a section: letters of straight strokes that follow the shell's face. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Solid, Solids } from "./kernel.ts";
import { awayMm, type NumberPlace, uprightOn, type Xyz } from "./number.ts";

/** Letters as polylines over four columns and six rows: a pair of digits a corner, right and up. */
const STROKES: Readonly<Record<string, string>> = {
  A: "002640 1232",
  B: "000636454433 334241300003",
  C: "45361605011030 3041",
  D: "00062644422000",
  E: "40000646 0333",
  F: "000646 0333",
  G: "453616050110304143 4323",
  H: "0006 4046 0343",
  I: "2026",
  J: "4641301001",
  K: "0006 460340",
  L: "060040",
  M: "0006234640",
  N: "00064046",
  O: "100105163645413010",
  P: "00063645443303",
  Q: "100105163645413010 2240",
  R: "00063645443303 2340",
  S: "0110304142331304051636 3645",
  T: "2026 0646",
  U: "060110304146",
  V: "062046",
  W: "0610233046",
  X: "0046 0640",
  Y: "062346 2320",
  Z: "06460040",
  "0": "100105163645413010",
  "1": "152620",
  "2": "05163645440040",
  "3": "051636454433 1333 3342413010 1001",
  "4": "30360242",
  "5": "460604344341301001",
  "6": "3616050110304142331303",
  "7": "064610",
  "8": "130405163645443313 130201103041423313",
  "9": "43130405163645413010",
  "-": "1333",
};

/** Letters are as high as this share of the number's figures, between these, mm. */
const SHARE = 0.34;
const [HIGHEST_MM, LOWEST_MM] = [13, 8];
/** A letter is four of six rows wide, and stands so far from the next, in heights. */
const WIDE = 4 / 6;
const GAP = 0.3;
/** Half as wide as a stroke, in heights. */
const HALF_STROKE = 0.075;
/** A name is cut off at a word after so many letters. */
const MOST_LETTERS = 16;
/** It stands so far under the number, in the number's heights, and keeps so far off edges and what lies over the section, mm. */
const UNDER = 0.95;
const CLEAR_MM = 14;
/** Letters stand out of the shell by so much, and go into it by this share of its thickness. */
const RAISED_MM = 2;
const SUNK_SHARE = 0.7;
/** A face that falls away by more than this from where the number is, or turns from it by more, holds no name, mm, cosine. */
const FALLS_MM = 20;
const TURNS = 0.7;

export interface LetterPlace {
  readonly letter: string;
  /** The middle of its foot, on the section's inner face, and out of that. */
  readonly at: Xyz;
  readonly normal: Xyz;
  readonly heightMm: number;
}

/** A name in the letters that there are: upper case, without accents, cut off at a word. */
export function lettersOf(name: string): string {
  const plain = name
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toUpperCase()
    .replace(/[^A-Z0-9-]+/g, " ")
    .trim();
  if (plain.length <= MOST_LETTERS) return plain;
  const cut = plain.slice(0, MOST_LETTERS + 1);
  const end = cut.lastIndexOf(" ");
  return (end > 0 ? cut.slice(0, end) : cut.slice(0, MOST_LETTERS)).trim();
}

/**
 * Where the letters of a name stand under a section's number, along its face.
 * @param clear lines and ribs that they keep off, xyz per point each
 * @returns none where there is no room for all of them
 */
export function letterPlaces(
  skin: TriangleMesh,
  clear: readonly ArrayLike<number>[],
  lowMm: number | null,
  name: string,
  number: NumberPlace,
): LetterPlace[] {
  const text = lettersOf(name);
  for (const heightMm of [Math.min(HIGHEST_MM, SHARE * number.heightMm), LOWEST_MM]) {
    const places = heightMm >= LOWEST_MM ? placesAt(skin, clear, lowMm, text, number, heightMm) : null;
    if (places) return places;
  }
  return [];
}

function placesAt(
  skin: TriangleMesh,
  clear: readonly ArrayLike<number>[],
  lowMm: number | null,
  text: string,
  { at, normal, heightMm: figureMm }: NumberPlace,
  heightMm: number,
): LetterPlace[] | null {
  const [right, up] = uprightOn(normal);
  const pitchMm = heightMm * (WIDE + GAP);
  const downMm = -(UNDER * figureMm + heightMm);
  const near = nearestVertex(skin, at, (text.length / 2 + 2) * pitchMm + Math.abs(downMm) + FALLS_MM);
  const places: LetterPlace[] = [];
  for (let k = 0; k < text.length; k++) {
    const along = (k - (text.length - 1) / 2) * pitchMm;
    const target = [0, 1, 2].map((a) => at[a] + along * right[a] + downMm * up[a]) as Xyz;
    const found = near(target);
    if (!found) return null;
    const off = [0, 1, 2].reduce((sum, a) => sum + (target[a] - found.at[a]) * found.normal[a], 0);
    const on = target.map((x, a) => x - off * found.normal[a]) as Xyz;
    const turned = found.normal[0] * normal[0] + found.normal[1] * normal[1] + found.normal[2] * normal[2];
    const aside = Math.hypot(...on.map((x, a) => x - found.at[a]));
    // Beyond the section's edge the nearest of it lies aside.
    if (Math.abs(off) > FALLS_MM || turned < TURNS || aside > found.spacingMm) return null;
    if (lowMm !== null && on[2] < lowMm + heightMm) return null;
    if (clear.some((points) => awayMm(points, on) < CLEAR_MM + heightMm)) return null;
    if (text[k] !== " ") places.push({ letter: text[k], at: on, normal: found.normal, heightMm });
  }
  return places;
}

interface Found {
  readonly at: Xyz;
  readonly normal: Xyz;
  /** How far a place on the face can be from the nearest vertex, mm. */
  readonly spacingMm: number;
}

/** The nearest vertex of a mesh to a place, of those no farther than a reach from the middle. */
function nearestVertex(mesh: TriangleMesh, middle: readonly number[], reachMm: number): (place: Xyz) => Found | null {
  const { positions: p, triangles: t } = mesh;
  const { normals } = vertexNormals(mesh);
  const within = (v: number) => Math.hypot(p[v] - middle[0], p[v + 1] - middle[1], p[v + 2] - middle[2]) <= reachMm;
  const vertices = Array.from({ length: p.length / 3 }, (_, k) => 3 * k).filter(within);
  let longest = 0;
  for (let k = 0; k < t.length; k += 3) {
    const [a, b] = [3 * t[k], 3 * t[k + 1]];
    if (within(a)) longest = Math.max(longest, Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]));
  }
  return ([x, y, z]) => {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    for (const v of vertices) {
      const away = (p[v] - x) ** 2 + (p[v + 1] - y) ** 2 + (p[v + 2] - z) ** 2;
      if (away < least) [least, best] = [away, v];
    }
    if (best < 0) return null;
    const of = (values: ArrayLike<number>): Xyz => [values[best], values[best + 1], values[best + 2]];
    return { at: of(p), normal: of(normals), spacingMm: longest };
  };
}

/**
 * The letters as one body that stands in the shell; null where there are none.
 * @param thicknessMm of the shell at each
 */
export function lettersSolid(
  solids: Solids,
  places: readonly LetterPlace[],
  thicknessMm: (place: LetterPlace) => number,
): Solid | null {
  const strokes = places.flatMap((place) => {
    const { letter, at, normal, heightMm } = place;
    const shellMm = thicknessMm(place);
    const [right, up] = uprightOn(normal);
    return segmentsOf(letter).map((segment) =>
      solids.hull(
        [shellMm * (1 - SUNK_SHARE), shellMm + RAISED_MM].flatMap((out) =>
          outlineOf(segment).map(
            ([x, y]) => [0, 1, 2].map((a) => at[a] + heightMm * (x * right[a] + y * up[a]) + out * normal[a]) as Xyz,
          ),
        ),
      ),
    );
  });
  return strokes.length > 0 ? solids.union(strokes) : null;
}

type Segment = readonly [readonly [number, number], readonly [number, number]];

/** The straight strokes of a letter, in heights, its foot in the middle. */
export function segmentsOf(letter: string): Segment[] {
  return (STROKES[letter] ?? "").split(" ").flatMap((line) => {
    const corners = Array.from({ length: Math.floor(line.length / 2) }, (_, k): [number, number] => [
      (Number(line[2 * k]) - 2) / 6,
      Number(line[2 * k + 1]) / 6,
    ]);
    return corners.slice(1).map((corner, k): Segment => [corners[k], corner]);
  });
}

/** The four corners of a stroke: it reaches half its width beyond its ends, so that strokes join. */
function outlineOf([[ax, ay], [bx, by]]: Segment): [number, number][] {
  const long = Math.hypot(bx - ax, by - ay);
  const [x, y] = [((bx - ax) / long) * HALF_STROKE, ((by - ay) / long) * HALF_STROKE];
  return [
    [ax - x - y, ay - y + x],
    [ax - x + y, ay - y - x],
    [bx + x + y, by + y - x],
    [bx + x - y, by + y + x],
  ];
}
