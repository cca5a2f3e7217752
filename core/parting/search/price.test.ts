import { describe, expect, it } from "vitest";
import { vertexNormals } from "../../mesh/normals.ts";
import { capsule, lathe } from "../../testing/shapes.ts";
import { neighbours, vertexGraph } from "../graph/graph.ts";
import { regionsOf } from "../graph/regions.ts";
import { splitRegion } from "../graph/split.ts";
import { COST_PARTS, costParts, handlingCost, linePerMm, type PartingPrices, totalCost } from "./price.ts";

const prices: PartingPrices = {
  fillPerMm3: 0.002,
  wallPerMm: 2,
  finishPerMm: 0.5,
  keepClearWeight: 4,
  setupPerSection: 6000,
  waitPerSection: 200,
  lift: 4000,
  shellGPerMm2: 0.03,
  liftLimitG: 25_000,
  overLiftPerG: 0.1,
  handlingMm: 1000,
  overHandlingPerMm: 5,
  laidFillPerMm3: 0.001,
};

describe("the cost of a parting", () => {
  it("is the sum of its parts, each by its own price", () => {
    const parts = costParts(
      {
        fillMm3: 500_000,
        lineMm: 3000,
        clearMm: 200,
        sections: [
          { areaMm2: 1e6, greatestMm: 1200 },
          { areaMm2: 5e5, greatestMm: 900 },
        ],
        lifted: true,
      },
      prices,
    );
    expect(parts).toEqual({
      fill: 1000,
      wall: 6000,
      finishing: 1500,
      // 200 mm at three times more than they cost anyway.
      zones: 200 * 2.5 * 3,
      setup: 12_000,
      wait: 400,
      lift: 4000,
      // 30 kg is 5 kg over; 1.2 m is 0.2 m over.
      handling: 5000 * 0.1 + 200 * 5,
    });
    expect(totalCost(parts)).toBe(COST_PARTS.reduce((sum, part) => sum + parts[part], 0));
    expect(linePerMm(prices)).toBe(2.5);
  });

  it("asks nothing for a section that can be lifted and carried", () => {
    expect(handlingCost({ areaMm2: 8e5, greatestMm: 1000 }, prices)).toBe(0);
  });
});

describe("splitting a section", () => {
  it("cuts a long one across its waist, in two connected parts", () => {
    const rings = Array.from({ length: 41 }, (_, k) => [60, 400 - 20 * k] as const);
    const mesh = lathe([[0, 400], ...rings, [0, -400]], 24);
    const graph = vertexGraph(mesh);
    const near = neighbours(graph);
    const { areasMm2 } = vertexNormals(mesh);
    const whole = regionsOf(new Uint8Array(graph.vertices), near);
    const split = splitRegion(graph, graph.seamMm, whole, 0, mesh.positions, areasMm2);
    expect(split.label).toEqual([0, 0]);
    expect(regionsOf(split.of, near).label).toHaveLength(2);
    // The seam is about the girth (it runs over the mesh's own edges); along the length it would be four times that.
    let seam = 0;
    for (let e = 0; e < graph.seamMm.length; e++) {
      if (split.of[graph.edges[2 * e]] !== split.of[graph.edges[2 * e + 1]]) seam += graph.seamMm[e];
    }
    expect(seam / (2 * Math.PI * 60)).toBeGreaterThan(0.9);
    expect(seam / (2 * Math.PI * 60)).toBeLessThan(1.8);
    // And both ends keep their end.
    const top = mesh.positions.reduce(
      (best, z, k) => (k % 3 === 2 && z > mesh.positions[3 * best + 2] ? (k - 2) / 3 : best),
      0,
    );
    const bottom = mesh.positions.reduce(
      (best, z, k) => (k % 3 === 2 && z < mesh.positions[3 * best + 2] ? (k - 2) / 3 : best),
      0,
    );
    expect(split.of[top]).not.toBe(split.of[bottom]);
  });

  it("leaves one too small to split", () => {
    const mesh = capsule(60, 100, 8);
    const graph = vertexGraph(mesh);
    const lone = { of: Int32Array.from({ length: graph.vertices }, (_, v) => (v === 0 ? 1 : 0)), label: [0, 0] };
    const { areasMm2 } = vertexNormals(mesh);
    expect(splitRegion(graph, graph.seamMm, lone, 1, mesh.positions, areasMm2)).toBe(lone);
  });
});
