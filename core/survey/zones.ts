/**
 * Zones painted on the piece: where lines should keep clear, what is fragile, where the jacket is to be thicker. A zone
 * is a row of dabs of a round brush, each with the place it was set on, the way the surface faces there and the brush's
 * radius: so it holds on any mesh of the piece, and on the jacket over it.
 */
export const ZONE_KINDS = ["keepClear", "fragile", "thicker"] as const;
export type ZoneKind = (typeof ZONE_KINDS)[number];

/** Seven numbers a dab: place (mm), outward unit normal, radius (mm). */
export type Dabs = readonly number[];
export type Zones = Readonly<Record<ZoneKind, Dabs>>;

export const DAB_FIGURES = 7;
export const NO_ZONES: Zones = { keepClear: [], fragile: [], thicker: [] };

/** A surface turned farther from a dab's than this is another wall behind it: cosine of 100 degrees. */
const SAME_WALL = -0.17;

/**
 * Which points of a surface lie in a zone.
 * @param points xyz per point, mm
 * @param normals unit normal of each, or null where the wall is not known
 * @param overMm how far the surface lies over the piece at most
 * @returns 1 within, 0 without
 */
export function withinZone(
  dabs: Dabs,
  points: ArrayLike<number>,
  normals: ArrayLike<number> | null,
  overMm: number,
): Uint8Array {
  const out = new Uint8Array(points.length / 3);
  if (dabs.length === 0) return out;
  const index = new DabIndex(dabs, overMm);
  for (let v = 0; v < out.length; v++) {
    const at = 3 * v;
    const found = index.at(points[at], points[at + 1], points[at + 2]);
    for (const k of found) {
      const away =
        (points[at] - dabs[k]) ** 2 + (points[at + 1] - dabs[k + 1]) ** 2 + (points[at + 2] - dabs[k + 2]) ** 2;
      if (away > (dabs[k + 6] + overMm) ** 2) continue;
      if (normals) {
        const facing = normals[at] * dabs[k + 3] + normals[at + 1] * dabs[k + 4] + normals[at + 2] * dabs[k + 5];
        if (facing < SAME_WALL) continue;
      }
      out[v] = 1;
      break;
    }
  }
  return out;
}

/** How much of some lines on the jacket runs through each kind of zone, mm. */
export function zoneLengthsMm(
  zones: Zones,
  lines: readonly { readonly points: ArrayLike<number>; readonly closed: boolean }[],
  overMm: number,
): Record<ZoneKind, number> {
  const within = (kind: ZoneKind) => lines.reduce((sum, line) => sum + lengthWithin(zones[kind], line, overMm), 0);
  return { keepClear: within("keepClear"), fragile: within("fragile"), thicker: within("thicker") };
}

/** Dabs by the cubes they reach into. */
class DabIndex {
  private readonly cubes = new Map<string, number[]>();
  private readonly sideMm: number;

  constructor(dabs: Dabs, overMm: number) {
    let widest = 1;
    for (let k = 0; k < dabs.length; k += DAB_FIGURES) widest = Math.max(widest, dabs[k + 6] + overMm);
    this.sideMm = 2 * widest;
    for (let k = 0; k < dabs.length; k += DAB_FIGURES) {
      const reach = dabs[k + 6] + overMm;
      const low = [0, 1, 2].map((a) => Math.floor((dabs[k + a] - reach) / this.sideMm));
      const high = [0, 1, 2].map((a) => Math.floor((dabs[k + a] + reach) / this.sideMm));
      for (let x = low[0]; x <= high[0]; x++) {
        for (let y = low[1]; y <= high[1]; y++) {
          for (let z = low[2]; z <= high[2]; z++) {
            const key = `${x},${y},${z}`;
            const list = this.cubes.get(key);
            if (list) list.push(k);
            else this.cubes.set(key, [k]);
          }
        }
      }
    }
  }

  at(x: number, y: number, z: number): readonly number[] {
    const s = this.sideMm;
    return this.cubes.get(`${Math.floor(x / s)},${Math.floor(y / s)},${Math.floor(z / s)}`) ?? [];
  }
}

/** A dab added; one that lies well within another of the same wall adds nothing. */
export function withDab(dabs: Dabs, place: readonly number[], normal: readonly number[], radiusMm: number): Dabs {
  for (let k = 0; k < dabs.length; k += DAB_FIGURES) {
    const away = Math.hypot(place[0] - dabs[k], place[1] - dabs[k + 1], place[2] - dabs[k + 2]);
    const facing = normal[0] * dabs[k + 3] + normal[1] * dabs[k + 4] + normal[2] * dabs[k + 5];
    if (away + radiusMm <= dabs[k + 6] + 0.4 * radiusMm && facing > 0.5) return dabs;
  }
  const rounded = [...place.map((x) => Math.round(x * 10) / 10), ...normal.map((x) => Math.round(x * 1000) / 1000)];
  return [...dabs, ...rounded, radiusMm];
}

/** The dabs left when a brush has wiped a place: those whose middle it covered are gone. */
export function withoutDabs(dabs: Dabs, [x, y, z]: readonly number[], radiusMm: number): Dabs {
  const out: number[] = [];
  for (let k = 0; k < dabs.length; k += DAB_FIGURES) {
    if (Math.hypot(x - dabs[k], y - dabs[k + 1], z - dabs[k + 2]) <= radiusMm) continue;
    out.push(...dabs.slice(k, k + DAB_FIGURES));
  }
  return out;
}

/** How much of a line lies in a zone, mm. */
export function lengthWithin(
  dabs: Dabs,
  line: { readonly points: ArrayLike<number>; readonly closed: boolean },
  overMm: number,
): number {
  const p = line.points;
  const count = p.length / 3;
  const within = withinZone(dabs, p, null, overMm);
  let sum = 0;
  for (let k = 0; k + (line.closed ? 0 : 1) < count; k++) {
    const o = (k + 1) % count;
    if (within[k] + within[o] === 0) continue;
    const [a, b] = [3 * k, 3 * o];
    const length = Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
    sum += length * 0.5 * (within[k] + within[o]);
  }
  return sum;
}
