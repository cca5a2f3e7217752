/**
 * What of a mould stands on the board, drawn at 1:1: the piece, the jacket and its rim, the shell's foot, where walls meet the
 * board, the bolts that hold the foot, and the hole that the cast goes in by.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { perMesh } from "../mesh/perMesh.ts";
import {
  CHECK_BAR_MM,
  checkBar,
  type Drawing,
  mark,
  type Point,
  type SheetLine,
  type SheetText,
} from "../patterns/drawing.ts";
import { LEVEL, profileOf } from "../patterns/profile.ts";
import type { Wall } from "../walls/walls.ts";
import { EdgeBuckets } from "./edgeBuckets.ts";
import { areaOf, lengthOf, type Place, type Ring, ringsOutside } from "./offset.ts";
import type { FootSettings } from "./settings.ts";

export interface FootBolt {
  readonly at: Place;
}

/** The hole in the board, and the plug that closes it. */
export interface PourHole {
  readonly at: Place;
  readonly acrossMm: number;
}

export interface Footprint {
  readonly piece: readonly Ring[];
  /** The jacket's outside at the board. */
  readonly jacket: readonly Ring[];
  /** Outer edges of the jacket's rim and of the shell's foot. */
  readonly rim: readonly Ring[];
  readonly foot: readonly Ring[];
  readonly bolts: readonly FootBolt[];
  readonly pourHole: PourHole | null;
  /** The smallest board it stands on with room for hands, mm. */
  readonly boardMm: readonly [number, number];
}

export interface FootprintRequest {
  /** Null where its own outline is not asked for. */
  readonly piece: TriangleMesh | null;
  /** What the shell is laid on. */
  readonly jacket: TriangleMesh;
  readonly boardMm: number;
  /** Of the jacket along the board, mm. */
  readonly rimMm: number;
  readonly foot: FootSettings;
  /** No bolt stands under a flange. */
  readonly walls: readonly Wall[];
  /** Of a bolt, mm. */
  readonly boltMm: number;
  readonly flangeMm: number;
}

/** Just over the board: what stands on it is cut there, mm. */
export const OVER_BOARD_MM = 1;
/** Round the mould for hands and tools, mm. */
const HANDS_MM = 150;
/** Between a bolt and the face of a flange, in diameters of the bolt. */
const FLANGE_CLEAR = 2.5;
/** Rings shorter than this are crumbs of the scan, mm. */
const CRUMB_MM = 40;
/** A pour hole keeps so far within the piece's own outline, mm: what runs past it would run under the jacket. */
const HOLE_INSIDE_MM = 20;

export function footprintOf(request: FootprintRequest): Footprint {
  const { foot, rimMm } = request;
  const piece = request.piece ? ringsAt(request.piece, request.boardMm) : [];
  const jacket = ringsAt(request.jacket, request.boardMm);
  // The widest is measured first: what is nearer is read from it.
  const edge = foot.isFlanged ? ringsOutside(jacket, rimMm + foot.beyondMm) : [];
  const all = (edge.length > 0 ? edge : ringsOutside(jacket, rimMm)).flat();
  const across = (a: 0 | 1) => {
    const values = all.map((place) => place[a]);
    return all.length === 0 ? 0 : Math.max(...values) - Math.min(...values) + 2 * HANDS_MM;
  };
  return {
    ...{ piece, jacket },
    rim: ringsOutside(jacket, rimMm),
    foot: edge,
    bolts: foot.isFlanged && foot.isBolted ? footBolts(jacket, request) : [],
    pourHole: foot.pourHoleMm > 0 ? pourHoleIn(piece, foot.pourHoleMm) : null,
    boardMm: [across(0), across(1)],
  };
}

/** Outlines found before, by the height of the board: what is measured about them is kept with them. */
const ringsFound = perMesh((_mesh: TriangleMesh) => new Map<number, readonly Ring[]>());

/** The outlines of a body just over the board. */
export function ringsAt(mesh: TriangleMesh, boardMm: number): readonly Ring[] {
  const found = ringsFound(mesh);
  const rings =
    found.get(boardMm) ??
    profileOf([mesh], LEVEL, boardMm + OVER_BOARD_MM)
      .filter(({ points, closed }) => closed && lengthOf(points) >= CRUMB_MM)
      .map(({ points }) => points.map(([x, y]): Place => [x, y]));
  found.set(boardMm, rings);
  return rings;
}

export interface WallEnd {
  readonly at: Place;
  /** The way the wall stands out there, of length one. */
  readonly out: Place;
  /** Of the wall's rulings, the one it ends with. */
  readonly ruling: number;
}

/** Where walls end at the board. */
export function wallEnds(walls: readonly Pick<Wall, "foot" | "head" | "closed">[], boardMm: number): WallEnd[] {
  return walls.flatMap(({ foot, head, closed }) => {
    if (closed) return [];
    const last = foot.length / 3 - 1;
    return [0, last].flatMap((k) => {
      if (foot[3 * k + 2] - boardMm > END_MM) return [];
      const [x, y] = [head[3 * k] - foot[3 * k], head[3 * k + 1] - foot[3 * k + 1]];
      const length = Math.hypot(x, y);
      if (length < 1) return [];
      return [{ at: [foot[3 * k], foot[3 * k + 1]] as const, out: [x / length, y / length] as const, ruling: k }];
    });
  });
}

/** A wall ends at the board where its foot is no higher than this over it, mm. */
const END_MM = 12;

/** Bolts midway across what of the foot lies beyond the rim, evenly, no farther apart than the pitch, and clear of flanges. */
function footBolts(
  jacket: readonly Ring[],
  { rimMm, foot, walls, boardMm, boltMm, flangeMm }: FootprintRequest,
): FootBolt[] {
  const ends = wallEnds(walls, boardMm);
  const clearMm = flangeMm + FLANGE_CLEAR * boltMm;
  return ringsOutside(jacket, rimMm + foot.beyondMm / 2)
    .filter((ring) => areaOf(ring) > 0)
    .flatMap((ring) => {
      const count = Math.max(3, Math.ceil(lengthOf(ring) / foot.pitchMm));
      return evenly(ring, count).map((at) => ({ at: besideFlanges(at, ends, clearMm) }));
    });
}

function evenly(ring: Ring, count: number): Place[] {
  const whole = lengthOf(ring);
  const out: Place[] = [];
  let done = 0;
  ring.forEach(([x, y], k) => {
    const [px, py] = ring[(k + 1) % ring.length];
    const leg = Math.hypot(px - x, py - y);
    for (; out.length < count && ((out.length + 0.5) * whole) / count <= done + leg; ) {
      const share = (((out.length + 0.5) * whole) / count - done) / (leg || 1);
      out.push([x + share * (px - x), y + share * (py - y)]);
    }
    done += leg;
  });
  return out;
}

/** A place moved sideways until no flange stands over it. */
function besideFlanges(at: Place, ends: readonly WallEnd[], clearMm: number): Place {
  for (const end of ends) {
    const [x, y] = [at[0] - end.at[0], at[1] - end.at[1]];
    const along = x * end.out[0] + y * end.out[1];
    const side = end.out[0] * y - end.out[1] * x;
    if (along <= 0 || Math.abs(side) >= clearMm) continue;
    const by = (side >= 0 ? clearMm : -clearMm) - side;
    return [at[0] - by * end.out[1], at[1] + by * end.out[0]];
  }
  return at;
}

/** The place farthest inside the piece's outline, with a hole no larger than fits there; null where none fits. */
function pourHoleIn(piece: readonly Ring[], wantedMm: number): PourHole | null {
  const all = piece.flat();
  if (all.length === 0) return null;
  const low = [0, 1].map((a) => Math.min(...all.map((place) => place[a])));
  const high = [0, 1].map((a) => Math.max(...all.map((place) => place[a])));
  const edges = new EdgeBuckets(piece);
  let [best, deepest]: [Place, number] = [[0, 0], 0];
  for (let i = 1; i < TRIES; i++) {
    for (let j = 1; j < TRIES; j++) {
      const at: Place = [low[0] + ((high[0] - low[0]) * i) / TRIES, low[1] + ((high[1] - low[1]) * j) / TRIES];
      const { mm } = edges.nearest(at);
      if (-mm > deepest) [best, deepest] = [at, -mm];
    }
  }
  const acrossMm = Math.min(wantedMm, 2 * (deepest - HOLE_INSIDE_MM));
  return acrossMm < LEAST_HOLE_MM ? null : { at: best, acrossMm: Math.floor(acrossMm) };
}

/** Places tried both ways; a smaller hole takes no funnel, mm. */
const TRIES = 40;
const LEAST_HOLE_MM = 20;

const TITLE_MM = 4;
const LABEL_MM = 3.5;
const ROUND_MM = 10;
const CROSS_MM = 6;

export interface FootprintWords {
  readonly title: string;
  readonly piece: string;
  readonly jacket: string;
  readonly rim: string;
  readonly foot: string;
  readonly pourHole: string;
}

/** The footprint as it is laid under the work: outlines to draw, holes to drill, and which flange meets the board where. */
export function footprintDrawing(
  footprint: Footprint,
  walls: readonly Wall[],
  boardMm: number,
  boltMm: number,
  words: FootprintWords,
): Drawing {
  const { piece, jacket, rim, foot, bolts, pourHole } = footprint;
  const outlines: readonly (readonly [string, readonly Ring[], SheetLine["layer"]])[] = [
    [words.piece, piece, "mark"],
    [words.jacket, jacket, "mark"],
    [words.rim, rim, "mark"],
    [words.foot, foot, "cut"],
  ];
  const all = outlines.flatMap(([, rings]) => rings.flat());
  if (all.length === 0) return { widthMm: 0, heightMm: 0, lines: [], circles: [], texts: [] };
  const low = [0, 1].map((a) => Math.min(...all.map((place) => place[a])));
  const high = [0, 1].map((a) => Math.max(...all.map((place) => place[a])));
  const up = CHECK_BAR_MM + TITLE_MM + 3 * ROUND_MM;
  const at = ([x, y]: Place): Point => [x - low[0] + ROUND_MM, y - low[1] + up];
  const lines = outlines.flatMap(([, rings, layer]) =>
    rings.map((ring): SheetLine => ({ layer, points: ring.map(at), closed: true })),
  );
  // Each name at another side of its outline, so that they lie clear of each other.
  const names = outlines.flatMap(([text, rings], n) =>
    rings.slice(0, 1).map((ring): SheetText => ({ at: at(farthestTowards(ring, n)), text, heightMm: LABEL_MM })),
  );
  const flanges = wallEnds(walls, boardMm).map(({ at: place, out }) =>
    mark([at(place), at([place[0] + FLANGE_DRAWN_MM * out[0], place[1] + FLANGE_DRAWN_MM * out[1]])]),
  );
  const cross = (place: Place) => [
    mark([at([place[0] - CROSS_MM, place[1]]), at([place[0] + CROSS_MM, place[1]])]),
    mark([at([place[0], place[1] - CROSS_MM]), at([place[0], place[1] + CROSS_MM])]),
  ];
  const hole = pourHole && { layer: "cut" as const, at: at(pourHole.at), radiusMm: pourHole.acrossMm / 2 };
  return {
    widthMm: high[0] - low[0] + 3 * ROUND_MM,
    heightMm: high[1] - low[1] + up + ROUND_MM,
    lines: [
      ...lines,
      ...flanges,
      ...bolts.flatMap((bolt) => cross(bolt.at)),
      ...(pourHole ? cross(pourHole.at) : []),
      ...checkBar([ROUND_MM, 2 * ROUND_MM + TITLE_MM]),
    ],
    circles: [
      ...bolts.map((bolt) => ({ layer: "cut" as const, at: at(bolt.at), radiusMm: boltMm / 2 })),
      ...(hole ? [hole] : []),
    ],
    texts: [
      { at: [0, ROUND_MM / 2], text: words.title, heightMm: TITLE_MM },
      ...names,
      ...bolts.map(
        (bolt, k): SheetText => ({
          at: at([bolt.at[0] + CROSS_MM, bolt.at[1] + CROSS_MM / 2]),
          text: String(k + 1),
          heightMm: LABEL_MM,
        }),
      ),
      ...(pourHole
        ? [{ at: at([pourHole.at[0] + CROSS_MM, pourHole.at[1] + CROSS_MM]), text: words.pourHole, heightMm: LABEL_MM }]
        : []),
    ],
  };
}

/** A flange is drawn so far out from the jacket where it meets the board, mm. */
const FLANGE_DRAWN_MM = 60;

/** The point of a ring that lies farthest down, turned by a tenth of a circle for each that came before. */
function farthestTowards(ring: Ring, before: number): Place {
  const turn = (2 * Math.PI * before) / 10 - Math.PI / 2;
  const along = ([x, y]: Place) => x * Math.cos(turn) + y * Math.sin(turn);
  return ring.reduce((best, place) => (along(place) > along(best) ? place : best));
}
