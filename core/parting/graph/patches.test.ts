import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sphere } from "../../testing/shapes.ts";
import { labellingEnergy } from "./energy.ts";
import { neighbours, vertexGraph } from "./graph.ts";
import { patchesOf, patchSums } from "./patches.ts";
import { regionsOf } from "./regions.ts";

const graph = vertexGraph(sphere(50, 16));
const near = neighbours(graph);

describe("patches", () => {
  for (const size of [1, 4, 9]) {
    it(`of ${size} hold every vertex once and hang together`, () => {
      const { of, graph: coarse } = patchesOf(graph, near, size);
      const count = new Uint32Array(coarse.vertices);
      for (const patch of of) count[patch]++;
      expect(Math.min(...count)).toBeGreaterThan(0);
      expect(Math.max(...count)).toBeLessThanOrEqual(size);
      // Flooding within patches finds just as many pieces as there are patches.
      expect(regionsOf(of, near).label).toHaveLength(coarse.vertices);
    });
  }

  it("cost what the vertices they stand for cost", () => {
    const patches = patchesOf(graph, near, 5);
    const coarse = patches.graph;
    fc.assert(
      fc.property(fc.infiniteStream(fc.nat(9)), fc.infiniteStream(fc.nat(2)), (prices, labels) => {
        const take = (stream: Stream<number>, n: number) => Float32Array.from({ length: n }, () => stream.next().value);
        const costs = [0, 1, 2].map(() => take(prices, graph.vertices));
        const patchLabel = Uint8Array.from(take(labels, coarse.vertices));
        const sums = costs.map((row) => {
          const out = new Float32Array(coarse.vertices);
          patchSums(patches, row, out);
          return out;
        });
        const onPatches = labellingEnergy({ graph: coarse, costs: sums, seamCost: coarse.seamMm }, patchLabel);
        const lifted = Uint8Array.from(patches.of, (patch) => patchLabel[patch]);
        const onVertices = labellingEnergy({ graph, costs, seamCost: graph.seamMm }, lifted);
        expect(onPatches / onVertices).toBeCloseTo(1, 4);
      }),
      { numRuns: 20, seed: 3 },
    );
  });
});

type Stream<T> = Iterator<T> & { next(): { value: T } };
