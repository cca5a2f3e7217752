/**
 * Patches: small connected clusters of a graph's vertices, on which a search can look round quickly before its answer
 * is worked out on the vertices themselves. Costs of a patch are the sums of its vertices' costs, so a labelling of
 * patches has the same energy as the labelling of vertices it stands for.
 */
import { GraphBuilder, type Neighbours, type VertexGraph } from "./graph.ts";

export interface Patches {
  /** Patch of each vertex. */
  readonly of: Int32Array;
  readonly graph: VertexGraph;
}

/** Clusters of about `size` vertices, each grown breadth first from the lowest vertex still free. */
export function patchesOf(graph: VertexGraph, near: Neighbours, size: number): Patches {
  const of = new Int32Array(graph.vertices).fill(-1);
  const queue = new Uint32Array(graph.vertices);
  let patches = 0;
  for (let seed = 0; seed < graph.vertices; seed++) {
    if (of[seed] >= 0) continue;
    let head = 0;
    let tail = 0;
    of[seed] = patches;
    queue[tail++] = seed;
    while (head < tail && tail < size) {
      const v = queue[head++];
      for (let k = near.start[v]; k < near.start[v + 1] && tail < size; k++) {
        const other = near.list[k];
        if (of[other] >= 0) continue;
        of[other] = patches;
        queue[tail++] = other;
      }
    }
    patches++;
  }
  return { of, graph: contracted(graph, of, patches) };
}

/** The graph of the patches: one edge where patches touch, with the length of all their seams. */
function contracted(graph: VertexGraph, of: Int32Array, patches: number): VertexGraph {
  const builder = new GraphBuilder(patches);
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = of[graph.edges[2 * e]];
    const b = of[graph.edges[2 * e + 1]];
    if (a !== b) builder.add(a, b, graph.seamMm[e]);
  }
  return builder.build();
}

/** Sums of a value over the vertices of each patch. */
export function patchSums(patches: Pick<Patches, "of">, values: Float32Array, out: Float32Array): void {
  for (let v = 0; v < values.length; v++) out[patches.of[v]] += values[v];
}
