import { FloatList, IndexList } from "./lists.ts";
import type { TriangleMesh } from "./mesh.ts";
import { dropUnusedVertices } from "./weld.ts";

/**
 * The part of a mesh above the plane z = heightMm, cut exactly. The cut is left open: on z = 0 the divergence
 * theorem needs no lid.
 */
export function clipAbove(mesh: TriangleMesh, heightMm: number): TriangleMesh {
  const { positions: p, triangles: t } = mesh;
  const vertices = p.length / 3;
  let below = false;
  for (let v = 2; v < p.length && !below; v += 3) below = p[v] < heightMm;
  if (!below) return mesh;
  const added = new FloatList();
  const kept = new IndexList();
  const cuts = new Map<number, number>();
  const cut = (a: number, b: number): number => {
    const low = Math.min(a, b);
    const high = Math.max(a, b);
    const key = low * vertices + high;
    const known = cuts.get(key);
    if (known !== undefined) return known;
    const s = (heightMm - p[3 * low + 2]) / (p[3 * high + 2] - p[3 * low + 2]);
    added.push3(
      p[3 * low] + s * (p[3 * high] - p[3 * low]),
      p[3 * low + 1] + s * (p[3 * high + 1] - p[3 * low + 1]),
      heightMm,
    );
    const number = vertices + added.length / 3 - 1;
    cuts.set(key, number);
    return number;
  };
  for (let k = 0; k < t.length; k += 3) {
    const [za, zb, zc] = [p[3 * t[k] + 2], p[3 * t[k + 1] + 2], p[3 * t[k + 2] + 2]];
    if (za < heightMm && zb < heightMm && zc < heightMm) continue;
    if (za >= heightMm && zb >= heightMm && zc >= heightMm) {
      kept.push3(t[k], t[k + 1], t[k + 2]);
      continue;
    }
    const polygon: number[] = [];
    for (let c = 0; c < 3; c++) {
      const a = t[k + c];
      const b = t[k + ((c + 1) % 3)];
      const aIn = p[3 * a + 2] >= heightMm;
      if (aIn) polygon.push(a);
      if (aIn !== p[3 * b + 2] >= heightMm) polygon.push(cut(a, b));
    }
    for (let c = 1; c + 1 < polygon.length; c++) kept.push3(polygon[0], polygon[c], polygon[c + 1]);
  }
  const positions = new Float32Array(p.length + added.length);
  positions.set(p);
  positions.set(added.data.subarray(0, added.length), p.length);
  return dropUnusedVertices({ positions, triangles: kept.done() });
}
