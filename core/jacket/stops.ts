/**
 * Stops: through-holes closed before the first coat, with a web of clay or a plug made for it, so that no rubber runs
 * round and locks. Either is the disc that a loop round the inside of the hole spans, a little thick, seated a little into the piece all round.
 */
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";

/** What a hole is closed with: clay pressed in, or a plug cast beforehand that serves again. */
export type StopKind = "clay" | "plug";

export interface Stop {
  /** Clay where it is left out. */
  readonly kind?: StopKind;
  /** Round the inside of the hole, xyz per point, mm in the seated piece's space. */
  readonly loop: readonly number[];
}

/** As many as one would build by hand. */
export const MOST_STOPS = 12;

/** Thickness of a web, mm. */
export const STOP_THICKNESS_MM = 14;
/** How far beyond its loop a web reaches: through the jacket the loop was found on, and into the piece, mm. */
const SEATED_MM = 22;

/** The piece with its stops in place; shells that overlap, each closed. */
export function withStops(piece: TriangleMesh, stops: readonly Stop[], onBoard: boolean): TriangleMesh {
  return together(piece, ...stops.map((stop) => stopMesh(stop, onBoard)));
}

/** A closed disc over the loop, as a fan on either side and a band round the rim. */
export function stopMesh({ loop }: Pick<Stop, "loop">, onBoard: boolean): TriangleMesh {
  const { middle, u, v, n } = planeOf(loop);
  const around: { angle: number; out: number; up: number }[] = [];
  for (let k = 0; k < loop.length; k += 3) {
    const d = [0, 1, 2].map((a) => loop[k + a] - middle[a]);
    const [x, y] = [inner(d, u), inner(d, v)];
    around.push({ angle: Math.atan2(y, x), out: Math.hypot(x, y), up: inner(d, n) });
  }
  // In turn about the middle: a disc whose rim nowhere turns back.
  around.sort((a, b) => a.angle - b.angle);
  const count = around.length;
  const positions = new Float32Array(3 * (2 * count + 2));
  const put = (at: number, x: number, y: number, z: number) => {
    for (let a = 0; a < 3; a++) positions[3 * at + a] = middle[a] + x * u[a] + y * v[a] + z * n[a];
    // A web over the board stands on it.
    if (onBoard) positions[3 * at + 2] = Math.max(0, positions[3 * at + 2]);
  };
  const half = STOP_THICKNESS_MM / 2;
  around.forEach(({ angle, out, up }, k) => {
    const [x, y] = [(out + SEATED_MM) * Math.cos(angle), (out + SEATED_MM) * Math.sin(angle)];
    put(k, x, y, up + half);
    put(count + k, x, y, up - half);
  });
  put(2 * count, 0, 0, half);
  put(2 * count + 1, 0, 0, -half);
  const triangles = around.flatMap((_, k) => {
    const next = (k + 1) % count;
    return [
      ...[2 * count, k, next],
      ...[2 * count + 1, count + next, count + k],
      ...[k, count + k, next],
      ...[next, count + k, count + next],
    ];
  });
  return { positions, triangles: Uint32Array.from(triangles) };
}

/**
 * Volume of the stops, mm3: what the piece with its stops displaces more than the piece alone.
 * @param displacedMm3 volume within the outside of the piece and its stops together
 */
export function volumeOfStopsMm3(displacedMm3: number, piece: TriangleMesh): number {
  return Math.max(0, displacedMm3 - areaAndVolume(piece).volumeMm3);
}

/** How much of the stops' volume is clay, 0..1: by the volumes of their discs. */
export function clayShareOf(stops: readonly Stop[], onBoard: boolean): number {
  const volumes = stops.map((stop) => areaAndVolume(stopMesh(stop, onBoard)).volumeMm3);
  const total = volumes.reduce((sum, mm3) => sum + mm3, 0);
  return total > 0 ? volumes.reduce((sum, mm3, k) => sum + (stops[k].kind === "plug" ? 0 : mm3), 0) / total : 1;
}

/** The middle of a loop and the plane it lies in best, by the area it spans (Newell). */
function planeOf(loop: readonly number[]): { middle: number[]; u: number[]; v: number[]; n: number[] } {
  const count = loop.length / 3;
  const middle = [0, 0, 0];
  for (let k = 0; k < loop.length; k++) middle[k % 3] += loop[k] / count;
  const sum = [0, 0, 0];
  for (let k = 0; k < count; k++) {
    const [p, q] = [k, (k + 1) % count].map((at) => [0, 1, 2].map((a) => loop[3 * at + a] - middle[a]));
    for (let a = 0; a < 3; a++) sum[a] += p[(a + 1) % 3] * q[(a + 2) % 3] - p[(a + 2) % 3] * q[(a + 1) % 3];
  }
  const n = unit(sum);
  const least = n.map(Math.abs).indexOf(Math.min(...n.map(Math.abs)));
  const axis = [0, 1, 2].map((a) => (a === least ? 1 : 0));
  const u = unit(axis.map((x, a) => x - inner(axis, n) * n[a]));
  const v = [n[1] * u[2] - n[2] * u[1], n[2] * u[0] - n[0] * u[2], n[0] * u[1] - n[1] * u[0]];
  return { middle, u, v, n };
}

function inner(a: readonly number[], b: readonly number[]): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

function unit(x: readonly number[]): number[] {
  const length = Math.hypot(...x) || 1;
  return x.map((value) => value / length);
}
