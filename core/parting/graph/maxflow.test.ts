import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenly } from "../../testing/random.ts";
import { MaxFlow } from "./maxflow.ts";

interface Network {
  readonly nodes: number;
  /** From the source to each node, and from each node to the sink. */
  readonly ends: readonly (readonly [number, number])[];
  readonly edges: readonly (readonly [number, number, number, number])[];
}

/** What a cut costs: `source` tells which nodes are on the source's side. */
function costOf({ ends, edges }: Network, source: (node: number) => boolean): number {
  let cost = 0;
  ends.forEach(([fromSource, toSink], node) => {
    cost += source(node) ? toSink : fromSource;
  });
  for (const [a, b, forward, backward] of edges) {
    if (source(a) && !source(b)) cost += forward;
    if (source(b) && !source(a)) cost += backward;
  }
  return cost;
}

/** The least of all cuts, every one tried. */
function leastCut(network: Network): number {
  let least = Infinity;
  for (let mask = 0; mask < 1 << network.nodes; mask++) {
    least = Math.min(
      least,
      costOf(network, (node) => ((mask >> node) & 1) === 1),
    );
  }
  return least;
}

function solved({ nodes, ends, edges }: Network): MaxFlow {
  const flow = new MaxFlow(nodes, edges.length);
  ends.forEach(([fromSource, toSink], node) => {
    flow.addTerminal(node, fromSource, toSink);
  });
  for (const [a, b, forward, backward] of edges) flow.addEdge(a, b, forward, backward);
  flow.solve();
  return flow;
}

const NODES = 9;
const capacity = evenly(0, 10).map((value) => Math.round(4 * value) / 4);
const networks = fc.record({
  nodes: fc.constant(NODES),
  ends: fc.array(fc.tuple(capacity, capacity), { minLength: NODES, maxLength: NODES }),
  edges: fc.array(
    fc
      .tuple(fc.nat(NODES - 1), fc.nat(NODES - 2), capacity, capacity)
      .map(([a, step, forward, backward]): [number, number, number, number] => [
        a,
        (a + 1 + step) % NODES,
        forward,
        backward,
      ]),
    { maxLength: 24 },
  ),
});

describe("a minimum cut", () => {
  it("costs as little as the best of all cuts of a small network", () => {
    fc.assert(
      fc.property(networks, (network) => {
        const flow = solved(network);
        expect(costOf(network, (node) => flow.onSourceSide(node))).toBeCloseTo(leastCut(network), 9);
      }),
      { numRuns: 300 },
    );
  });

  it("puts a node that only the sink pulls at on the sink's side, and the other way round", () => {
    const flow = solved({
      nodes: 3,
      ends: [
        [5, 0],
        [0, 5],
        [0, 0],
      ],
      edges: [],
    });
    expect([0, 1].map((node) => flow.onSourceSide(node))).toEqual([true, false]);
  });

  it("is cut through the narrowest place of a chain", () => {
    const edges = [4, 3, 1, 3, 4].map((width, k): [number, number, number, number] => [k, k + 1, width, width]);
    const ends = [0, 1, 2, 3, 4, 5].map((k): [number, number] => [k === 0 ? 100 : 0, k === 5 ? 100 : 0]);
    const flow = solved({ nodes: 6, ends, edges });
    expect([0, 1, 2, 3, 4, 5].map((k) => flow.onSourceSide(k))).toEqual([true, true, true, false, false, false]);
  });

  it("refuses more edges than it was sized for, and says what to do", () => {
    const flow = new MaxFlow(3, 1);
    flow.addEdge(0, 1, 1, 1);
    expect(() => flow.addEdge(1, 2, 1, 1)).toThrow(/raise edgeBound/);
  });
});
