/** Exact little bodies for tests: closed, outward-facing meshes in mm. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { weld } from "../mesh/weld.ts";

type P3 = [number, number, number];

/** Rotation surface of a closed (r, z) profile given from top axis point to bottom axis point. */
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

export function sphere(radius: number, detail = 64): TriangleMesh {
  const rings = Math.max(4, detail);
  return lathe(
    Array.from({ length: rings + 1 }, (_, k) => {
      const a = (Math.PI * k) / rings;
      return [k === 0 || k === rings ? 0 : radius * Math.sin(a), radius * Math.cos(a)] as const;
    }),
    2 * rings,
  );
}

export function box(w: number, d: number, h: number): TriangleMesh {
  const v: P3[] = [];
  for (let c = 0; c < 8; c++)
    v.push([((c & 1 ? 1 : -1) * w) / 2, ((c & 2 ? 1 : -1) * d) / 2, ((c & 4 ? 1 : -1) * h) / 2]);
  const faces = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ];
  return fromSoup(faces.flatMap(([a, b, c, e]) => [v[a], v[b], v[c], v[a], v[c], v[e]]));
}

/** Lying flat about the z axis. */
export function torus(ring: number, tube: number, around = 128, across = 64): TriangleMesh {
  const at = (s: number, t: number): P3 => {
    const a = (2 * Math.PI * (s % around)) / around;
    const b = (2 * Math.PI * (t % across)) / across;
    return [(ring + tube * Math.cos(b)) * Math.cos(a), (ring + tube * Math.cos(b)) * Math.sin(a), tube * Math.sin(b)];
  };
  const soup: P3[] = [];
  for (let s = 0; s < around; s++) {
    for (let t = 0; t < across; t++)
      soup.push(at(s, t), at(s + 1, t), at(s + 1, t + 1), at(s, t), at(s + 1, t + 1), at(s, t + 1));
  }
  return fromSoup(soup);
}

/** Stem of the given radius and height with a flat cap on it, standing on z = 0. */
export function mushroom(stem: number, height: number, cap: number, capThickness: number, around = 128): TriangleMesh {
  return lathe(
    [
      [0, height + capThickness],
      [cap, height + capThickness],
      [cap, height],
      [stem, height],
      [stem, 0],
      [0, 0],
    ],
    around,
  );
}

export function capsule(radius: number, length: number, detail = 48): TriangleMesh {
  const profile: [number, number][] = [];
  for (let k = 0; k <= detail; k++) {
    const a = (Math.PI * k) / detail;
    const shift = k < detail / 2 ? length / 2 : -length / 2;
    if (k === detail / 2) profile.push([radius, length / 2]);
    profile.push([k === 0 || k === detail ? 0 : radius * Math.sin(a), radius * Math.cos(a) + shift]);
  }
  return lathe(profile, 2 * detail);
}

export function fromSoup(points: readonly P3[]): TriangleMesh {
  const positions = Float32Array.from(points.flat());
  return weld({ positions, triangles: Uint32Array.from({ length: points.length }, (_, k) => k) }, 1e-4);
}

/** Turns a mesh by a row-major 3x3 matrix. */
export function turned(mesh: TriangleMesh, m: readonly number[]): TriangleMesh {
  const p = mesh.positions;
  const out = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    for (let r = 0; r < 3; r++) out[v + r] = m[3 * r] * p[v] + m[3 * r + 1] * p[v + 1] + m[3 * r + 2] * p[v + 2];
  }
  return { positions: out, triangles: mesh.triangles };
}

export function moved(mesh: TriangleMesh, dx: number, dy: number, dz: number): TriangleMesh {
  return { positions: mesh.positions.map((value, k) => value + [dx, dy, dz][k % 3]), triangles: mesh.triangles };
}

/** Two meshes as one, unjoined. */
export function together(a: TriangleMesh, b: TriangleMesh): TriangleMesh {
  const positions = new Float32Array(a.positions.length + b.positions.length);
  positions.set(a.positions);
  positions.set(b.positions, a.positions.length);
  const triangles = new Uint32Array(a.triangles.length + b.triangles.length);
  triangles.set(a.triangles);
  triangles.set(
    b.triangles.map((v) => v + a.positions.length / 3),
    a.triangles.length,
  );
  return { positions, triangles };
}
