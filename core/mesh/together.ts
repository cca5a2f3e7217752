import type { TriangleMesh } from "./mesh.ts";

/** Several bodies as one mesh, unjoined; shells may overlap. */
export function together(...parts: readonly TriangleMesh[]): TriangleMesh {
  if (parts.length === 1) return parts[0];
  const positions = new Float32Array(parts.reduce((sum, part) => sum + part.positions.length, 0));
  const triangles = new Uint32Array(parts.reduce((sum, part) => sum + part.triangles.length, 0));
  let vertices = 0;
  let corners = 0;
  for (const part of parts) {
    positions.set(part.positions, 3 * vertices);
    for (let k = 0; k < part.triangles.length; k++) triangles[corners + k] = part.triangles[k] + vertices;
    vertices += part.positions.length / 3;
    corners += part.triangles.length;
  }
  return { positions, triangles };
}
