/** A rib as a body: a ridge along its way over the shell, or a pole with what is wrapped over it. */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type Rib, turnRad } from "./ribs.ts";
import { EMBEDDED_MM, type RibShape, ROUND, type StandingRib, stretchesMm } from "./shape.ts";

type Xyz = [number, number, number];

/** The outline of a rib at one of its points, from one side over its back to the other. */
function ridgeAt({ points: p, normals: n }: Rib, k: number, shellMm: number, { widthMm, heightMm }: RibShape): Xyz[] {
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
    const outMm = shellMm - EMBEDDED_MM + (heightMm + EMBEDDED_MM) * Math.sin(turn);
    const asideMm = (widthMm / 2) * Math.cos(turn);
    return [0, 1, 2].map((a) => p[3 * k + a] + outMm * normal[a] + (asideMm * side[a]) / length) as Xyz;
  });
}

/** The stretches of a rib that stand, from one of its ends to the other. */
export function standingRibs(rib: Rib, flangeMm: number, shape: RibShape): (Rib & StandingRib)[] {
  const { points: p } = rib;
  const alongMm = [0];
  for (let k = 3; k < p.length; k += 3)
    alongMm.push(alongMm[k / 3 - 1] + Math.hypot(...[0, 1, 2].map((a) => p[k + a] - p[k - 3 + a])));
  const wholeMm = alongMm[alongMm.length - 1];
  const at = (values: readonly number[], mm: number) => {
    const k = Math.max(
      1,
      alongMm.findIndex((each) => each >= mm),
    );
    const share = (mm - alongMm[k - 1]) / (alongMm[k] - alongMm[k - 1]);
    return [0, 1, 2].map((a) => values[3 * (k - 1) + a] * (1 - share) + values[3 * k + a] * share);
  };
  const turned = (mm: number) => {
    const normal = at(rib.normals, mm);
    return normal.map((value) => value / (Math.hypot(...normal) || 1));
  };
  return stretchesMm({ ...rib, lengthMm: wholeMm }, flangeMm, shape).map(([fromMm, toMm]) => {
    const places = [fromMm, ...alongMm.filter((mm) => mm > fromMm && mm < toMm), toMm];
    const [points, normals] = [places.flatMap((mm) => at(p, mm)), places.flatMap(turned)];
    return { ...rib, lengthMm: toMm - fromMm, points, normals, turnRad: turnRad(points, normals) };
  });
}

/** The outlines of a rib from end to end. */
export function ridgeRings(rib: Rib, shellMm: number, shape: RibShape): Xyz[][] {
  return Array.from({ length: rib.points.length / 3 }, (_, k) => ridgeAt(rib, k, shellMm, shape));
}

/** A rib as it is shown: a closed body for each stretch of it that stands. */
export function ribBodies(rib: Rib, shellMm: number, flangeMm: number, shape: RibShape): TriangleMesh[] {
  return standingRibs(rib, flangeMm, shape).map((standing) => closedAlong(ridgeRings(standing, shellMm, shape)));
}

function closedAlong(rings: readonly Xyz[][]): TriangleMesh {
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
