/** A rib as a body: a ridge along its way over the shell, or a pole with what is wrapped over it. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Rib } from "./ribs.ts";

/** A ridge is so wide and stands so far out of the shell, mm: a pole of 25 mm with a layer over it. */
export const RIDGE_MM = { width: 60, height: 35 } as const;
/** It begins within the shell, mm. */
const EMBEDDED_MM = 4;
/** Corners of its round. */
const ROUND = 6;

type Xyz = [number, number, number];

/** The outline of a rib at one of its points, from one side over its back to the other. */
export function ridgeAt({ points: p, normals: n }: Rib, k: number, shellMm: number): Xyz[] {
  const last = p.length / 3 - 1;
  const [from, to] = [3 * Math.max(0, k - 1), 3 * Math.min(last, k + 1)];
  const along = [0, 1, 2].map((a) => p[to + a] - p[from + a]);
  const normal = [n[3 * k], n[3 * k + 1], n[3 * k + 2]];
  const side = [
    along[1] * normal[2] - along[2] * normal[1],
    along[2] * normal[0] - along[0] * normal[2],
    along[0] * normal[1] - along[1] * normal[0],
  ];
  const length = Math.hypot(...side) || 1;
  return Array.from({ length: ROUND + 1 }, (_, c) => {
    const turn = (Math.PI * c) / ROUND;
    const outMm = shellMm - EMBEDDED_MM + (RIDGE_MM.height + EMBEDDED_MM) * Math.sin(turn);
    const asideMm = (RIDGE_MM.width / 2) * Math.cos(turn);
    return [0, 1, 2].map((a) => p[3 * k + a] + outMm * normal[a] + (asideMm * side[a]) / length) as Xyz;
  });
}

/** Which of a rib's points it stands on: it ends where the flanges it runs to begin. */
export function ridgePoints({ points: p }: Rib, flangeMm: number): number[] {
  const last = p.length / 3 - 1;
  const clearMm = flangeMm + RIDGE_MM.width / 2;
  const away = (a: number, b: number) => Math.hypot(...[0, 1, 2].map((x) => p[3 * a + x] - p[3 * b + x]));
  return Array.from({ length: last + 1 }, (_, k) => k).filter((k) => away(k, 0) > clearMm && away(k, last) > clearMm);
}

/** A rib as it is shown, closed; null where it is too short to stand. */
export function ribBody(rib: Rib, shellMm: number, flangeMm: number): TriangleMesh | null {
  const where = ridgePoints(rib, flangeMm);
  if (where.length < 2) return null;
  const rings = where.map((k) => ridgeAt(rib, k, shellMm));
  const corners = ROUND + 1;
  const triangles: number[] = [];
  for (let r = 0; r + 1 < rings.length; r++) {
    for (let c = 0; c < corners; c++) {
      const [a, b] = [r * corners + c, r * corners + ((c + 1) % corners)];
      triangles.push(a, a + corners, b, b, a + corners, b + corners);
    }
  }
  const end = (rings.length - 1) * corners;
  for (let c = 1; c + 1 < corners; c++) triangles.push(0, c, c + 1, end, end + c + 1, end + c);
  return { positions: Float32Array.from(rings.flat(2)), triangles: Uint32Array.from(triangles) };
}
