/**
 * Tips where air is caught when the mould is filled standing on its head: places of the piece that point down, each
 * with how far the surface must be gone up from it to reach a lower one (its persistence, Edelsbrunner, Letscher and
 * Zomorodian 2002). Seen from the cavity they are its dead ends.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";

export interface AirTip {
  readonly at: readonly [number, number, number];
  /** How far air has to sink to leave it, mm. */
  readonly depthMm: number;
}

/** Shallower tips let their air go with a tap of the mould. */
export const LEAST_TIP_MM = 5;

/** @param boardMm tips that stand on the board are the open foot of the mould; null where there is no board */
export function airTips(mesh: TriangleMesh, boardMm: number | null): AirTip[] {
  const p = mesh.positions;
  const near = vertexNeighbours(mesh);
  const vertices = p.length / 3;
  const order = Array.from({ length: vertices }, (_, v) => v).sort((a, b) => p[3 * a + 2] - p[3 * b + 2] || a - b);
  /** Root of each vertex's pool; the root is its lowest vertex. -1 while not under water. */
  const parent = new Int32Array(vertices).fill(-1);
  const rootOf = (v: number): number => {
    let top = v;
    while (parent[top] !== top) {
      parent[top] = parent[parent[top]];
      top = parent[top];
    }
    return top;
  };
  const tips: AirTip[] = [];
  const told = (root: number, heightMm: number) => {
    const depthMm = heightMm - p[3 * root + 2];
    const onBoard = boardMm !== null && p[3 * root + 2] < boardMm + 1;
    if (depthMm > LEAST_TIP_MM && !onBoard) tips.push({ at: [p[3 * root], p[3 * root + 1], p[3 * root + 2]], depthMm });
  };
  for (const v of order) {
    parent[v] = v;
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const o = near.list[k];
      if (parent[o] < 0) continue;
      const [a, b] = [rootOf(v), rootOf(o)];
      if (a === b) continue;
      // Two pools meet: the one that began higher ends here.
      const [lower, higher] = p[3 * a + 2] <= p[3 * b + 2] ? [a, b] : [b, a];
      told(higher, p[3 * v + 2]);
      parent[higher] = lower;
    }
  }
  return tips.sort((a, b) => b.depthMm - a.depthMm);
}
