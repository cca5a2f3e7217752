import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";

import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { vertexNeighbours } from "../mesh/vertexNeighbours.ts";
import { spanLimitMm, spanOf } from "../shell/span.ts";
import { lumps, lumpy } from "../testing/random.ts";
import { isClosed, sphere } from "../testing/shapes.ts";
import { ribBodies, standingRibs } from "./body.ts";
import { placeRibs, type RibRequest } from "./ribs.ts";
import { TYPICAL_RIBS } from "./settings.ts";
import { ribShape, stretchesMm } from "./shape.ts";

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

/** How near two lines come to each other, by their points, mm. */
function leastApartMm(p: readonly number[], q: readonly number[]): number {
  let least = Number.POSITIVE_INFINITY;
  for (let a = 0; a < p.length; a += 3) {
    for (let b = 0; b < q.length; b += 3)
      least = Math.min(least, Math.hypot(p[a] - q[b], p[a + 1] - q[b + 1], p[a + 2] - q[b + 2]));
  }
  return least;
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

  it("of a weaker shell begin with those of a stronger one, and their lengths are told with them", () => {
    fc.assert(
      fc.property(lumps, fc.integer({ min: 150, max: 400 }), (waves, weakestMm) => {
        const request = halves(lumpy(sphere(220, 40), waves), 450);
        const strong = placeRibs({ ...request, weakestMm });
        const weak = placeRibs({ ...request, limitsMm: [weakestMm, weakestMm] });
        expect(strong.ribs.length + strong.further.length).toBe(weak.ribs.length);
        for (const section of [1, 2]) {
          const of = (ribs: readonly { section: number; spanMm?: number }[]) =>
            ribs.filter((rib) => rib.section === section).map(({ spanMm }) => spanMm);
          expect([...of(strong.ribs), ...of(strong.further)]).toEqual(of(weak.ribs));
        }
        for (const { spanMm } of strong.further) expect(spanMm).toBeGreaterThan(weakestMm);
      }),
      { numRuns: 8, seed: 7 },
    );
  });

  it("do not go back the way they came", () => {
    // A long tube closed at its upper end: the farthest place from the board has an edge on one side alone.
    const { ribs } = placeRibs({ ...halves(tube(60, 900, 12), 150) });
    for (const { points } of ribs) {
      const end = points.slice(-3);
      expect(Math.hypot(...end.map((x, a) => x - points[a]))).toBeGreaterThan(20);
    }
  });

  it("are none where a section has no edge at all", () => {
    const ball = sphere(300, 32);
    const whole = { ...halves(ball, 200), label: new Uint8Array(ball.positions.length / 3), sections: 1 };
    expect(placeRibs(whole)).toEqual({ widestMm: [0], ribs: [], further: [] });
  });
});

/** A pole wrapped in plaster: 60 mm wide, and 35 high. */
const PLASTERED = ribShape(TYPICAL_RIBS, { system: "gypsum-jute" });

describe("what a rib is built of", () => {
  it("is what is laid over its pole: with it, the half round that stands out of the shell", () => {
    const { widthMm, heightMm, laidMm2, coreMm2, coreGPerMm } = PLASTERED;
    expect([widthMm, heightMm]).toEqual([60, 35]);
    expect(coreMm2).toBeCloseTo(Math.PI * 12.5 ** 2, 6);
    // A half ellipse of 39 mm whose lowest 4 mm are in the shell, but for the corners of its round.
    const roundMm2 = (Math.PI / 4) * 60 * 39 - 4 * 60;
    expect((laidMm2 + coreMm2) / roundMm2).toBeGreaterThan(0.94);
    expect((laidMm2 + coreMm2) / roundMm2).toBeLessThan(1);
    // A tube of 25 mm and 1.5 mm of stainless steel weighs some 0.88 kg a metre.
    expect(coreGPerMm).toBeCloseTo(0.875, 2);
  });

  it("grows with its pole: a bar of timber by the square of it, a thin tube about with it", () => {
    const of = (pole: "timber" | "aluminium", poleMm: number) =>
      ribShape({ ...TYPICAL_RIBS, pole, poleMm }, { system: "gypsum-jute" });
    expect(of("timber", 40).coreGPerMm / of("timber", 20).coreGPerMm).toBeCloseTo(4, 9);
    expect(of("aluminium", 40).coreGPerMm / of("aluminium", 20).coreGPerMm).toBeCloseTo(38.5 / 18.5, 9);
    expect(of("timber", 40).heightMm - of("timber", 20).heightMm).toBe(20);
    expect(of("timber", 40).laidMm2).toBeGreaterThan(of("timber", 20).laidMm2);
  });

  it("is plaster all through without one, and a layer over foam in what is not", () => {
    const ribs = { ...TYPICAL_RIBS, kind: "ribs" } as const;
    const plaster = ribShape(ribs, { system: "gypsum-jute" });
    const mat = ribShape(ribs, { system: "polyester-mat" });
    expect(plaster.coreMm2).toBe(0);
    expect(mat.laidMm2).toBeLessThan(0.5 * plaster.laidMm2);
    expect(mat.coreMm2).toBeGreaterThan(mat.laidMm2);
  });

  it("stands on the stretch between the flanges it runs to", () => {
    const [rib] = placeRibs(halves(tube(200, 1500), 500)).ribs;
    const [standing, ...more] = standingRibs(rib, 25, PLASTERED);
    expect(more).toEqual([]);
    const [[fromMm, toMm]] = stretchesMm(rib, 25, PLASTERED);
    expect(standing.lengthMm).toBeCloseTo(toMm - fromMm, 0);
    // It runs straight from one flange to the other: half its width off either.
    expect(Math.abs(fromMm - (25 + 30))).toBeLessThan(8);
    expect(Math.abs(rib.lengthMm - toMm - (25 + 30))).toBeLessThan(8);
    for (let k = 0; k < standing.normals.length; k += 3)
      expect(Math.hypot(...standing.normals.slice(k, k + 3))).toBeCloseTo(1, 6);
  });

  it("ends before a rib that was laid before it, and goes on behind it", () => {
    const clearMm = [0, 60, 120, 60, 0, 60, 120, 120, 0];
    expect(stretchesMm({ lengthMm: 800, clearMm }, 30, PLASTERED)).toEqual([
      [100, 300],
      [500, 750],
    ]);
    // A stretch shorter than it is wide is left out; so is all of one that runs along a flange.
    expect(stretchesMm({ lengthMm: 80, clearMm: [0, 90, 0] }, 30, PLASTERED)).toEqual([]);
    expect(stretchesMm({ lengthMm: 800, clearMm: [40, 40, 40] }, 30, PLASTERED)).toEqual([]);
    // Plans of before know its length alone.
    expect(stretchesMm({ lengthMm: 800 }, 30, PLASTERED)).toEqual([[60, 740]]);
    expect(stretchesMm({ lengthMm: 110 }, 30, PLASTERED)).toEqual([]);
  });

  it("stands clear of all ribs of its section", () => {
    fc.assert(
      fc.property(lumps, (waves) => {
        const { ribs } = placeRibs(halves(lumpy(sphere(220, 40), waves), 160));
        const standing = ribs.map((rib) => standingRibs(rib, 12, PLASTERED));
        const apartMm = ribs.flatMap((rib, a) =>
          ribs
            .slice(0, a)
            .flatMap((before, b) =>
              before.section !== rib.section
                ? []
                : standing[a].flatMap(({ points: p }) => standing[b].map(({ points: q }) => leastApartMm(p, q))),
            ),
        );
        expect(apartMm.length).toBeGreaterThan(0);
        // Laid out 12 mm off the side of the other; ways along the edges of a mesh are longer than straight ones.
        expect(Math.min(...apartMm)).toBeGreaterThan(PLASTERED.widthMm / 2);
      }),
      { numRuns: 8, seed: 7 },
    );
  });
});

describe("a rib as a body", () => {
  it("is closed, as long as it stands, and lies outside the shell", () => {
    const [rib] = placeRibs(halves(tube(200, 1500), 500)).ribs;
    const [body] = ribBodies(rib, 20, 25, PLASTERED);
    expect(isClosed(body)).toBe(true);
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
    expect(ribBodies(rib, 20, 80, PLASTERED)).toEqual([]);
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
