import { adjacencyOf } from "./adjacency.ts";
import type { TriangleMesh } from "./mesh.ts";
import { perMesh } from "./perMesh.ts";

/**
 * Neighbour lists of the vertices in compressed rows; each neighbour once where the triangles are turned alike and two
 * meet at an edge.
 */
export const vertexNeighbours = perMesh(
  (mesh: TriangleMesh): { readonly start: Uint32Array; readonly list: Uint32Array } => {
    const { triangles: t, positions } = mesh;
    const { across } = adjacencyOf(mesh);
    const vertices = positions.length / 3;
    const start = new Uint32Array(vertices + 1);
    // Round a vertex every neighbour is met once as the next corner, but for the last where no other triangle follows.
    for (let k = 0; k < t.length; k += 3) {
      for (let c = 0; c < 3; c++) {
        start[t[k + c] + 1]++;
        if (across[k + c] < 0) start[t[c === 2 ? k : k + c + 1] + 1]++;
      }
    }
    for (let v = 0; v < vertices; v++) start[v + 1] += start[v];
    const cursor = start.slice();
    const list = new Uint32Array(start[vertices]);
    for (let k = 0; k < t.length; k += 3) {
      for (let c = 0; c < 3; c++) {
        const v = t[k + c];
        const next = t[c === 2 ? k : k + c + 1];
        list[cursor[v]++] = next;
        if (across[k + c] < 0) list[cursor[next]++] = v;
      }
    }
    return { start, list };
  },
);
