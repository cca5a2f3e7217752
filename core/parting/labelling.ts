/**
 * Which section each vertex of the jacket belongs to: a Potts labelling of least energy,
 *   sum over vertices of cost(label) + lambda x length of the seams between different labels,
 * by expansion moves (Boykov, Veksler and Zabih 2001), each an exact minimum cut. Sections are then made one
 * connected piece each: islands go to the neighbour that takes them at the least price.
 */
import type { TriangleMesh } from "../mesh/mesh.ts";
import { MaxFlow } from "./maxflow.ts";

/** The graph of a mesh's vertices: its edges with the length of seam that cutting each one makes. */
export interface VertexGraph {
  readonly vertices: number;
  /** Vertex pairs, two an edge. */
  readonly edges: Uint32Array;
  /** Length of the dual edge, mm. */
  readonly seamMm: Float32Array;
}

export function vertexGraph(mesh: TriangleMesh): VertexGraph {
  const { positions: p, triangles: t } = mesh;
  const vertices = p.length / 3;
  const number = new Map<number, number>();
  const edges: number[] = [];
  const seam: number[] = [];
  for (let k = 0; k < t.length; k += 3) {
    const centre = [0, 1, 2].map((a) => (p[3 * t[k] + a] + p[3 * t[k + 1] + a] + p[3 * t[k + 2] + a]) / 3);
    for (let e = 0; e < 3; e++) {
      const a = Math.min(t[k + e], t[k + ((e + 1) % 3)]);
      const b = Math.max(t[k + e], t[k + ((e + 1) % 3)]);
      const key = a * vertices + b;
      let n = number.get(key);
      if (n === undefined) {
        n = seam.length;
        number.set(key, n);
        edges.push(a, b);
        seam.push(0);
      }
      let reach2 = 0;
      for (let x = 0; x < 3; x++) reach2 += ((p[3 * a + x] + p[3 * b + x]) / 2 - centre[x]) ** 2;
      seam[n] += Math.sqrt(reach2);
    }
  }
  return { vertices, edges: Uint32Array.from(edges), seamMm: Float32Array.from(seam) };
}

export interface LabellingProblem {
  readonly graph: VertexGraph;
  /** Cost of each label at each vertex: labels arrays of vertices, any one unit. */
  readonly costs: readonly Float32Array[];
  /** Cost of a millimetre of seam, in the same unit. */
  readonly perSeamMm: number;
}

/** Energy of a labelling. */
export function labellingEnergy(problem: LabellingProblem, label: Uint8Array): number {
  const { graph, costs, perSeamMm } = problem;
  let energy = 0;
  for (let v = 0; v < graph.vertices; v++) energy += costs[label[v]][v];
  for (let e = 0; e < graph.seamMm.length; e++) {
    if (label[graph.edges[2 * e]] !== label[graph.edges[2 * e + 1]]) energy += perSeamMm * graph.seamMm[e];
  }
  return energy;
}

/** Labels of least energy (within the expansion move's guarantee; exact for two labels). */
export function labelVertices(problem: LabellingProblem): Uint8Array {
  const { graph, costs } = problem;
  const label = new Uint8Array(graph.vertices);
  for (let v = 0; v < graph.vertices; v++) {
    for (let l = 1; l < costs.length; l++) if (costs[l][v] < costs[label[v]][v]) label[v] = l;
  }
  let energy = labellingEnergy(problem, label);
  for (let round = 0; round < 5; round++) {
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

/** The best labelling in which every vertex keeps its label or takes alpha (Kolmogorov and Zabih 2004). */
function expand(problem: LabellingProblem, label: Uint8Array, alpha: number): Uint8Array {
  const { graph, costs, perSeamMm } = problem;
  const flow = new MaxFlow(graph.vertices, graph.seamMm.length);
  // Source side keeps its label, sink side takes alpha.
  for (let v = 0; v < graph.vertices; v++) flow.addTerminal(v, costs[alpha][v], costs[label[v]][v]);
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = graph.edges[2 * e];
    const b = graph.edges[2 * e + 1];
    const w = perSeamMm * graph.seamMm[e];
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

/** Gives every island of a section (all but its largest piece) to the neighbour that takes it at the least price. */
export function absorbIslands(problem: LabellingProblem, label: Uint8Array, weight: Float32Array): Uint8Array {
  const out = label.slice();
  const near = neighbours(problem.graph);
  for (let round = 0; round < 8; round++) {
    const { piece, weightOf, labelOf } = connectedPieces(problem.graph.vertices, near, out, weight);
    const largest = new Map<number, number>();
    weightOf.forEach((w, k) => {
      const held = largest.get(labelOf[k]);
      if (held === undefined || w > weightOf[held]) largest.set(labelOf[k], k);
    });
    const islands = weightOf.map((_, k) => k).filter((k) => largest.get(labelOf[k]) !== k);
    if (islands.length === 0) break;
    reassign(problem, near, piece, new Set(islands), out);
  }
  return out;
}

function reassign(
  problem: LabellingProblem,
  near: Neighbours,
  piece: Int32Array,
  islands: Set<number>,
  label: Uint8Array,
): void {
  const price = new Map<number, Map<number, number>>();
  const members = new Map<number, number[]>();
  for (let v = 0; v < piece.length; v++) {
    if (!islands.has(piece[v])) continue;
    const list = members.get(piece[v]) ?? [];
    members.set(piece[v], list);
    list.push(v);
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const other = near.list[k];
      if (label[other] === label[v]) continue;
      const prices = price.get(piece[v]) ?? new Map<number, number>();
      price.set(piece[v], prices);
      prices.set(
        label[other],
        (prices.get(label[other]) ?? 0) - problem.perSeamMm * problem.graph.seamMm[near.edge[k]],
      );
    }
  }
  for (const [island, list] of members) {
    let best = -1;
    let least = Infinity;
    for (const [candidate, seam] of price.get(island) ?? []) {
      let cost = seam;
      for (const v of list) cost += problem.costs[candidate][v];
      if (cost < least) {
        least = cost;
        best = candidate;
      }
    }
    if (best >= 0) for (const v of list) label[v] = best;
  }
}

interface Neighbours {
  readonly start: Uint32Array;
  readonly list: Uint32Array;
  readonly edge: Uint32Array;
}

function neighbours(graph: VertexGraph): Neighbours {
  const start = new Uint32Array(graph.vertices + 1);
  for (const v of graph.edges) start[v + 1]++;
  for (let v = 0; v < graph.vertices; v++) start[v + 1] += start[v];
  const cursor = start.slice();
  const list = new Uint32Array(graph.edges.length);
  const edge = new Uint32Array(graph.edges.length);
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = graph.edges[2 * e];
    const b = graph.edges[2 * e + 1];
    list[cursor[a]] = b;
    edge[cursor[a]++] = e;
    list[cursor[b]] = a;
    edge[cursor[b]++] = e;
  }
  return { start, list, edge };
}

function connectedPieces(vertices: number, near: Neighbours, label: Uint8Array, weight: Float32Array) {
  const piece = new Int32Array(vertices).fill(-1);
  const weightOf: number[] = [];
  const labelOf: number[] = [];
  const stack: number[] = [];
  for (let seed = 0; seed < vertices; seed++) {
    if (piece[seed] >= 0) continue;
    const number = weightOf.length;
    weightOf.push(0);
    labelOf.push(label[seed]);
    piece[seed] = number;
    stack.push(seed);
    while (stack.length > 0) {
      const v = stack.pop() as number;
      weightOf[number] += weight[v];
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const other = near.list[k];
        if (piece[other] >= 0 || label[other] !== label[v]) continue;
        piece[other] = number;
        stack.push(other);
      }
    }
  }
  return { piece, weightOf, labelOf };
}
