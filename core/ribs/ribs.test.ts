import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { adjacencyOf, OPEN } from "../mesh/adjacency.ts";

import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { spanLimitMm, spanOf } from "../shell/span.ts";
import { lumps, lumpy } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import { ribBody } from "./body.ts";
import { placeRibs, type RibRequest } from "./ribs.ts";
import { TYPICAL_RIBS } from "./settings.ts";
import { ribShape } from "./shape.ts";

/** A tube about the upright, open at both ends, of triangles as long as they are wide. */
function tube(radius: number, height: number, edge = 20): TriangleMesh {
  const around = Math.round((2 * Math.PI * radius) / edge);
  const up = Math.round(height / edge);
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let j = 0; j <= up; j++) {
    for (let i = 0; i < around; i++) {
      const turn = (2 * Math.PI * i) / around;
      positions.push(radius * Math.cos(turn), radius * Math.sin(turn), (height * j) / up);
      if (j === up) continue;
      const [a, b] = [j * around + i, j * around + ((i + 1) % around)];
      triangles.push(a, b, a + around, b, b + around, a + around);
    }
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Two halves, parted where x changes its sign. */
function halves(mesh: TriangleMesh, limitMm: number): RibRequest {
  const label = Uint8Array.from({ length: mesh.positions.length / 3 }, (_, v) => (mesh.positions[3 * v] > 0 ? 0 : 1));
  return {
    mesh,
    nearest: NearestField.about(mesh, 30, ctx),
    label,
    sections: 2,
    limitsMm: [limitMm, limitMm],
    spacingMm: 20,
  };
}

/** How far the vertices of a section are from its edges and ribs at most, straight through space: never farther than along it. */
function farthestMm(
  { mesh: { positions: p }, label, mesh }: RibRequest,
  ribs: readonly { points: readonly number[] }[],
) {
  const { start, list } = vertexNeighbours(mesh);
  const stiff = ribs.flatMap(({ points }) =>
    Array.from({ length: points.length / 3 }, (_, k) => points.slice(3 * k, 3 * k + 3)),
  );
  for (let v = 0; v < label.length; v++) {
    const beside = Array.from(list.subarray(start[v], start[v + 1])).some((other) => label[other] !== label[v]);
    if (beside) stiff.push([...p.subarray(3 * v, 3 * v + 3)]);
  }
  let most = 0;
  for (let v = 0; v < label.length; v += 3) {
    const away = Math.min(...stiff.map((q) => Math.hypot(q[0] - p[3 * v], q[1] - p[3 * v + 1], q[2] - p[3 * v + 2])));
    most = Math.max(most, away);
  }
  return most;
}

describe("ribs", () => {
  it("are none where the shell may span all of it; the widest span is told as it is", () => {
    const { widestMm, ribs } = placeRibs(halves(tube(200, 3000), 5000));
    expect(ribs).toEqual([]);
    // Half way round a tube.
    for (const mm of widestMm) expect(Math.abs(mm / (Math.PI * 200) - 1)).toBeLessThan(0.06);
  });

  it("run across a half tube from edge to edge", () => {
    const { ribs } = placeRibs(halves(tube(200, 1500), 500));
    expect(ribs.length).toBeGreaterThan(2);
    const [first] = ribs;
    expect(Math.abs(first.lengthMm / (Math.PI * 200) - 1)).toBeLessThan(0.08);
    const heights = first.points.filter((_, k) => k % 3 === 2);
    expect(Math.max(...heights) - Math.min(...heights)).toBeLessThan(150);
  });

  it("leave no place farther from what is stiff than half of what the shell may span", () => {
    fc.assert(
      fc.property(lumps, fc.integer({ min: 150, max: 500 }), (waves, limitMm) => {
        const request = halves(lumpy(sphere(220, 40), waves), limitMm);
        const { ribs, widestMm } = placeRibs(request);
        expect(farthestMm(request, ribs)).toBeLessThanOrEqual(limitMm / 2 + 1);
        for (const rib of ribs) expect(rib.lengthMm).toBeGreaterThan(0.5 * limitMm);
        if (ribs.length === 0) expect(Math.max(...widestMm)).toBeLessThanOrEqual(limitMm);
      }),
      { numRuns: 12, seed: 7 },
    );
  });

  it("are none where a section has no edge at all", () => {
    const ball = sphere(300, 32);
    const whole = { ...halves(ball, 200), label: new Uint8Array(ball.positions.length / 3), sections: 1 };
    expect(placeRibs(whole)).toEqual({ widestMm: [0], ribs: [], further: [] });
  });
});

/** A pole wrapped in plaster: 60 mm wide, and 35 high. */
const PLASTERED = ribShape(TYPICAL_RIBS, { system: "gypsum-jute" });

describe("a rib as a body", () => {
  it("is closed, as long as it stands, and lies outside the shell", () => {
    const [rib] = placeRibs(halves(tube(200, 1500), 500)).ribs;
    const body = ribBody(rib, 20, 25, PLASTERED);
    if (!body) throw new Error("The rib is too short.");
    expect(adjacencyOf(body).across.includes(OPEN)).toBe(false);
    const { volumeMm3 } = areaAndVolume(body);
    const standsMm = rib.lengthMm - 2 * (25 + 30);
    // Half round on a base 4 mm within the shell, bent about a tube of 216 mm.
    const sectionMm2 = (Math.PI / 2) * 30 * 39;
    expect(volumeMm3 / (sectionMm2 * standsMm * (216 / 200))).toBeGreaterThan(0.85);
    expect(volumeMm3 / (sectionMm2 * standsMm * (216 / 200))).toBeLessThan(1.15);
    for (let k = 0; k < body.positions.length; k += 3)
      expect(Math.hypot(body.positions[k], body.positions[k + 1])).toBeGreaterThan(200 + 20 - 4 - 1);
  });

  it("is none where there is no room between the flanges", () => {
    const [rib] = placeRibs(halves(tube(60, 900, 10), 150)).ribs;
    expect(ribBody(rib, 20, 80, PLASTERED)).toBeNull();
  });
});

describe("what a shell may span", () => {
  it("is what the bending of a strip under its load says", () => {
    // q = 3 x 1200 x 9.81 x 0.02 + 1000 = 1706 Pa; L = sqrt(4 x 0.02^2 x 0.8e6 / (3 x 1706)) = 0.500 m.
    expect(spanOf(20, 1.2, { bendingMPa: 0.8, modulusMPa: 3000 })).toBeCloseTo(500, 0);
  });

  it("is less where it would sag", () => {
    // q = 3 x 1450 x 9.81 x 0.004 + 1000 = 1171 Pa; L = cbrt(32 x 7e9 x 0.004^3 / 50 / (5 x 1171)) = 0.366 m.
    expect(spanOf(4, 1.45, { bendingMPa: 25, modulusMPa: 7000 })).toBeCloseTo(366, 0);
  });

  it("comes to what workshops go by: a rib every 400 to 500 mm on their usual shells", () => {
    for (const [system, figures] of [
      ["gypsum-jute", { thicknessMm: 20 }],
      ["polyester-mat", { layers: 5 }],
    ] as const) {
      expect(spanLimitMm({ system, figures, order: [] })).toBeGreaterThan(350);
      expect(spanLimitMm({ system, figures, order: [] })).toBeLessThan(560);
    }
  });
});
