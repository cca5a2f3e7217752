/**
 * The foot of the shell along the board, divided among the sections as the walls divide them: on a raster over the board every
 * place goes with the nearest place of the jacket's outline, but beside a flange with the side of it that it is on.
 */
import type { AlongWall } from "../flange/along.ts";
import { type WallEnd, wallEnds } from "../foot/footprint.ts";
import { placeOf, type Ring, ringsAbove, ringsOutside, surroundingsOf } from "../foot/offset.ts";
import type { Solid, Solids } from "./kernel.ts";

export interface FootBody {
  /** The jacket's outline at the board, and how wide its rim is, mm. */
  readonly outline: readonly Ring[];
  readonly rimMm: number;
  readonly jacketMm: number;
  /** How far the foot reaches beyond the rim; null where the shell ends on the rim, mm. */
  readonly beyondMm: number | null;
  /** At its thickest. */
  readonly thickMm: number;
  readonly boardMm: number;
  readonly bolts: readonly { readonly at: readonly [number, number] }[];
}

/** The jacket's rim as a body; null where it has none. */
export function rimSolid(solids: Solids, { outline, rimMm, jacketMm, boardMm }: FootBody): Solid | null {
  if (rimMm <= 0) return null;
  return solids.extruded(ringsOutside(outline, rimMm), boardMm - BELOW_MM, boardMm + jacketMm);
}

/** Bodies reach so far below the board, mm: what is below it is cut off. */
const BELOW_MM = 1;

/** The whole foot over the rim and the board, so far beyond the rim, and so thick. */
export function footSolid(
  solids: Solids,
  { outline, rimMm, jacketMm, boardMm }: FootBody,
  beyondMm: number,
  thickMm: number,
): Solid {
  surroundingsOf(outline, rimMm + beyondMm + SPARE_MM);
  const over = (mm: number, toMm: number) => solids.extruded(ringsOutside(outline, mm), boardMm - BELOW_MM, toMm);
  const onBoard = over(rimMm + beyondMm, boardMm + thickMm);
  if (rimMm <= 0) return onBoard;
  return solids.union([onBoard, over(rimMm + thickMm, boardMm + jacketMm + thickMm)]);
}

/**
 * The space over the board of every section, in their order.
 * @param sectionAt the section whose face a place of the outline belongs to, counted from 0
 */
export function footSpaces(
  solids: Solids,
  { outline, rimMm, jacketMm, beyondMm, thickMm, boardMm }: FootBody,
  walls: readonly AlongWall[],
  sections: number,
  sectionAt: (x: number, y: number) => number,
): Solid[] {
  const reachMm = rimMm + (beyondMm ?? 0) + SPARE_MM;
  const { raster, nearest } = surroundingsOf(outline, reachMm);
  const owners = outline.map((ring) => ring.map(([x, y]) => sectionAt(x, y)));
  const ends = walls.flatMap((along) =>
    wallEnds([along.wall], boardMm).map((end) => ({
      ...end,
      ring: ringOf(outline, end),
      leftward: leftOf(along, end),
      sections: along.wall.sections,
    })),
  );
  const count = raster.size[0] * raster.size[1];
  const own = new Int16Array(count);
  const sureMm = new Float64Array(count);
  for (let n = 0; n < count; n++) {
    const place = placeOf(raster, n);
    const { mm, ring, point } = nearest[n];
    own[n] = owners[ring]?.[point] ?? 0;
    sureMm[n] = SURE_MM;
    if (mm > reachMm + SPARE_MM) continue;
    let least = Number.POSITIVE_INFINITY;
    for (const {
      at,
      out,
      ring: endsAt,
      leftward,
      sections: [left, right],
    } of ends) {
      const [x, y] = [place[0] - at[0], place[1] - at[1]];
      const along = x * out[0] + y * out[1];
      // Nothing about another leg, nor beyond the foot.
      if (endsAt !== ring || along > reachMm + SPARE_MM) continue;
      const side = leftward * (out[0] * y - out[1] * x);
      if (along < -INTO_MM || Math.abs(side) > BESIDE_MM + CONE * Math.max(0, along) || Math.abs(side) >= least)
        continue;
      if (own[n] !== left - 1 && own[n] !== right - 1) continue;
      least = Math.abs(side);
      own[n] = (side >= 0 ? left : right) - 1;
      sureMm[n] = Math.max(LEAST_MM, Math.min(SURE_MM, least));
    }
  }
  return Array.from({ length: sections }, (_, s) => {
    const values = Array.from(own, (owner, n) => (owner === s ? sureMm[n] : -sureMm[n]));
    const rings = ringsAbove(raster, values);
    return solids.extruded(rings, boardMm - 2 * BELOW_MM, boardMm + jacketMm + 2 * thickMm + SPARE_MM);
  });
}

/** Beyond the foot the spaces reach so far, mm. */
const SPARE_MM = 12;
/** A flange decides so far beside it, mm, and farther out so much more, as a share; into the jacket by so many mm. */
const BESIDE_MM = 25;
const CONE = 0.6;
const INTO_MM = 10;
/** A place is no surer of its section than this, mm, and nowhere less. */
const SURE_MM = 25;
const LEAST_MM = 1e-3;

/** The ring of the outline that a wall ends at, by its place among them. */
function ringOf(outline: readonly Ring[], { at }: WallEnd): number {
  const awayMm = outline.map((ring) => Math.min(...ring.map(([x, y]) => Math.hypot(x - at[0], y - at[1]))));
  return awayMm.indexOf(Math.min(...awayMm));
}

/** 1 where the wall's left lies to the left of the way it stands out, seen from above; else -1. */
function leftOf(along: AlongWall, { out, ruling }: WallEnd): number {
  const normal = along.normal(along.alongMm[ruling]);
  return out[0] * normal[1] - out[1] * normal[0] >= 0 ? 1 : -1;
}
