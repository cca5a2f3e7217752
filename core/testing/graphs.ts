/** Small graphs and labelling problems for tests. */
import type { LabellingProblem } from "../parting/graph/energy.ts";
import type { VertexGraph } from "../parting/graph/graph.ts";

/** A grid graph with a seam of one along every edge. */
export function gridGraph(width: number, height: number): VertexGraph {
  const edges: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const v = x + width * y;
      if (x + 1 < width) edges.push(v, v + 1);
      if (y + 1 < height) edges.push(v, v + width);
    }
  }
  return {
    vertices: width * height,
    edges: Uint32Array.from(edges),
    seamMm: new Float32Array(edges.length / 2).fill(1),
  };
}

/** A labelling problem on a grid graph, every seam at one price. */
export function problemOf(graph: VertexGraph, table: readonly ArrayLike<number>[], seam: number): LabellingProblem {
  return {
    graph,
    costs: table.map((row) => Float32Array.from(row)),
    seamCost: new Float32Array(graph.edges.length / 2).fill(seam),
  };
}
