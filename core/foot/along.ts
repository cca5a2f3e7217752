/** How far sections' faces stand along the board, and how much of the board lies about them: what their feet are measured by. */
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** Where a section's face stands on the board: from and to of every bit, x and y, mm, 4 a bit. */
type Bits = readonly number[];

/** @param nearMm open edges no higher than this over the board stand on it, mm */
function bitsOn(skin: TriangleMesh, boardMm: number, nearMm: number): Bits {
  const { positions: p, triangles: t } = skin;
  const { across } = adjacencyOf(skin);
  const bits: number[] = [];
  for (let e = 0; e < t.length; e++) {
    if (across[e] !== OPEN) continue;
    const [a, b] = [3 * t[e], 3 * t[3 * Math.floor(e / 3) + ((e + 1) % 3)]];
    if (Math.max(p[a + 2], p[b + 2]) - boardMm > nearMm) continue;
    bits.push(p[a], p[a + 1], p[b], p[b + 1]);
  }
  return bits;
}

export interface AlongBoard {
  /** How far every section stands along the board, mm. */
  readonly lengthsMm: readonly number[];
  /** Of every section, the board about it at 0, 10, 20 ... mm from the jacket, mm2. */
  readonly areasMm2: readonly (readonly number[])[];
}

/** Areas are kept at widths so far apart, up to the greatest, mm. */
const FOOT_STEP_MM = 10;
const MOST_FOOT_MM = 300;
/** Places on the board are no nearer to each other than this, mm, and so many on a side at most. */
const RASTER_MM = 6;
const MOST_PLACES = 140;

/**
 * Every place of the board goes with the nearest bit of what stands on it: feet that meet are counted once.
 * @param nearMm open edges of a skin no higher than this over the board stand on it, mm
 */
export function alongBoard(skins: readonly TriangleMesh[], boardMm: number, nearMm: number): AlongBoard {
  const bits = skins.map((skin) => bitsOn(skin, boardMm, nearMm));
  const lengthsMm = bits.map((own) => {
    let mm = 0;
    for (let k = 0; k < own.length; k += 4) mm += Math.hypot(own[k] - own[k + 2], own[k + 1] - own[k + 3]);
    return mm;
  });
  const steps = MOST_FOOT_MM / FOOT_STEP_MM;
  const areasMm2 = bits.map(() => new Float64Array(steps + 1));
  const all = bits.flat();
  const [low, high] = [0, 1].map((side) =>
    [0, 1].map((axis) => {
      let most = side === 0 ? Infinity : -Infinity;
      for (let k = axis; k < all.length; k += 2) most = side === 0 ? Math.min(most, all[k]) : Math.max(most, all[k]);
      return most + (side === 0 ? -MOST_FOOT_MM : MOST_FOOT_MM);
    }),
  );
  if (all.length === 0) return { lengthsMm, areasMm2: areasMm2.map(() => []) };
  const cellMm = Math.max(RASTER_MM, Math.max(high[0] - low[0], high[1] - low[1]) / MOST_PLACES);
  for (let y = low[1] + cellMm / 2; y < high[1]; y += cellMm) {
    for (let x = low[0] + cellMm / 2; x < high[0]; x += cellMm) {
      if (isWithin(all, x, y)) continue;
      const { section, mm } = nearestOf(bits, x, y);
      // What lies nearer than a width is within it: shared out evenly over the place's own size.
      for (let n = Math.max(0, Math.ceil((mm - cellMm / 2) / FOOT_STEP_MM)); n <= steps; n++)
        areasMm2[section][n] += cellMm ** 2 * Math.min(1, (n * FOOT_STEP_MM - mm) / cellMm + 0.5);
    }
  }
  return { lengthsMm, areasMm2: areasMm2.map((areas) => Array.from(areas)) };
}

/** Is a place within what stands on the board? By how often a ray from it crosses its outline (Shimrat 1962). */
function isWithin(bits: Bits, x: number, y: number): boolean {
  let crossings = 0;
  for (let k = 0; k < bits.length; k += 4) {
    const [ax, ay, bx, by] = [bits[k], bits[k + 1], bits[k + 2], bits[k + 3]];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) crossings++;
  }
  return crossings % 2 === 1;
}

function nearestOf(bits: readonly Bits[], x: number, y: number): { section: number; mm: number } {
  let section = 0;
  let least = Infinity;
  bits.forEach((own, s) => {
    for (let k = 0; k < own.length; k += 4) {
      const [ux, uy] = [own[k + 2] - own[k], own[k + 3] - own[k + 1]];
      const [px, py] = [x - own[k], y - own[k + 1]];
      const share = Math.max(0, Math.min(1, (px * ux + py * uy) / (ux * ux + uy * uy || 1)));
      const away = (px - share * ux) ** 2 + (py - share * uy) ** 2;
      if (away >= least) continue;
      least = away;
      section = s;
    }
  });
  return { section, mm: Math.sqrt(least) };
}

/** The area at a width, mm2, between those that are kept, and on as they grow beyond them. */
export function footAreaAt(areasMm2: readonly number[], wideMm: number): number {
  if (areasMm2.length < 2 || wideMm <= 0) return 0;
  const low = Math.min(areasMm2.length - 2, Math.floor(wideMm / FOOT_STEP_MM));
  return areasMm2[low] + (wideMm / FOOT_STEP_MM - low) * (areasMm2[low + 1] - areasMm2[low]);
}
