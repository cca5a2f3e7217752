import type { TriangleMesh } from "./mesh.ts";
import { perMesh } from "./perMesh.ts";

/** Neighbour lists of the vertices in compressed rows. */
export const vertexNeighbours = perMesh(
  (mesh: TriangleMesh): { readonly start: Uint32Array; readonly list: Uint32Array } => {
    const t = mesh.triangles;
    const vertices = mesh.positions.length / 3;
    const start = new Uint32Array(vertices + 1);
    for (let k = 0; k < t.length; k++) start[t[k] + 1] += 2;
    for (let v = 0; v < vertices; v++) start[v + 1] += start[v];
    const cursor = start.slice();
    const list = new Uint32Array(t.length * 2);
    for (let k = 0; k < t.length; k += 3) {
      for (let c = 0; c < 3; c++) {
        list[cursor[t[k + c]]++] = t[k + ((c + 1) % 3)];
        list[cursor[t[k + c]]++] = t[k + ((c + 2) % 3)];
      }
    }
    return { start, list };
  },
);
