/** What a labelling costs: the Potts energy that sections are looked for by. */
import type { VertexGraph } from "./graph.ts";

export interface LabellingProblem {
  readonly graph: VertexGraph;
  /** Cost of each label at each vertex: labels arrays of vertices, any one unit. */
  readonly costs: readonly Float32Array[];
  /** What a seam across each edge costs, in the same unit. */
  readonly seamCost: Float32Array;
}

/** Energy of a labelling. */
export function labellingEnergy(problem: LabellingProblem, label: Uint8Array): number {
  const { graph, costs, seamCost } = problem;
  let energy = 0;
  for (let v = 0; v < graph.vertices; v++) energy += costs[label[v]][v];
  for (let e = 0; e < graph.seamMm.length; e++) {
    if (label[graph.edges[2 * e]] !== label[graph.edges[2 * e + 1]]) energy += seamCost[e];
  }
  return energy;
}
