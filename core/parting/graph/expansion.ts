/**
 * An expansion move (Boykov, Veksler and Zabih 2001): the best labelling in which every vertex keeps its label or takes
 * one other, alpha. It is a minimum cut, of far fewer vertices than there are: most would rather keep, or take,
 * whatever their neighbours do. Those are settled first, one after another, for each that is settled may settle its
 * neighbours (elimination of dead ends: Desmet and others 1992); the cut decides between the rest.
 */
import type { LabellingProblem } from "./energy.ts";
import { type Neighbours, neighbours } from "./graph.ts";
import { MaxFlow } from "./maxflow.ts";

const OPEN = 0;
const KEEPS = 1;
const TAKES = 2;

export class Expansion {
  private readonly near: Neighbours;
  private readonly state: Uint8Array;
  /** What taking alpha costs a vertex more than keeping, at least and at most, by what its open neighbours may do. */
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  /** Vertices settled, in the order they were. */
  private readonly settled: Uint32Array;
  private settledCount = 0;
  /** The number an open vertex has in the cut. */
  private readonly number: Int32Array;

  constructor(private readonly problem: LabellingProblem) {
    const { graph } = problem;
    this.near = neighbours(graph);
    this.state = new Uint8Array(graph.vertices);
    this.least = new Float64Array(graph.vertices);
    this.most = new Float64Array(graph.vertices);
    this.settled = new Uint32Array(graph.vertices);
    this.number = new Int32Array(graph.vertices);
  }

  /** Vertices that the last move needed a cut for. */
  get openCount(): number {
    return this.settled.length - this.settledCount;
  }

  /** The labels of least energy in which every vertex keeps its own or takes alpha. */
  of(label: Uint8Array, alpha: number): Uint8Array {
    this.settleAlone(label, alpha);
    this.settleAmongNeighbours(label, alpha);
    const { state } = this;
    const out = label.slice();
    for (let v = 0; v < out.length; v++) if (state[v] === TAKES) out[v] = alpha;
    if (this.openCount > 0) this.cutOpen(label, alpha, out);
    return out;
  }

  /** Weighs every vertex by itself, and settles those that no neighbours could sway. */
  private settleAlone(label: Uint8Array, alpha: number): void {
    const { graph, costs, seamCost } = this.problem;
    const { state, least, most } = this;
    state.fill(OPEN);
    this.settledCount = 0;
    for (let v = 0; v < graph.vertices; v++) {
      const more = costs[alpha][v] - costs[label[v]][v];
      least[v] = more;
      most[v] = more;
    }
    for (let e = 0; e < seamCost.length; e++) {
      const a = graph.edges[2 * e];
      const b = graph.edges[2 * e + 1];
      const w = seamCost[e];
      // Of a neighbour that takes too, the seam is saved that there would be if it alone took.
      least[a] -= w;
      most[a] += sway(label[a], label[b], alpha, w) - w;
      least[b] -= w;
      most[b] += sway(label[b], label[a], alpha, w) - w;
    }
    for (let v = 0; v < graph.vertices; v++) {
      if (label[v] === alpha) this.settle(v, TAKES);
      else this.settleIfSure(v);
    }
  }

  private settleIfSure(v: number): void {
    if (this.least[v] > 0) this.settle(v, KEEPS);
    else if (this.most[v] < 0) this.settle(v, TAKES);
  }

  private settle(v: number, state: number): void {
    this.state[v] = state;
    this.settled[this.settledCount++] = v;
  }

  /** Tells the neighbours of the settled what they do, until nobody is settled by that any more. */
  private settleAmongNeighbours(label: Uint8Array, alpha: number): void {
    const { seamCost } = this.problem;
    const { near, state, least, most } = this;
    for (let read = 0; read < this.settledCount; read++) {
      const v = this.settled[read];
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const u = near.list[k];
        if (state[u] !== OPEN) continue;
        const swayed = sway(label[u], label[v], alpha, seamCost[near.edge[k]]);
        if (state[v] === KEEPS) least[u] += swayed;
        else most[u] -= swayed;
        this.settleIfSure(u);
      }
    }
  }

  /**
   * Decides between the open vertices by a minimum cut. What a seam between two of them costs is half what it sways them
   * by where they part, and for each the middle of what it may add (Kolmogorov and Zabih 2004).
   */
  private cutOpen(label: Uint8Array, alpha: number, out: Uint8Array): void {
    const { graph, seamCost } = this.problem;
    const { state, number, least, most } = this;
    let open = 0;
    for (let v = 0; v < graph.vertices; v++) number[v] = state[v] === OPEN ? open++ : -1;
    let between = 0;
    for (let e = 0; e < seamCost.length; e++) {
      if (number[graph.edges[2 * e]] >= 0 && number[graph.edges[2 * e + 1]] >= 0) between++;
    }
    const flow = new MaxFlow(open, between);
    // Source side keeps its label, sink side takes alpha.
    for (let v = 0; v < graph.vertices; v++) {
      if (number[v] >= 0) flow.addTerminal(number[v], (least[v] + most[v]) / 2, 0);
    }
    for (let e = 0; e < seamCost.length; e++) {
      const a = graph.edges[2 * e];
      const b = graph.edges[2 * e + 1];
      if (number[a] < 0 || number[b] < 0) continue;
      const half = sway(label[a], label[b], alpha, seamCost[e]) / 2;
      flow.addEdge(number[a], number[b], half, half);
    }
    flow.solve();
    for (let v = 0; v < graph.vertices; v++) if (number[v] >= 0 && !flow.onSourceSide(number[v])) out[v] = alpha;
  }
}

/**
 * How much more taking alpha costs a vertex where its neighbour keeps its label than where that takes alpha too.
 * @param own label of the vertex; of one that is of alpha already the figure means nothing
 * @param seam what a seam between the two costs
 */
function sway(own: number, neighbour: number, alpha: number, seam: number): number {
  return (neighbour === alpha ? 0 : seam) + (own === neighbour ? seam : 0);
}
