/** Splits the long edges of a mesh, so that colours painted on its vertices have clean borders. The surface stays the same. */
import { FloatList, IndexList } from "./lists.ts";
import type { TriangleMesh } from "./mesh.ts";

/** Rounds of halving, at most: a thin triangle takes more than its length would. */
const ROUNDS = 8;

/** @param longestMm no edge is longer afterwards, but for some of those more than 60 times as long before */
export function refined(mesh: TriangleMesh, longestMm: number): TriangleMesh {
  let held = mesh;
  for (let round = 0; round < ROUNDS; round++) {
    const next = halved(held, longestMm);
    if (next === held) break;
    held = next;
  }
  return held;
}

/** Every edge that is too long is split at its middle, in all triangles at it alike. */
function halved(mesh: TriangleMesh, longestMm: number): TriangleMesh {
  const { positions: p, triangles: t } = mesh;
  const vertices = p.length / 3;
  const middles = new Map<number, number>();
  const added = new FloatList();
  const out = new IndexList();
  let count = vertices;
  /** The vertex in the middle of an edge; -1 where it is short enough. */
  const middleOf = (a: number, b: number): number => {
    const d2 = (p[3 * a] - p[3 * b]) ** 2 + (p[3 * a + 1] - p[3 * b + 1]) ** 2 + (p[3 * a + 2] - p[3 * b + 2]) ** 2;
    if (d2 <= longestMm * longestMm) return -1;
    const key = Math.min(a, b) * vertices + Math.max(a, b);
    const known = middles.get(key);
    if (known !== undefined) return known;
    added.push3((p[3 * a] + p[3 * b]) / 2, (p[3 * a + 1] + p[3 * b + 1]) / 2, (p[3 * a + 2] + p[3 * b + 2]) / 2);
    middles.set(key, count);
    return count++;
  };
  for (let k = 0; k < t.length; k += 3) {
    const corner = [t[k], t[k + 1], t[k + 2]];
    const middle = [0, 1, 2].map((e) => middleOf(corner[e], corner[(e + 1) % 3]));
    splitInto(out, corner, middle);
  }
  if (middles.size === 0) return mesh;
  const positions = new Float32Array(3 * count);
  positions.set(p);
  positions.set(added.done(), p.length);
  return { positions, triangles: out.done() };
}

/** A triangle by the middles of its split edges: one, two, three or four of its own. */
function splitInto(out: IndexList, corner: readonly number[], middle: readonly number[]): void {
  const split = middle.filter((m) => m >= 0).length;
  if (split === 3) {
    for (let e = 0; e < 3; e++) out.push3(corner[e], middle[e], middle[(e + 2) % 3]);
    out.push3(middle[0], middle[1], middle[2]);
    return;
  }
  if (split === 0) {
    out.push3(corner[0], corner[1], corner[2]);
    return;
  }
  // Turned so that with one split edge it is the first, with two the whole one is the last.
  const first = split === 1 ? middle.findIndex((m) => m >= 0) : (middle.indexOf(-1) + 1) % 3;
  const [a, b, c] = [0, 1, 2].map((n) => corner[(first + n) % 3]);
  const [ab, bc] = [0, 1].map((n) => middle[(first + n) % 3]);
  if (split === 1) {
    out.push3(a, ab, c);
    out.push3(ab, b, c);
    return;
  }
  out.push3(ab, b, bc);
  out.push3(a, ab, bc);
  out.push3(a, bc, c);
}
