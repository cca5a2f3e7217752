/** A small picture of a mesh by plain scan conversion: for shelves and reports where there is no stage. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import { cross, type Direction, normalised } from "../space/directions.ts";
import { inFrame } from "../survey/columns.ts";

export interface Portrait {
  readonly width: number;
  readonly height: number;
  /** RGBA, 4 bytes a pixel. */
  readonly pixels: Uint8ClampedArray;
}

/**
 * @param from direction the viewer looks from
 * @param tint sRGB of each vertex (3 per vertex, 0..255), or one colour for all
 */
export function drawPortrait(
  mesh: TriangleMesh,
  width: number,
  height: number,
  from: Direction,
  tint: readonly [number, number, number] | Uint8Array,
): Portrait {
  const d = normalised(from);
  const right = normalised(cross([0, 0, 1], d));
  const up = cross(d, right);
  const seen = inFrame(mesh, right, up, d).positions;
  const { normals } = vertexNormals(mesh);
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let k = 0; k < seen.length; k += 3) {
    u0 = Math.min(u0, seen[k]);
    u1 = Math.max(u1, seen[k]);
    v0 = Math.min(v0, seen[k + 1]);
    v1 = Math.max(v1, seen[k + 1]);
  }
  const scale = 0.88 * Math.min(width / (u1 - u0), height / (v1 - v0));
  const px = (k: number) => width / 2 + (seen[3 * k] - (u0 + u1) / 2) * scale;
  const py = (k: number) => height / 2 - (seen[3 * k + 1] - (v0 + v1) / 2) * scale;
  const depth = new Float32Array(width * height).fill(-Infinity);
  const pixels = new Uint8ClampedArray(width * height * 4);
  const lamp = normalised([
    right[0] * -0.55 + up[0] * 0.5 + d[0] * 0.65,
    right[1] * -0.55 + up[1] * 0.5 + d[1] * 0.65,
    right[2] * -0.55 + up[2] * 0.5 + d[2] * 0.65,
  ]);
  const shade = (v: number) => {
    const n = normals.subarray(3 * v, 3 * v + 3);
    const key = Math.max(0, n[0] * lamp[0] + n[1] * lamp[1] + n[2] * lamp[2]);
    const fill = Math.max(0, n[0] * right[0] + n[1] * right[1] + n[2] * right[2]);
    return 0.3 + 0.66 * key + 0.12 * fill + 0.08 * n[2];
  };
  const t = mesh.triangles;
  for (let k = 0; k < t.length; k += 3) {
    const [a, b, c] = [t[k], t[k + 1], t[k + 2]];
    const [ax, ay, bx, by, cx, cy] = [px(a), py(a), px(b), py(b), px(c), py(c)];
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area >= 0) continue;
    const light = [shade(a), shade(b), shade(c)];
    for (let y = Math.max(0, Math.floor(Math.min(ay, by, cy))); y <= Math.min(height - 1, Math.max(ay, by, cy)); y++) {
      for (let x = Math.max(0, Math.floor(Math.min(ax, bx, cx))); x <= Math.min(width - 1, Math.max(ax, bx, cx)); x++) {
        const wa = ((bx - x) * (cy - y) - (by - y) * (cx - x)) / area;
        const wb = ((cx - x) * (ay - y) - (cy - y) * (ax - x)) / area;
        const wc = 1 - wa - wb;
        if (wa < -1e-6 || wb < -1e-6 || wc < -1e-6) continue;
        const z = wa * seen[3 * a + 2] + wb * seen[3 * b + 2] + wc * seen[3 * c + 2];
        const at = x + width * y;
        if (z <= depth[at]) continue;
        depth[at] = z;
        const s = wa * light[0] + wb * light[1] + wc * light[2];
        for (let q = 0; q < 3; q++) pixels[4 * at + q] = s * (tint instanceof Uint8Array ? tint[3 * a + q] : tint[q]);
        pixels[4 * at + 3] = 255;
      }
    }
  }
  return { width, height, pixels };
}
