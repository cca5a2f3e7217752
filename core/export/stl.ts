import type { TriangleMesh } from "../mesh/mesh.ts";

/** Binary STL, mm. */
export function writeStl(mesh: TriangleMesh): Uint8Array {
  const { positions: p, triangles: t } = mesh;
  const count = t.length / 3;
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  for (let k = 0; k < count; k++) {
    const at = 84 + 50 * k;
    const [a, b, c] = [3 * t[3 * k], 3 * t[3 * k + 1], 3 * t[3 * k + 2]];
    const u = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const v = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const length = Math.hypot(n[0], n[1], n[2]) || 1;
    for (let x = 0; x < 3; x++) {
      view.setFloat32(at + 4 * x, n[x] / length, true);
      view.setFloat32(at + 12 + 4 * x, p[a + x], true);
      view.setFloat32(at + 24 + 4 * x, p[b + x], true);
      view.setFloat32(at + 36 + 4 * x, p[c + x], true);
    }
  }
  return bytes;
}
