import type { TriangleMesh } from "./mesh.ts";
import { perMesh } from "./perMesh.ts";

/** No neighbour: the edge is open. */
export const OPEN = -1;
/** More than two triangles share the edge. */
export const NON_MANIFOLD = -2;

/**
 * Who lies across each edge. `across[3 t + e]` is the half-edge (3 t' + e') that shares the edge from corner e to
 * corner e + 1 of triangle t, or OPEN, or NON_MANIFOLD.
 */
export interface Adjacency {
  readonly across: Int32Array;
  readonly openEdges: number;
  readonly nonManifoldEdges: number;
}

/** Pairs half-edges by bucketing them on their smaller vertex: linear in the number of triangles. */
function buildAdjacency(mesh: TriangleMesh): Adjacency {
  const t = mesh.triangles;
  const halfEdges = t.length;
  const vertices = mesh.positions.length / 3;
  const start = new Uint32Array(vertices + 1);
  const low = (e: number) => {
    const a = t[e];
    const b = t[e % 3 === 2 ? e - 2 : e + 1];
    return a < b ? a : b;
  };
  for (let e = 0; e < halfEdges; e++) start[low(e) + 1]++;
  for (let v = 0; v < vertices; v++) start[v + 1] += start[v];
  const cursor = start.slice(0, vertices);
  const bucket = new Uint32Array(halfEdges);
  const high = new Uint32Array(halfEdges);
  for (let e = 0; e < halfEdges; e++) {
    const a = t[e];
    const b = t[e % 3 === 2 ? e - 2 : e + 1];
    const at = cursor[a < b ? a : b]++;
    bucket[at] = e;
    high[at] = a < b ? b : a;
  }
  return pairBuckets(vertices, start, bucket, high);
}

/** Who lies across each edge, worked out once for each mesh. */
export const adjacencyOf = perMesh(buildAdjacency);

function pairBuckets(vertices: number, start: Uint32Array, bucket: Uint32Array, high: Uint32Array): Adjacency {
  const across = new Int32Array(bucket.length).fill(OPEN);
  let openEdges = 0;
  let nonManifoldEdges = 0;
  for (let v = 0; v < vertices; v++) {
    const end = start[v + 1];
    for (let i = start[v]; i < end; i++) {
      const e = bucket[i];
      if (across[e] !== OPEN) continue;
      let mates = 0;
      let mate = -1;
      for (let j = i + 1; j < end; j++) {
        if (high[j] !== high[i]) continue;
        mates++;
        mate = bucket[j];
      }
      if (mates === 0) openEdges++;
      else if (mates === 1) {
        across[e] = mate;
        across[mate] = e;
      } else {
        nonManifoldEdges++;
        for (let j = i; j < end; j++) if (high[j] === high[i]) across[bucket[j]] = NON_MANIFOLD;
      }
    }
  }
  return { across, openEdges, nonManifoldEdges };
}

/** Part number of every triangle, parts being joined by shared vertices; and how many parts there are. */
export function labelParts(mesh: TriangleMesh): { part: Uint32Array; parts: number } {
  const t = mesh.triangles;
  const parent = new Int32Array(mesh.positions.length / 3);
  for (let v = 0; v < parent.length; v++) parent[v] = v;
  const find = (v: number) => {
    while (parent[v] !== v) {
      parent[v] = parent[parent[v]];
      v = parent[v];
    }
    return v;
  };
  for (let k = 0; k < t.length; k += 3) {
    const a = find(t[k]);
    const b = find(t[k + 1]);
    if (a !== b) parent[b] = a;
    const c = find(t[k + 2]);
    if (c !== a) parent[c] = a;
  }
  const number = new Int32Array(parent.length).fill(-1);
  const part = new Uint32Array(t.length / 3);
  let parts = 0;
  for (let k = 0; k < part.length; k++) {
    const root = find(t[3 * k]);
    if (number[root] < 0) number[root] = parts++;
    part[k] = number[root];
  }
  return { part, parts };
}
