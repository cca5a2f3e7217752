/** How far a section's face stands along the board: what its foot is measured by. */
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** @param nearMm open edges no higher than this over the board stand on it, mm */
export function alongBoardMm(skin: TriangleMesh, boardMm: number, nearMm: number): number {
  const { positions: p, triangles: t } = skin;
  const { across } = adjacencyOf(skin);
  let sum = 0;
  for (let e = 0; e < t.length; e++) {
    if (across[e] !== OPEN) continue;
    const [a, b] = [3 * t[e], 3 * t[3 * Math.floor(e / 3) + ((e + 1) % 3)]];
    if (Math.max(p[a + 2], p[b + 2]) - boardMm > nearMm) continue;
    sum += Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1]);
  }
  return sum;
}

/**
 * Areas of strips along the board, one a section, mm2: wider at their outer edge by what a ring turns all round (Steiner: an
 * outline of length L grows by L w + pi w2).
 * @param alongMm how far each section stands along the board, mm
 */
export function footAreasMm2(alongMm: readonly number[], wideMm: number): number[] {
  const wholeMm = alongMm.reduce((sum, mm) => sum + mm, 0);
  if (wholeMm <= 0) return alongMm.map(() => 0);
  return alongMm.map((mm) => mm * wideMm + (mm / wholeMm) * Math.PI * wideMm ** 2);
}
