/** Bodies of revolution, and meshes of single triangles. */
import type { TriangleMesh } from "./mesh.ts";
import { weld } from "./weld.ts";

export type P3 = [number, number, number];

/** Three corners a triangle, in mm; those at one place are joined. */
export function fromSoup(points: readonly P3[]): TriangleMesh {
  const positions = Float32Array.from(points.flat());
  return weld({ positions, triangles: Uint32Array.from({ length: points.length }, (_, k) => k) }, 1e-4);
}

/** Rotation surface about z of a closed profile: (r, z) in mm, from its top point on the axis to its bottom one. */
export function lathe(profile: readonly (readonly [number, number])[], around: number): TriangleMesh {
  const at = (k: number, s: number): P3 => {
    const [r, z] = profile[k];
    const angle = (2 * Math.PI * (s % around)) / around;
    return [r * Math.cos(angle), r * Math.sin(angle), z];
  };
  const soup: P3[] = [];
  for (let k = 0; k + 1 < profile.length; k++) {
    for (let s = 0; s < around; s++) {
      const a = at(k, s),
        b = at(k, s + 1),
        c = at(k + 1, s + 1),
        d = at(k + 1, s);
      if (profile[k][0] > 0) soup.push(a, c, b);
      if (profile[k + 1][0] > 0) soup.push(a, d, c);
    }
  }
  return fromSoup(soup);
}
