/** The segments of a network of lines by the cubes they lie in: which is nearest a place, and on which side of it one is. */

/** A line that knows the section on its left and on its right, seen from outside. */
export interface SidedLine {
  /** xyz per point, mm. */
  readonly points: Float64Array;
  readonly closed: boolean;
  readonly left: number;
  readonly right: number;
}

export interface Segment {
  readonly line: SidedLine;
  /** Places of its two points in the line's array. */
  readonly from: number;
  readonly to: number;
}

/** The place of a segment nearest a point. */
export interface NearSegment extends Segment {
  /** Where along it, 0 at its first point and 1 at its second. */
  readonly share: number;
  readonly distanceMm: number;
}

export class SegmentIndex {
  /** Segments by cube; cubes of one number share a list, which only costs a look. */
  private readonly cubes = new Map<number, Segment[]>();

  constructor(
    network: readonly SidedLine[],
    private readonly reachMm: number,
  ) {
    for (const line of network) {
      const count = line.points.length / 3;
      for (let k = 0; k + (line.closed ? 0 : 1) < count; k++) {
        this.add({ line, from: 3 * k, to: 3 * ((k + 1) % count) });
      }
    }
  }

  private add(segment: Segment): void {
    const { line, from, to } = segment;
    const p = line.points;
    const low = [0, 1, 2].map((a) => this.cube(Math.min(p[from + a], p[to + a]) - this.reachMm));
    const high = [0, 1, 2].map((a) => this.cube(Math.max(p[from + a], p[to + a]) + this.reachMm));
    for (let i = low[0]; i <= high[0]; i++) {
      for (let j = low[1]; j <= high[1]; j++) {
        for (let k = low[2]; k <= high[2]; k++) {
          const number = numberOf(i, j, k);
          const list = this.cubes.get(number);
          if (list) list.push(segment);
          else this.cubes.set(number, [segment]);
        }
      }
    }
  }

  private cube(value: number): number {
    return Math.floor(value / (2 * this.reachMm));
  }

  /** The segments that may be within the reach of a point, and maybe others. */
  about(x: number, y: number, z: number): readonly Segment[] {
    return this.cubes.get(numberOf(this.cube(x), this.cube(y), this.cube(z))) ?? [];
  }

  /** The nearest segment within the reach. */
  nearest(x: number, y: number, z: number): NearSegment | null {
    let distanceMm = this.reachMm;
    let share = 0;
    let best: Segment | null = null;
    for (const segment of this.about(x, y, z)) {
      const along = shareNearest(segment, x, y, z);
      const mm = distanceTo(segment, along, x, y, z);
      if (mm >= distanceMm) continue;
      distanceMm = mm;
      share = along;
      best = segment;
    }
    return best && { ...best, share, distanceMm };
  }
}

function numberOf(i: number, j: number, k: number): number {
  return (Math.imul(i, 73856093) ^ Math.imul(j, 19349663) ^ Math.imul(k, 83492791)) | 0;
}

/** Where along a segment a point is nearest it, 0..1. */
export function shareNearest({ line, from, to }: Segment, x: number, y: number, z: number): number {
  const q = line.points;
  const ex = q[to] - q[from];
  const ey = q[to + 1] - q[from + 1];
  const ez = q[to + 2] - q[from + 2];
  const along = (x - q[from]) * ex + (y - q[from + 1]) * ey + (z - q[from + 2]) * ez;
  return Math.min(1, Math.max(0, along / (ex * ex + ey * ey + ez * ez || 1)));
}

export function distanceTo({ line, from, to }: Segment, share: number, x: number, y: number, z: number): number {
  const q = line.points;
  const dx = x - q[from] - share * (q[to] - q[from]);
  const dy = y - q[from + 1] - share * (q[to + 1] - q[from + 1]);
  const dz = z - q[from + 2] - share * (q[to + 2] - q[from + 2]);
  return Math.sqrt(dx * dx + dy * dy + dz * dz);
}

/**
 * Above 0 where a point lies to the left of the line there, seen from outside (against the normal n). At a joint of two
 * segments the mean of their ways decides, as at the corner of a polygon.
 */
export function sideOf(
  { line, from, to, share }: Omit<NearSegment, "distanceMm">,
  n: ArrayLike<number>,
  at: number,
  p: ArrayLike<number>,
  v: number,
): number {
  const q = line.points;
  const [tx, ty, tz] = wayAt(line, from, to, share);
  const dx = p[v] - q[from] - share * (q[to] - q[from]);
  const dy = p[v + 1] - q[from + 1] - share * (q[to + 1] - q[from + 1]);
  const dz = p[v + 2] - q[from + 2] - share * (q[to + 2] - q[from + 2]);
  const [nx, ny, nz] = [n[at], n[at + 1], n[at + 2]];
  return (ny * tz - nz * ty) * dx + (nz * tx - nx * tz) * dy + (nx * ty - ny * tx) * dz;
}

function wayAt(
  { points, closed }: SidedLine,
  from: number,
  to: number,
  share: number,
): readonly [number, number, number] {
  const own = unitWay(points, from, to);
  if (share > 0 && share < 1) return own;
  const length = points.length;
  const [a, b] = share <= 0 ? [from - 3, from] : [to, to + 3];
  if (!closed && (a < 0 || b >= length)) return own;
  const other = unitWay(points, (a + length) % length, b % length);
  return [own[0] + other[0], own[1] + other[1], own[2] + other[2]];
}

function unitWay(q: ArrayLike<number>, a: number, b: number): readonly [number, number, number] {
  const x = q[b] - q[a];
  const y = q[b + 1] - q[a + 1];
  const z = q[b + 2] - q[a + 2];
  const length = Math.sqrt(x * x + y * y + z * z) || 1;
  return [x / length, y / length, z / length];
}
