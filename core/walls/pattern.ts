/** Wall patterns: every wall laid flat at 1:1, with all that a hand needs to cut it, bend it and set it where it belongs. */
import { cross, type Direction, dot, normalised } from "../space/directions.ts";
import { curveLengthMm, unrolled, withoutOverlap } from "./unroll.ts";
import { RULING_MM } from "./wallGround.ts";
import type { Wall } from "./walls.ts";

type Point = readonly [number, number];

/** A stretch across the wall, at one of its rulings, from foot to head. */
export interface Ruled {
  readonly foot: Point;
  readonly head: Point;
}

/** A piece of a wall: what is cut out of one sheet. x to the right, y up, mm; it fits into width and height from 0. */
export interface PatternPiece {
  /** The edge on the jacket and the outer edge, from the wall's beginning to its end. */
  readonly foot: readonly Point[];
  readonly head: readonly Point[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly areaMm2: number;
  /** Where it begins and ends, mm along the wall's foot. */
  readonly fromMm: number;
  readonly toMm: number;
  /** Every so often along the foot, mm from the wall's beginning: the same on drill maps and on the neighbours. */
  readonly running: readonly (Ruled & { readonly mm: number })[];
  /** Where the wall turns: across it, with the angle it turns by there; above 0 towards the one who looks at the pattern. */
  readonly bends: readonly (Ruled & { readonly deg: number })[];
  /** From where to where is up, as it will stand; null where that is square to the wall. */
  readonly up: readonly [Point, Point] | null;
}

export interface WallPattern {
  /** Number of the wall, from one. */
  readonly number: number;
  /** Number of the section whose side is seen. */
  readonly seenFrom: number;
  readonly sections: readonly [number, number];
  /** The lines' length on the jacket, and the pattern's, mm. */
  readonly lengthMm: number;
  readonly patternLengthMm: number;
  readonly areaMm2: number;
  /** What its ends meet, first and last: a letter that walls share that meet there, or the board. Null where it is closed. */
  readonly ends: readonly [string, string] | null;
  readonly pieces: readonly PatternPiece[];
}

/** Running marks stand so far apart, mm. */
const MARK_MM = 50;
/** A wall that turns by no more than this over a mark's distance needs no bend mark, degrees. */
const BEND_DEG = 5;
/** Ends this near each other meet, mm. */
const MEETS_MM = 2;
/** Pieces are turned to lie in the smallest box, tried every so many degrees. */
const TURN_DEG = 3;

/** @param boardMm height of the board; null where the piece floats */
export function patternsOf(walls: readonly Wall[], boardMm: number | null): WallPattern[] {
  const letters = junctionLetters(walls, boardMm);
  return walls.map((wall, w) => {
    const flat = unrolled(wall);
    const pieces = withoutOverlap(flat).map(({ from, to }) => pieceOf(wall, flat.foot, flat.head, from, to));
    return {
      number: w + 1,
      // The head is laid to the left of the foot, so what is seen is the side on the right of the line.
      seenFrom: wall.sections[1],
      sections: wall.sections,
      lengthMm: curveLengthMm(wall.foot, 3),
      patternLengthMm: curveLengthMm(flat.foot, 2),
      areaMm2: pieces.reduce((sum, piece) => sum + piece.areaMm2, 0),
      ends: letters[w],
      pieces,
    };
  });
}

/** A letter for every place where walls meet, in the order of the walls. */
function junctionLetters(walls: readonly Wall[], boardMm: number | null): (readonly [string, string] | null)[] {
  const known: { readonly at: Float64Array; readonly letter: string }[] = [];
  const letterAt = (at: Float64Array): string => {
    if (boardMm !== null && Math.abs(at[2] - boardMm) < 1e-3) return "board";
    const met = known.find((other) => Math.hypot(...at.map((v, a) => v - other.at[a])) < MEETS_MM);
    if (met) return met.letter;
    const letter = lettersOf(known.length);
    known.push({ at, letter });
    return letter;
  };
  return walls.map(({ foot, closed }) =>
    closed ? null : [letterAt(foot.subarray(0, 3)), letterAt(foot.subarray(foot.length - 3))],
  );
}

/** A, B … Z, AA, AB … */
function lettersOf(n: number): string {
  return (n >= 26 ? lettersOf(Math.floor(n / 26) - 1) : "") + String.fromCharCode(65 + (n % 26));
}

function areaOf(foot: Float64Array, head: Float64Array): number {
  let twice = 0;
  const count = foot.length / 2;
  const corner = (n: number): Point =>
    n < count ? [foot[2 * n], foot[2 * n + 1]] : [head[2 * (2 * count - 1 - n)], head[2 * (2 * count - 1 - n) + 1]];
  for (let n = 0; n < 2 * count; n++) {
    const [x, y] = corner(n);
    const [u, v] = corner((n + 1) % (2 * count));
    twice += x * v - u * y;
  }
  return Math.abs(twice) / 2;
}

function pieceOf(wall: Wall, foot: Float64Array, head: Float64Array, from: number, to: number): PatternPiece {
  const laid = laidSmall(foot, head, from, to);
  const at = (k: number): Ruled => ({ foot: laid.place(foot, k), head: laid.place(head, k) });
  const rulings = Array.from({ length: to - from + 1 }, (_, k) => from + k);
  const lengths = lengthsAlong(foot);
  const alongMm = (k: number) => lengths[k];
  const fromMm = alongMm(from);
  const toMm = alongMm(to);
  return {
    foot: rulings.map((k) => at(k).foot),
    head: rulings.map((k) => at(k).head),
    widthMm: laid.widthMm,
    heightMm: laid.heightMm,
    areaMm2: areaOf(foot.subarray(2 * from, 2 * to + 2), head.subarray(2 * from, 2 * to + 2)),
    fromMm,
    toMm,
    running: runningMarks(foot, rulings, alongMm, at),
    bends: bendsOf(wall, from, to).map(({ k, deg }) => ({ ...at(k), deg })),
    up: upOn(wall, laid, foot, head, Math.floor((from + to) / 2)),
  };
}

/** Length of a flat curve to each of its places, mm. */
function lengthsAlong(foot: Float64Array): Float64Array {
  const out = new Float64Array(foot.length / 2);
  for (let k = 1; k < out.length; k++)
    out[k] = out[k - 1] + Math.hypot(foot[2 * k] - foot[2 * k - 2], foot[2 * k + 1] - foot[2 * k - 1]);
  return out;
}

/** How a piece is laid on its sheet: turned to the smallest box, its lower left corner at 0. */
interface Laid {
  readonly widthMm: number;
  readonly heightMm: number;
  place(points: Float64Array, k: number): Point;
}

function laidSmall(foot: Float64Array, head: Float64Array, from: number, to: number): Laid {
  let best: Laid | null = null;
  for (let deg = 0; deg < 180; deg += TURN_DEG) {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const points of [foot, head]) {
      for (let k = from; k <= to; k++) {
        const x = c * points[2 * k] - s * points[2 * k + 1];
        const y = s * points[2 * k] + c * points[2 * k + 1];
        [x0, x1, y0, y1] = [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)];
      }
    }
    const [widthMm, heightMm] = [x1 - x0, y1 - y0];
    // Long pieces lie across the sheet.
    if (widthMm < heightMm || (best && widthMm * heightMm >= best.widthMm * best.heightMm)) continue;
    best = {
      widthMm,
      heightMm,
      place: (p, k) => [c * p[2 * k] - s * p[2 * k + 1] - x0, s * p[2 * k] + c * p[2 * k + 1] - y0],
    };
  }
  if (!best) throw new Error("A piece of a wall has no place to lie.");
  return best;
}

/** Marks at whole distances along the foot. */
function runningMarks(
  foot: Float64Array,
  rulings: readonly number[],
  alongMm: (k: number) => number,
  at: (k: number) => Ruled,
): (Ruled & { mm: number })[] {
  const out: (Ruled & { mm: number })[] = [];
  let mm = alongMm(rulings[0]);
  for (const k of rulings.slice(0, -1)) {
    const leg = Math.hypot(foot[2 * k + 2] - foot[2 * k], foot[2 * k + 3] - foot[2 * k + 1]);
    const next = MARK_MM * Math.ceil((mm + 1e-9) / MARK_MM);
    if (next <= mm + leg && leg > 0) {
      const share = (next - mm) / leg;
      const [a, b] = [at(k), at(k + 1)];
      const between = (p: Point, q: Point): Point => [p[0] + share * (q[0] - p[0]), p[1] + share * (q[1] - p[1])];
      out.push({ foot: between(a.foot, b.foot), head: between(a.head, b.head), mm: next });
    }
    mm += leg;
  }
  return out;
}

/**
 * By how much the wall turns about its rulings over every mark's distance, told at the ruling where it does: in the middle
 * of an even bend, at the very fold of a sharp one.
 */
function bendsOf({ foot, head }: Wall, from: number, to: number): { k: number; deg: number }[] {
  const rulings = Math.round(MARK_MM / RULING_MM);
  const out: { k: number; deg: number }[] = [];
  for (let first = from; first + 1 < to; first += rulings) {
    const last = Math.min(first + rulings, to - 1);
    let [turned, weighed] = [0, 0];
    for (let k = first + 1; k <= last; k++) {
      const deg = Math.abs(turnDeg(foot, head, k - 1, k, k));
      turned += deg;
      weighed += deg * k;
    }
    const deg = turnDeg(foot, head, first, last, Math.floor((first + last) / 2));
    if (Math.abs(deg) > BEND_DEG && turned > 0) out.push({ k: Math.round(weighed / turned), deg });
  }
  return out;
}

/** By how much the wall turns between two of its faces, degrees; its sign about a ruling. */
function turnDeg(foot: Float64Array, head: Float64Array, from: number, to: number, ruling: number): number {
  const [before, after] = [facing(foot, head, from), facing(foot, head, to)];
  const turn = cross(before, after);
  const side = Math.sign(dot(turn, between(foot, ruling, head, ruling)));
  return (side * Math.atan2(Math.hypot(...turn), dot(before, after)) * 180) / Math.PI;
}

/** Where the wall faces between a ruling and the next, of length one: to the side that is seen on the pattern. */
function facing(foot: Float64Array, head: Float64Array, k: number): Direction {
  return normalised(cross(between(foot, k, foot, k + 1), between(foot, k, head, k)));
}

/** The way from one place of a curve to one of another, mm. */
function between(a: Float64Array, i: number, b: Float64Array, j: number): Direction {
  return [b[3 * j] - a[3 * i], b[3 * j + 1] - a[3 * i + 1], b[3 * j + 2] - a[3 * i + 2]];
}

/** Length of the arrow that says where up is, mm; as far as the wall is wide there. */
const ARROW_MM = 25;

function upOn(
  wall: Wall,
  laid: Laid,
  foot: Float64Array,
  head: Float64Array,
  k: number,
): readonly [Point, Point] | null {
  const [from, to] = [3 * k, 3 * k + 3];
  const width = wall.widthsMm[k];
  const leg = Math.hypot(...[0, 1, 2].map((a) => wall.foot[to + a] - wall.foot[from + a]));
  if (width < 1e-6 || leg < 1e-6) return null;
  // How much of up lies along the line and along the ruling: these two are square to each other.
  const along = (wall.foot[to + 2] - wall.foot[from + 2]) / leg;
  const out = (wall.head[from + 2] - wall.foot[from + 2]) / width;
  const length = Math.hypot(along, out);
  if (length < 0.1) return null;
  const [f, g, h] = [laid.place(foot, k), laid.place(foot, k + 1), laid.place(head, k)];
  const middle: Point = [(f[0] + h[0]) / 2, (f[1] + h[1]) / 2];
  const reach = Math.min(ARROW_MM, width / 2) / length;
  const way = [0, 1].map((a) => (along * (g[a] - f[a])) / leg + (out * (h[a] - f[a])) / width);
  return [
    [middle[0] - (reach * way[0]) / 2, middle[1] - (reach * way[1]) / 2],
    [middle[0] + (reach * way[0]) / 2, middle[1] + (reach * way[1]) / 2],
  ];
}
