/**
 * Maximum flow / minimum cut by two search trees (Boykov and Kolmogorov 2004). Integer-free: capacities are
 * float64, compared against an absolute `EPSILON`.
 *
 * Layout: node arrays sized once by the node bound; arcs in pairs, arc a and its sister a ^ 1.
 */
const NONE = -1;
const TERMINAL = -2;
const ORPHAN = -3;
const EPSILON = 1e-9;

export class MaxFlow {
  private readonly firstArc: Int32Array;
  private readonly head: Int32Array;
  private readonly nextArc: Int32Array;
  private readonly residual: Float64Array;
  /** Residual to the terminals: above zero from the source, below zero to the sink. */
  private readonly terminal: Float64Array;
  private readonly parent: Int32Array;
  /** 0 free, 1 source tree, 2 sink tree. */
  private readonly tree: Uint8Array;
  private readonly stamp: Int32Array;
  private readonly distance: Int32Array;
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  private queueHead = 0;
  private queueLength = 0;
  private orphans: number[] = [];
  private arcs = 0;
  private time = 0;

  constructor(
    private readonly nodes: number,
    edgeBound: number,
  ) {
    this.firstArc = new Int32Array(nodes).fill(NONE);
    this.head = new Int32Array(2 * edgeBound);
    this.nextArc = new Int32Array(2 * edgeBound);
    this.residual = new Float64Array(2 * edgeBound);
    this.terminal = new Float64Array(nodes);
    this.parent = new Int32Array(nodes).fill(NONE);
    this.tree = new Uint8Array(nodes);
    this.stamp = new Int32Array(nodes);
    this.distance = new Int32Array(nodes);
    this.queue = new Int32Array(nodes + 1);
    this.queued = new Uint8Array(nodes);
  }

  /** Adds capacity from the source to the node and from the node to the sink. */
  addTerminal(node: number, fromSource: number, toSink: number): void {
    this.terminal[node] += fromSource - toSink;
  }

  addEdge(a: number, b: number, forward: number, backward: number): void {
    if (this.arcs + 2 > this.head.length) throw new Error("MaxFlow was sized for fewer edges; raise edgeBound.");
    this.arc(a, b, forward);
    this.arc(b, a, backward);
  }

  private arc(from: number, to: number, capacity: number): void {
    const a = this.arcs++;
    this.head[a] = to;
    this.residual[a] = capacity;
    this.nextArc[a] = this.firstArc[from];
    this.firstArc[from] = a;
  }

  /** Runs to the minimum cut. */
  solve(): void {
    for (let n = 0; n < this.nodes; n++) {
      if (Math.abs(this.terminal[n]) <= EPSILON) continue;
      this.tree[n] = this.terminal[n] > 0 ? 1 : 2;
      this.parent[n] = TERMINAL;
      this.distance[n] = 1;
      this.activate(n);
    }
    let current = NONE;
    for (;;) {
      let node = current;
      if (node !== NONE && this.tree[node] === 0) node = NONE;
      if (node === NONE) node = this.nextActive();
      if (node === NONE) break;
      const bridge = this.grow(node);
      this.time++;
      if (bridge === NONE) {
        current = NONE;
        continue;
      }
      current = node;
      this.augment(bridge);
      this.adopt();
    }
  }

  /** Is the node on the source's side of the minimum cut? */
  onSourceSide(node: number): boolean {
    return this.tree[node] === 1;
  }

  private activate(node: number): void {
    if (this.queued[node]) return;
    this.queued[node] = 1;
    this.queue[(this.queueHead + this.queueLength++) % this.queue.length] = node;
  }

  private nextActive(): number {
    while (this.queueLength > 0) {
      const node = this.queue[this.queueHead];
      this.queueHead = (this.queueHead + 1) % this.queue.length;
      this.queueLength--;
      this.queued[node] = 0;
      if (this.tree[node] !== 0) return node;
    }
    return NONE;
  }

  /** Grows the node's tree; returns the arc from the source tree to the sink tree where they meet. */
  private grow(node: number): number {
    const side = this.tree[node];
    for (let a = this.firstArc[node]; a !== NONE; a = this.nextArc[a]) {
      const open = side === 1 ? this.residual[a] : this.residual[a ^ 1];
      if (open <= EPSILON) continue;
      const other = this.head[a];
      if (this.tree[other] === 0) {
        this.tree[other] = side;
        this.parent[other] = a ^ 1;
        this.stamp[other] = this.stamp[node];
        this.distance[other] = this.distance[node] + 1;
        this.activate(other);
      } else if (this.tree[other] !== side) return side === 1 ? a : a ^ 1;
      else if (this.stamp[other] <= this.stamp[node] && this.distance[other] > this.distance[node]) {
        this.parent[other] = a ^ 1;
        this.stamp[other] = this.stamp[node];
        this.distance[other] = this.distance[node] + 1;
      }
    }
    return NONE;
  }

  private augment(bridge: number): void {
    let least = this.residual[bridge];
    let n = this.head[bridge ^ 1];
    for (; this.parent[n] !== TERMINAL; n = this.head[this.parent[n]])
      least = Math.min(least, this.residual[this.parent[n] ^ 1]);
    least = Math.min(least, this.terminal[n]);
    n = this.head[bridge];
    for (; this.parent[n] !== TERMINAL; n = this.head[this.parent[n]])
      least = Math.min(least, this.residual[this.parent[n]]);
    least = Math.min(least, -this.terminal[n]);
    this.residual[bridge] -= least;
    this.residual[bridge ^ 1] += least;
    for (n = this.head[bridge ^ 1]; this.parent[n] !== TERMINAL; ) {
      const a = this.parent[n];
      this.residual[a] += least;
      this.residual[a ^ 1] -= least;
      if (this.residual[a ^ 1] <= EPSILON) this.orphan(n);
      n = this.head[a];
    }
    this.terminal[n] -= least;
    if (this.terminal[n] <= EPSILON) this.orphan(n);
    for (n = this.head[bridge]; this.parent[n] !== TERMINAL; ) {
      const a = this.parent[n];
      this.residual[a ^ 1] += least;
      this.residual[a] -= least;
      if (this.residual[a] <= EPSILON) this.orphan(n);
      n = this.head[a];
    }
    this.terminal[n] += least;
    if (this.terminal[n] >= -EPSILON) this.orphan(n);
  }

  private orphan(node: number): void {
    this.parent[node] = ORPHAN;
    this.orphans.push(node);
  }

  private adopt(): void {
    for (let k = 0; k < this.orphans.length; k++) this.adoptOne(this.orphans[k]);
    this.orphans = [];
  }

  private adoptOne(node: number): void {
    const side = this.tree[node];
    let best = NONE;
    let bestDistance = 0x7fffffff;
    for (let a = this.firstArc[node]; a !== NONE; a = this.nextArc[a]) {
      const open = side === 1 ? this.residual[a ^ 1] : this.residual[a];
      if (open <= EPSILON || this.tree[this.head[a]] !== side) continue;
      const d = this.originDistance(this.head[a]);
      if (d < bestDistance) {
        bestDistance = d;
        best = a;
      }
    }
    if (best !== NONE) {
      this.parent[node] = best;
      this.stamp[node] = this.time;
      this.distance[node] = bestDistance + 1;
      return;
    }
    this.parent[node] = NONE;
    for (let a = this.firstArc[node]; a !== NONE; a = this.nextArc[a]) {
      const other = this.head[a];
      if (this.tree[other] !== side) continue;
      const open = side === 1 ? this.residual[a ^ 1] : this.residual[a];
      if (open > EPSILON) this.activate(other);
      const p = this.parent[other];
      if (p >= 0 && this.head[p] === node) this.orphan(other);
    }
    this.tree[node] = 0;
  }

  /** Steps to the terminal if the node hangs from one, else a very large number; marks the way. */
  private originDistance(start: number): number {
    let d = 0;
    let n = start;
    for (;;) {
      if (this.stamp[n] === this.time && this.parent[n] !== NONE && this.parent[n] !== ORPHAN) {
        d += this.distance[n];
        break;
      }
      const p = this.parent[n];
      d++;
      if (p === TERMINAL) {
        this.stamp[n] = this.time;
        this.distance[n] = 1;
        break;
      }
      if (p === NONE || p === ORPHAN) return 0x7fffffff;
      n = this.head[p];
    }
    let left = d;
    for (let m = start; this.stamp[m] !== this.time; m = this.head[this.parent[m]]) {
      this.stamp[m] = this.time;
      this.distance[m] = left--;
    }
    return d;
  }
}
