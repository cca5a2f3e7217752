import type { TriangleMesh } from "./mesh.ts";

/** Corners of a scan as near as this share of its size are at one place. */
export const JOINED_SHARE = 1e-6;

/**
 * Welding: vertices that fall in the same cell of a fine lattice become one. Points on a lattice of 1e-6 of the
 * size are equal for every scanner; the hash table uses open addressing and is sized once.
 */
export function weld(mesh: TriangleMesh, latticeMm: number): TriangleMesh {
  const p = mesh.positions;
  const count = p.length / 3;
  let capacity = 1024;
  while (capacity < count * 2) capacity *= 2;
  const mask = capacity - 1;
  const table = new Int32Array(capacity).fill(-1);
  const kept = new Float32Array(p.length);
  const keys = new Int32Array(p.length);
  const renumber = new Uint32Array(count);
  const inverse = 1 / latticeMm;
  let keptCount = 0;
  for (let v = 0; v < count; v++) {
    const i = Math.round(p[3 * v] * inverse) | 0;
    const j = Math.round(p[3 * v + 1] * inverse) | 0;
    const k = Math.round(p[3 * v + 2] * inverse) | 0;
    let slot = hash3(i, j, k) & mask;
    let found = table[slot];
    while (found >= 0 && (keys[3 * found] !== i || keys[3 * found + 1] !== j || keys[3 * found + 2] !== k)) {
      slot = (slot + 1) & mask;
      found = table[slot];
    }
    if (found < 0) {
      found = keptCount++;
      table[slot] = found;
      keys[3 * found] = i;
      keys[3 * found + 1] = j;
      keys[3 * found + 2] = k;
      kept[3 * found] = p[3 * v];
      kept[3 * found + 1] = p[3 * v + 1];
      kept[3 * found + 2] = p[3 * v + 2];
    }
    renumber[v] = found;
  }
  const triangles = new Uint32Array(mesh.triangles.length);
  for (let k = 0; k < triangles.length; k++) triangles[k] = renumber[mesh.triangles[k]];
  return { positions: kept.slice(0, keptCount * 3), triangles };
}

function hash3(i: number, j: number, k: number): number {
  let h = Math.imul(i, 0x9e3779b1) ^ Math.imul(j, 0x85ebca77) ^ Math.imul(k, 0xc2b2ae3d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x2c1b3c6d);
  h ^= h >>> 13;
  return h >>> 0;
}

/** Drops the vertices no triangle uses. */
export function dropUnusedVertices(mesh: TriangleMesh): TriangleMesh {
  return usedVertices(mesh).mesh;
}

/** A mesh without the vertices no triangle uses, and for each that is left which one it was. */
export function usedVertices(mesh: TriangleMesh): { readonly mesh: TriangleMesh; readonly from: Uint32Array } {
  const number = new Int32Array(mesh.positions.length / 3).fill(-1);
  let count = 0;
  const triangles = new Uint32Array(mesh.triangles.length);
  for (let k = 0; k < triangles.length; k++) {
    const v = mesh.triangles[k];
    if (number[v] < 0) number[v] = count++;
    triangles[k] = number[v];
  }
  const positions = new Float32Array(count * 3);
  const from = new Uint32Array(count);
  for (let v = 0; v < number.length; v++) {
    if (number[v] < 0) continue;
    from[number[v]] = v;
    for (let a = 0; a < 3; a++) positions[3 * number[v] + a] = mesh.positions[3 * v + a];
  }
  return { mesh: { positions, triangles }, from };
}
