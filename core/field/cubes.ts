/**
 * The case table of marching cubes (Lorensen and Cline 1987), made rather than typed in. On a face with four
 * crossings each inside corner is cut off by itself, the same from both sides, so the surface closes; loops are
 * cut into triangles without a diagonal lying in a face of the cube, so no edge is shared by four triangles.
 *
 * Corner c of the cube is (c & 1, c >> 1 & 1, c >> 2). Edge e = 4 * axis + which of the four edges along it.
 */

/** Corner pairs of the 12 edges, lower corner first. */
export const EDGE_CORNERS: readonly (readonly [number, number])[] = [0, 1, 2].flatMap((axis) =>
  [0, 1, 2, 3].map((k) => {
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
    const base = ((k & 1) << u) | ((k >> 1) << v);
    return [base, base | (1 << axis)] as const;
  }),
);

/** The corners of the six faces, counter-clockwise seen from outside the cube. */
const FACES: readonly (readonly number[])[] = [0, 1, 2].flatMap((axis) => {
  const u = 1 << ((axis + 1) % 3);
  const v = 1 << ((axis + 2) % 3);
  const w = 1 << axis;
  return [
    [0, v, u | v, u],
    [w, w | u, w | u | v, w | v],
  ];
});

function edgeBetween(a: number, b: number): number {
  return EDGE_CORNERS.findIndex(([low, high]) => (low === a && high === b) || (low === b && high === a));
}

function shareFace(e: number, f: number): boolean {
  return FACES.some((face) => [...EDGE_CORNERS[e], ...EDGE_CORNERS[f]].every((corner) => face.includes(corner)));
}

function loopsOf(mask: number): number[][] {
  const next = new Map<number, number>();
  const inside = (corner: number) => (mask >> corner) & 1;
  for (const face of FACES) {
    for (let k = 0; k < 4; k++) {
      // Each run of inside corners, entered at one edge and left at another, is cut off by one segment.
      if (inside(face[k]) || !inside(face[(k + 1) % 4])) continue;
      let last = (k + 1) % 4;
      while (inside(face[(last + 1) % 4])) last = (last + 1) % 4;
      next.set(edgeBetween(face[last], face[(last + 1) % 4]), edgeBetween(face[k], face[(k + 1) % 4]));
    }
  }
  const loops: number[][] = [];
  while (next.size > 0) {
    const loop: number[] = [];
    for (let e: number | undefined = next.keys().next().value; e !== undefined && next.has(e); ) {
      loop.push(e);
      const onward: number = next.get(e) as number;
      next.delete(e);
      e = onward;
    }
    loops.push(loop);
  }
  return loops;
}

/** Triangles of a loop, diagonals in faces avoided wherever the loop allows. */
function cut(loop: number[], strict: boolean): number[][] | null {
  if (loop.length === 3) return [[loop[2], loop[1], loop[0]]];
  const n = loop.length;
  for (let k = 0; k < n; k++) {
    const before = loop[(k + n - 1) % n];
    const after = loop[(k + 1) % n];
    if (strict && shareFace(before, after)) continue;
    const rest = cut(
      loop.filter((_, i) => i !== k),
      strict,
    );
    if (rest) return [[after, loop[k], before], ...rest];
  }
  return null;
}

/** For each of the 256 masks of inside corners: edge numbers, three a triangle, facing outwards. */
export const CUBE_TRIANGLES: readonly Uint8Array[] = Array.from({ length: 256 }, (_, mask) =>
  Uint8Array.from(loopsOf(mask).flatMap((loop) => (cut(loop, true) ?? cut(loop, false) ?? []).flat())),
);
