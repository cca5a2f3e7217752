/**
 * Which section each vertex of the jacket belongs to: a Potts labelling of least energy,
 *   sum over vertices of cost(label) + sum of the price of the seams between different labels,
 * by expansion moves (Boykov, Veksler and Zabih 2001), each an exact minimum cut.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { MaxFlow } from "./maxflow.ts";

/** The graph of a mesh's vertices: its edges with the length of seam that cutting each one makes. */
export interface VertexGraph {
  readonly vertices: number;
  /** Vertex pairs, two an edge. */
  readonly edges: Uint32Array;
  /** Length of the dual edge, mm; times its weight where seams are weighted. */
  readonly seamMm: Float32Array;
}

/** Gathers a graph's edges, each once, with the lengths of its seams added up. */
export class GraphBuilder {
  private readonly number = new Map<number, number>();
  private readonly edges: number[] = [];
  private readonly seamMm: number[] = [];

  constructor(private readonly vertices: number) {}

  /** Adds a length of seam between two vertices, in either order. */
  add(one: number, other: number, seamMm: number): void {
    const a = Math.min(one, other);
    const b = Math.max(one, other);
    const key = a * this.vertices + b;
    let n = this.number.get(key);
    if (n === undefined) {
      n = this.seamMm.length;
      this.number.set(key, n);
      this.edges.push(a, b);
      this.seamMm.push(0);
    }
    this.seamMm[n] += seamMm;
  }

  build(): VertexGraph {
    return {
      vertices: this.vertices,
      edges: Uint32Array.from(this.edges),
      seamMm: Float32Array.from(this.seamMm),
    };
  }
}

/** @param weight how many times a seam counts at each vertex; once where left out */
export function vertexGraph(mesh: TriangleMesh, weight: Float32Array | null = null): VertexGraph {
  const { positions: p, triangles: t } = mesh;
  const builder = new GraphBuilder(p.length / 3);
  for (let k = 0; k < t.length; k += 3) {
    const centre = [0, 1, 2].map((a) => (p[3 * t[k] + a] + p[3 * t[k + 1] + a] + p[3 * t[k + 2] + a]) / 3);
    for (let e = 0; e < 3; e++) {
      const a = t[k + e];
      const b = t[k + ((e + 1) % 3)];
      let reach2 = 0;
      for (let x = 0; x < 3; x++) reach2 += ((p[3 * a + x] + p[3 * b + x]) / 2 - centre[x]) ** 2;
      builder.add(a, b, Math.sqrt(reach2) * (weight ? (weight[a] + weight[b]) / 2 : 1));
    }
  }
  return builder.build();
}

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

/** Rounds of expansion over all labels; two are the rule. */
const ROUNDS = 5;

/**
 * Labels of least energy (within the expansion move's guarantee; exact for two labels).
 * @param start labels to begin from; each vertex's cheapest where left out
 */
export function labelVertices(problem: LabellingProblem, start?: ArrayLike<number>): Uint8Array {
  const { costs } = problem;
  const label = start ? Uint8Array.from(start) : cheapestLabels(problem);
  let energy = labellingEnergy(problem, label);
  for (let round = 0; round < ROUNDS; round++) {
    const before = energy;
    for (let alpha = 0; alpha < costs.length; alpha++) {
      const trial = expand(problem, label, alpha);
      const trialEnergy = labellingEnergy(problem, trial);
      if (trialEnergy < energy) {
        energy = trialEnergy;
        label.set(trial);
      }
    }
    if (energy >= before * (1 - 1e-6)) break;
  }
  return label;
}

function cheapestLabels({ graph, costs }: LabellingProblem): Uint8Array {
  const label = new Uint8Array(graph.vertices);
  for (let v = 0; v < graph.vertices; v++) {
    for (let l = 1; l < costs.length; l++) if (costs[l][v] < costs[label[v]][v]) label[v] = l;
  }
  return label;
}

/** The best labelling in which every vertex keeps its label or takes alpha (Kolmogorov and Zabih 2004). */
function expand(problem: LabellingProblem, label: Uint8Array, alpha: number): Uint8Array {
  const { graph, costs, seamCost } = problem;
  const flow = new MaxFlow(graph.vertices, graph.seamMm.length);
  // Source side keeps its label, sink side takes alpha.
  for (let v = 0; v < graph.vertices; v++) flow.addTerminal(v, costs[alpha][v], costs[label[v]][v]);
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = graph.edges[2 * e];
    const b = graph.edges[2 * e + 1];
    const w = seamCost[e];
    const keepKeep = label[a] === label[b] ? 0 : w;
    const keepTake = label[a] === alpha ? 0 : w;
    const takeKeep = label[b] === alpha ? 0 : w;
    if (keepKeep === 0 && keepTake === 0) continue;
    // E(xa, xb) with x = 1 for take, as terms on the nodes and one arc from a (keep) to b (take).
    flow.addTerminal(a, takeKeep, keepKeep);
    flow.addTerminal(b, 0, takeKeep);
    flow.addEdge(a, b, keepTake + takeKeep - keepKeep, 0);
  }
  flow.solve();
  const out = label.slice();
  for (let v = 0; v < graph.vertices; v++) if (!flow.onSourceSide(v)) out[v] = alpha;
  return out;
}
