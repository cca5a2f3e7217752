import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gridGraph, problemOf } from "../../testing/graphs.ts";
import { type LabellingProblem, labellingEnergy } from "./energy.ts";
import { Expansion } from "./expansion.ts";
import { labelVertices } from "./labelling.ts";

/** The least energy over every labelling. */
function bruteForce(problem: LabellingProblem): number {
  const { vertices } = problem.graph;
  const labels = problem.costs.length;
  let least = Infinity;
  const label = new Uint8Array(vertices);
  for (let code = 0; code < labels ** vertices; code++) {
    let rest = code;
    for (let v = 0; v < vertices; v++) {
      label[v] = rest % labels;
      rest = Math.floor(rest / labels);
    }
    least = Math.min(least, labellingEnergy(problem, label));
  }
  return least;
}

/** The least energy over every labelling in which a vertex keeps its label or takes alpha. */
function bestExpansion(problem: LabellingProblem, start: Uint8Array, alpha: number): number {
  let least = Infinity;
  for (let mask = 0; mask < 1 << start.length; mask++) {
    const label = start.map((held, v) => ((mask >> v) & 1 ? alpha : held));
    least = Math.min(least, labellingEnergy(problem, label));
  }
  return least;
}

const costs = (labels: number, vertices: number) =>
  fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: vertices, maxLength: vertices }), {
    minLength: labels,
    maxLength: labels,
  });

describe("an expansion", () => {
  it("finds the best of all labellings that keep or take, whatever it begins from, again and again", () => {
    const starts = fc.array(fc.nat(2), { minLength: 9, maxLength: 9 });
    let settled = 0;
    let cut = 0;
    fc.assert(
      fc.property(
        costs(3, 9),
        fc.array(fc.tuple(starts, fc.nat(2)), { minLength: 1, maxLength: 3 }),
        (table, moves) => {
          const problem = problemOf(gridGraph(3, 3), table, 0);
          // Seams of different prices, dear ones and cheap ones.
          problem.seamCost.forEach((_, e) => {
            problem.seamCost[e] = [0.5, 3, 1.25, 6][e % 4];
          });
          const expansion = new Expansion(problem);
          for (const [from, alpha] of moves) {
            const start = Uint8Array.from(from);
            const found = expansion.of(start, alpha);
            expect(found.every((l, v) => l === alpha || l === start[v])).toBe(true);
            expect(labellingEnergy(problem, found)).toBeCloseTo(bestExpansion(problem, start, alpha), 5);
            if (expansion.openCount > 0) cut++;
            else settled++;
          }
        },
      ),
      { numRuns: 150, seed: 13 },
    );
    // Both ways of deciding were tried.
    expect(Math.min(settled, cut)).toBeGreaterThan(30);
  });

  it("settles what is far from any seam without a cut", () => {
    // Two halves, each of which much prefers its own label: only the seam between them is cut, if that.
    const halves = [0, 1].map((l) => Array.from({ length: 400 }, (_, v) => (v % 20 < 10 === (l === 0) ? 0 : 9)));
    const expansion = new Expansion(problemOf(gridGraph(20, 20), halves, 1));
    const found = expansion.of(new Uint8Array(400), 1);
    expect(expansion.openCount).toBe(0);
    expect(found.reduce((sum, l) => sum + l, 0)).toBe(200);
  });
});

describe("labelling", () => {
  it("is exact for two labels", () => {
    fc.assert(
      fc.property(costs(2, 9), fc.integer({ min: 0, max: 5 }), (table, seam) => {
        const problem = problemOf(gridGraph(3, 3), table, seam);
        expect(labellingEnergy(problem, labelVertices(problem))).toBeCloseTo(bruteForce(problem), 5);
      }),
      { numRuns: 120, seed: 11 },
    );
  });

  it("is within twice the least for three, and in most cases the least itself", () => {
    let exact = 0;
    fc.assert(
      fc.property(costs(3, 8), fc.integer({ min: 0, max: 4 }), (table, seam) => {
        const problem = problemOf(gridGraph(4, 2), table, seam);
        const found = labellingEnergy(problem, labelVertices(problem));
        const least = bruteForce(problem);
        if (found <= least + 1e-4) exact++;
        expect(found).toBeLessThanOrEqual(2 * least + 1e-4);
      }),
      { numRuns: 60, seed: 12 },
    );
    expect(exact).toBeGreaterThan(50);
  });
});
