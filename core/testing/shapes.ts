/** Exact little bodies for tests: closed, outward-facing meshes in mm. */
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";
import { fromSoup, lathe, type P3 } from "../mesh/lathe.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";

export { fromSoup, lathe };

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

/** A flat-ended cylinder about z, its middle at the origin. */
export function cylinder(radius: number, length: number, around = 96): TriangleMesh {
  return lathe(
    [
      [0, length / 2],
      [radius, length / 2],
      [radius, -length / 2],
      [0, -length / 2],
    ],
    around,
  );
}

/** A cylinder standing on z = 0 that leans towards +x: every height is moved over by `lean` times it. */
export function leaningCylinder(radius: number, height: number, lean: number, around = 96): TriangleMesh {
  const upright = moved(cylinder(radius, height, around), 0, 0, height / 2);
  const p = upright.positions;
  return {
    positions: p.map((value, k) => (k % 3 === 0 ? value + lean * p[k + 2] : value)),
    triangles: upright.triangles,
  };
}

/** An L lying in the xz plane: `long` along x and z, arms `arm` thick, `deep` along y; the inner corner towards +x +z. */
export function lBlock(long: number, arm: number, deep: number): TriangleMesh {
  const outline: [number, number][] = [
    [0, 0],
    [long, 0],
    [long, arm],
    [arm, arm],
    [arm, long],
    [0, long],
  ];
  return prism(
    outline,
    [
      [0, 1, 2],
      [0, 2, 3],
      [0, 3, 4],
      [0, 4, 5],
    ],
    deep,
  );
}

/** A flat outline in xz (anticlockwise seen from -y), cut into the given triangles, made `deep` along y. */
function prism(outline: readonly (readonly [number, number])[], cut: readonly (readonly number[])[], deep: number) {
  const at = (k: number, side: number): P3 => [outline[k][0], (side * deep) / 2, outline[k][1]];
  const soup: P3[] = [];
  for (const [a, b, c] of cut) soup.push(at(a, -1), at(b, -1), at(c, -1), at(a, 1), at(c, 1), at(b, 1));
  outline.forEach((_, k) => {
    const n = (k + 1) % outline.length;
    soup.push(at(k, -1), at(k, 1), at(n, 1), at(k, -1), at(n, 1), at(n, -1));
  });
  return fromSoup(soup);
}

/** Two elliptic cylinders on top of each other, the upper turned by `twistDeg`; on z = 0. */
export function twistedStack(long: number, short: number, each: number, twistDeg: number, around = 96): TriangleMesh {
  const ellipse = (z: number, deg: number, s: number): P3 => {
    const a = (2 * Math.PI * (s % around)) / around;
    const [x, y] = [long * Math.cos(a), short * Math.sin(a)];
    const [c, d] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    return [c * x - d * y, d * x + c * y, z];
  };
  const block = (from: number, to: number, deg: number): TriangleMesh => {
    const soup: P3[] = [];
    for (let s = 0; s < around; s++) {
      const [a, b] = [ellipse(from, deg, s), ellipse(from, deg, s + 1)];
      const [c, d] = [ellipse(to, deg, s + 1), ellipse(to, deg, s)];
      soup.push(a, b, c, a, c, d, [0, 0, from], b, a, [0, 0, to], d, c);
    }
    return fromSoup(soup);
  };
  // They run into each other a little, so that no gap is left between.
  return together(block(0, each + 1, 0), block(each, 2 * each, twistDeg));
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

/** A ball with deep round pits, about 0.3 rad wide, that face the given unit directions. */
export function pittedBall(radius: number, rings: number, towards: readonly (readonly number[])[]): TriangleMesh {
  const ball = sphere(radius, rings);
  const positions = ball.positions.map((x, k) => {
    const [a, b, c] = ball.positions.subarray(k - (k % 3), k - (k % 3) + 3);
    let share = 1;
    for (const d of towards) {
      const away = Math.acos(Math.max(-1, Math.min(1, (a * d[0] + b * d[1] + c * d[2]) / Math.hypot(a, b, c))));
      share = Math.min(share, 1 - 0.6 * Math.exp(-((away / 0.3) ** 4)));
    }
    return x * share;
  });
  return { ...ball, positions };
}

/** Half a ball of so many mm on its board. */
export function dome(radius: number, around = 96): TriangleMesh {
  const rings = 30;
  const profile = Array.from({ length: rings + 1 }, (_, k): [number, number] => {
    const turn = (Math.PI / 2) * (k / rings);
    return [radius * Math.sin(turn), radius * Math.cos(turn)];
  });
  return lathe([...profile, [0, 0]], around);
}

/** Every edge is shared by two triangles that run along it opposite ways. */
export function isClosed(mesh: TriangleMesh): boolean {
  return !adjacencyOf(mesh).across.includes(OPEN);
}
