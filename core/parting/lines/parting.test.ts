import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { areaAndVolume } from "../../mesh/mesh.ts";
import { gridGraph, problemOf } from "../../testing/graphs.ts";
import { moved, sphere } from "../../testing/shapes.ts";
import { neighbours } from "../graph/graph.ts";
import { labelVertices } from "../graph/labelling.ts";
import { MaxFlow } from "../graph/maxflow.ts";
import { mergeRegions, onePerLabel, regionsOf } from "../graph/regions.ts";
import { PullChooser } from "../search/choosePulls.ts";
import { cutSections, inOrder, lineLengthMm } from "./cut.ts";
import { fairLine } from "./fair.ts";

describe("maximum flow", () => {
  it("cuts a small network where a hand would", () => {
    const flow = new MaxFlow(4, 4);
    flow.addTerminal(0, 10, 0);
    flow.addTerminal(3, 0, 10);
    flow.addEdge(0, 1, 4, 0);
    flow.addEdge(0, 2, 9, 0);
    flow.addEdge(1, 3, 9, 0);
    flow.addEdge(2, 3, 2, 0);
    flow.solve();
    expect([0, 1, 2, 3].map((n) => flow.onSourceSide(n))).toEqual([true, false, true, false]);
  });
});

describe("regions", () => {
  const speckled = [0, 1].map((l) =>
    Float32Array.from({ length: 72 }, (_, v) => (v % 12 < 6 === (l === 0) ? 0 : (v * 37) % 11 === 0 ? -2 : 1)),
  );
  const graph = gridGraph(12, 6);
  const near = neighbours(graph);
  const problem = problemOf(graph, speckled, 0.05);

  it("are the connected pieces of a labelling", () => {
    // 0 0 1
    // 1 0 1
    const { of, label } = regionsOf([0, 0, 1, 1, 0, 1], neighbours(gridGraph(3, 2)));
    expect([...of]).toEqual([0, 0, 1, 2, 0, 1]);
    expect(label).toEqual([0, 1, 1]);
  });

  it("merge to as many as wanted, each one piece, at the price they were asked", () => {
    for (const wanted of [5, 3, 2, 1]) {
      const labels = labelVertices(problem);
      expect(regionsOf(labels, near).label.length).toBeGreaterThan(5);
      const merged = mergeRegions(problem, regionsOf(labels, near), wanted);
      expect(merged.label).toHaveLength(wanted);
      // Flooding the merged regions finds no more pieces than there are regions.
      expect(regionsOf(merged.of, near).label).toHaveLength(wanted);
    }
  });

  it("merge the least dear first: a lone island goes to the sea around it", () => {
    const island = problemOf(gridGraph(5, 5), [new Float32Array(25), new Float32Array(25)], 1);
    island.costs[0][12] = 9;
    island.costs[1].fill(5).fill(0, 12, 13);
    const labels = labelVertices(island);
    expect(labels[12]).toBe(1);
    const merged = mergeRegions(island, regionsOf(labels, neighbours(island.graph)), 1);
    expect(merged.label).toEqual([0]);
  });

  it("keep of every label the region dearest to lose", () => {
    const one = onePerLabel(problem, regionsOf(labelVertices(problem), near));
    expect([...one.label].sort()).toEqual([0, 1]);
    const halves = [0, 11].map((v) => one.label[one.of[v]]);
    expect(halves).toEqual([0, 1]);
  });
});

describe("choosing pulls", () => {
  it("finds the pair and the three that cost least", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 7 * 30, maxLength: 7 * 30 }), (flat) => {
        const cost = Float32Array.from(flat);
        const price = (set: number[]) =>
          Array.from({ length: 30 }, (_, v) => Math.min(...set.map((d) => cost[30 * d + v]))).reduce(
            (a, b) => a + b,
            0,
          );
        const pairs = [0, 1, 2, 3, 4, 5, 6].flatMap((a) =>
          [0, 1, 2, 3, 4, 5, 6].filter((b) => b > a).map((b) => [a, b]),
        );
        const best = Math.min(...pairs.map(price));
        expect(new PullChooser(cost, 7, 30).sets(2, 3)[0].cost).toBeCloseTo(best, 3);
        const three = Math.min(
          ...pairs.flatMap(([a, b]) => [0, 1, 2, 3, 4, 5, 6].filter((c) => c > b).map((c) => price([a, b, c]))),
        );
        expect(new PullChooser(cost, 7, 30).sets(3, 3)[0].cost).toBeLessThanOrEqual(three * 1.02 + 1e-3);
      }),
      { numRuns: 30, seed: 5 },
    );
  });
});

describe("cutting along ties", () => {
  const ball = sphere(100, 40);
  const potential = (n: readonly number[]) =>
    Float32Array.from({ length: ball.positions.length / 3 }, (_, v) =>
      n.reduce((sum, k, a) => sum + k * ball.positions[3 * v + a], 0),
    );

  it("parts a sphere on a great circle of the right length, wherever it points", () => {
    for (const n of [
      [0, 0, 1],
      [1, 0, 0],
      [0.48, -0.6, 0.64],
    ]) {
      const cut = cutSections(ball, [potential(n), potential(n.map((k) => -k))]);
      expect(cut.lines).toHaveLength(1);
      expect(cut.lines[0].closed).toBe(true);
      const fair = fairLine(cut.lines[0], 4, NearestField.about(ball, 8, ctx));
      expect(lineLengthMm(fair) / (200 * Math.PI)).toBeCloseTo(1, 2);
    }
  });

  it("meets three sections at two junctions", () => {
    const third = [0, 120, 240].map((deg) =>
      potential([Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180), 0.001 * deg]),
    );
    const cut = cutSections(ball, third);
    expect(cut.lines).toHaveLength(3);
    expect(cut.lines.every((line) => !line.closed)).toBe(true);
    expect(cut.lengthMm / (300 * Math.PI)).toBeCloseTo(1, 1);
    const areas = cut.skins.map((skin) => skin.triangles.length);
    expect(Math.min(...areas)).toBeGreaterThan(0.25 * Math.max(...areas));
  });

  it("is the same with its sections in another order as if they had been cut in that order", () => {
    // Off the middle: at its poles all three would tie.
    const ball = moved(sphere(100, 32), 0.7, 0.4, 0);
    const wedges = [0, 1, 2].map((s) =>
      Float32Array.from({ length: ball.positions.length / 3 }, (_, v) => {
        const turn = (2 * Math.PI * s) / 3 + 0.3;
        return ball.positions[3 * v] * Math.cos(turn) + ball.positions[3 * v + 1] * Math.sin(turn);
      }),
    );
    const order = [2, 0, 1];
    const found = inOrder(cutSections(ball, wedges), order);
    const wanted = cutSections(
      ball,
      order.map((s) => wedges[s]),
    );
    found.skins.forEach((skin, k) => {
      expect(areaAndVolume(skin).areaMm2).toBeCloseTo(areaAndVolume(wanted.skins[k]).areaMm2, 3);
    });
    const told = (cut: typeof found) =>
      cut.lines.map((line) => `${line.sections.join("|")} ${line.closed} ${lineLengthMm(line).toFixed(2)}`).sort();
    expect(told(found)).toEqual(told(wanted));
    for (const { sections } of found.lines) expect(sections[0]).toBeLessThan(sections[1]);
  });
});
