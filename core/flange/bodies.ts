/** Flanges as bodies: what stands off a section's edge along a wall, as thick as the shell system makes it. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { AlongWall } from "./along.ts";

/**
 * The flange of one of the two sections along a wall: a slab between the wall's face and its back. Closed; its corners are
 * not shared between faces, so that they are shown sharp.
 * @param side 0 the section on the left of the line, 1 the one on the right
 */
export function flangeBody(along: AlongWall, side: 0 | 1, thicknessMm: number): TriangleMesh {
  const { foot, head } = along.wall;
  const count = foot.length / 3;
  const off = side === 0 ? thicknessMm : -thicknessMm;
  const back = (edge: Float64Array) => {
    const out = new Float64Array(edge.length);
    for (let k = 0; k < count; k++) {
      const normal = along.normal(along.alongMm[k]);
      for (let a = 0; a < 3; a++) out[3 * k + a] = edge[3 * k + a] + off * normal[a];
    }
    return out;
  };
  const [backFoot, backHead] = [back(foot), back(head)];
  // Each strip from one edge to the next, wound so that it is seen from outside.
  const turned = side === 0;
  const strips = [
    [foot, head],
    [head, backHead],
    [backHead, backFoot],
    [backFoot, foot],
  ] as const;
  const positions: number[] = [];
  const triangles: number[] = [];
  const face = (a: number, b: number, c: number) => triangles.push(...(turned ? [a, c, b] : [a, b, c]));
  for (const [from, to] of strips) {
    const base = positions.length / 3;
    for (let k = 0; k < count; k++) {
      positions.push(...from.subarray(3 * k, 3 * k + 3), ...to.subarray(3 * k, 3 * k + 3));
      if (k === 0) continue;
      const n = base + 2 * k;
      face(n - 2, n, n - 1);
      face(n, n + 1, n - 1);
    }
  }
  if (!along.wall.closed) {
    for (const k of [0, count - 1]) {
      const base = positions.length / 3;
      for (const edge of [foot, head, backHead, backFoot]) positions.push(...edge.subarray(3 * k, 3 * k + 3));
      if (k === 0) {
        face(base, base + 1, base + 2);
        face(base, base + 2, base + 3);
      } else {
        face(base, base + 2, base + 1);
        face(base, base + 3, base + 2);
      }
    }
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** One face of a wall, as a strip of triangles. */
export function wallFace({ wall: { foot, head } }: AlongWall): TriangleMesh {
  const count = foot.length / 3;
  const positions = new Float32Array(6 * count);
  const triangles: number[] = [];
  for (let k = 0; k < count; k++) {
    positions.set(foot.subarray(3 * k, 3 * k + 3), 6 * k);
    positions.set(head.subarray(3 * k, 3 * k + 3), 6 * k + 3);
    if (k > 0) triangles.push(2 * k - 2, 2 * k, 2 * k - 1, 2 * k, 2 * k + 1, 2 * k - 1);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}
