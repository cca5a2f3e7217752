/** Unit directions a section may be pulled along. */
export type Direction = readonly [number, number, number];

/**
 * A dense, even set of pulls all round: a ring of level ones and a Fibonacci lattice on the half sphere, each with its
 * exact contrary.
 * @param count about how many
 */
export function pullDirections(count: number): Direction[] {
  const directions: Direction[] = [[0, 0, 1]];
  const ring = 2 * Math.round(0.1 * count * 0.5) + 4;
  for (let k = 0; k < ring; k++) {
    const a = (2 * Math.PI * k) / ring;
    directions.push([clean(Math.cos(a)), clean(Math.sin(a)), 0]);
  }
  const golden = Math.PI * (3 - Math.sqrt(5));
  const above = Math.max(1, Math.round(0.45 * count));
  for (let k = 0; k < above; k++) {
    const z = (k + 0.6) / (above + 0.2);
    const r = Math.sqrt(1 - z * z);
    directions.push([r * Math.cos(golden * k), r * Math.sin(golden * k), z]);
  }
  const below = directions.filter((d) => d[2] > 0).map((d): Direction => [-d[0], -d[1], -d[2]]);
  return [...directions, ...below];
}

function clean(value: number): number {
  return Math.abs(value) < 1e-12 ? 0 : value;
}

/** Two unit directions that make a right-handed frame with the unit direction d. */
export function frameAcross(d: Direction): { u: Direction; v: Direction } {
  const helper: Direction = Math.abs(d[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const u = normalised(cross(helper, d));
  return { u, v: cross(d, u) };
}

export function cross(a: Direction, b: Direction): Direction {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function dot(a: Direction, b: Direction): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** @returns the unit vector along v; up where v has no length */
export function normalised(v: Direction): Direction {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 0 ? [v[0] / length, v[1] / length, v[2] / length] : [0, 0, 1];
}

/** Bearing (degrees clockwise from the front, -y, seen from above) and elevation (degrees above level). */
export function bearingAndElevation(d: Direction): { bearingDeg: number; elevationDeg: number } {
  const elevationDeg = (Math.asin(Math.max(-1, Math.min(1, d[2]))) * 180) / Math.PI;
  if (Math.hypot(d[0], d[1]) < 1e-9) return { bearingDeg: 0, elevationDeg };
  const bearingDeg = (Math.atan2(-d[0], -d[1]) * 180) / Math.PI;
  return { bearingDeg: (bearingDeg + 360) % 360, elevationDeg };
}

/** The direction with a bearing and an elevation in degrees. */
export function directionFrom(bearingDeg: number, elevationDeg: number): Direction {
  const b = (bearingDeg * Math.PI) / 180;
  const e = (elevationDeg * Math.PI) / 180;
  return normalised([-Math.sin(b) * Math.cos(e), -Math.cos(b) * Math.cos(e), Math.sin(e)]);
}

/** Do two directions point the same way, to a tenth of a degree? */
export function sameDirection(a: Direction, b: Direction): boolean {
  return dot(a, b) > Math.cos((0.1 * Math.PI) / 180);
}

/** Do two of some directions point the same way? */
export function sharePull(pulls: readonly Direction[]): boolean {
  return pulls.some((pull, k) => pulls.slice(k + 1).some((other) => sameDirection(pull, other)));
}

/**
 * Where a direction lies on a globe of radius 1 seen along `about` from outside, up being up: x to the right, y upwards;
 * null on its far side.
 */
export function onGlobe(direction: Direction, about: Direction): { x: number; y: number } | null {
  if (dot(direction, about) < 0) return null;
  const { u, v } = frameAcross(about);
  return { x: dot(direction, u), y: dot(direction, v) };
}
