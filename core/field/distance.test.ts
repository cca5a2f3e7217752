import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { closestPointOnTriangle } from "../mesh/closestPoint.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { repairScan } from "../mesh/repair.ts";
import { together } from "../mesh/together.ts";
import { evenly } from "../testing/random.ts";
import { capsule, moved, sphere, torus } from "../testing/shapes.ts";
import { distanceField } from "./distance.ts";
import { nodePoint } from "./grid.ts";
import { solidAngle, windingNumbers } from "./winding.ts";

const options = { stepMm: 6, reachMm: 30, exactBandsMm: [[0, 24]] as [number, number][] };

/** The slow, plain reference: every triangle for every point. */
function plainDistance(mesh: TriangleMesh, p: Float64Array): number {
  const q = new Float64Array(3);
  let best = Infinity;
  let angle = 0;
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    best = Math.min(best, closestPointOnTriangle(q, mesh, t, p[0], p[1], p[2]));
    angle += solidAngle(mesh, t, p[0], p[1], p[2]);
  }
  return Math.sqrt(best) * (angle / (4 * Math.PI) > 0.5 ? -1 : 1);
}

function worstError(mesh: TriangleMesh, bandMm: number): number {
  const field = distanceField(mesh, options, ctx);
  const p = new Float64Array(3);
  let worst = 0;
  for (let n = 0; n < field.distanceMm.length; n += 7) {
    if (Math.abs(field.distanceMm[n]) > bandMm || field.distanceMm[n] < -6) continue;
    nodePoint(field.grid, n, p, 0);
    worst = Math.max(worst, Math.abs(field.distanceMm[n] - plainDistance(mesh, p)));
  }
  return worst;
}

describe("distance field", () => {
  it("equals the plain reference, sign and all, in the bands asked for", () => {
    expect(worstError(capsule(40, 90, 12), 20)).toBeLessThan(1e-3);
    expect(worstError(torus(50, 20, 24, 12), 8)).toBeLessThan(1e-3);
  });

  it("is off by less than a twentieth of a step where two parts of the surface are about as near", () => {
    // Across the hole of a ring every point near the axis has nearest points on all sides.
    expect(worstError(torus(50, 20, 24, 12), 20)).toBeLessThan(options.stepMm / 20);
  });

  it("does so wherever the piece lies against the grid", () => {
    fc.assert(
      fc.property(evenly(-7, 7), evenly(-7, 7), (dx, dz) => {
        expect(worstError(moved(sphere(45, 10), dx, dx / 3, dz), 20)).toBeLessThan(1e-3);
      }),
      { numRuns: 8, seed: 4711 },
    );
  });

  it("counts overlapping copies once", () => {
    const ball = sphere(45, 16);
    const doubled = distanceField(together(ball, moved(ball, 20, 0, 0)), options, ctx);
    for (let n = 0; n < doubled.distanceMm.length; n++) {
      const p = new Float64Array(3);
      nodePoint(doubled.grid, n, p, 0);
      const inOne = Math.hypot(p[0], p[1], p[2]) < 40 || Math.hypot(p[0] - 20, p[1], p[2]) < 40;
      if (inOne) expect(doubled.distanceMm[n]).toBeLessThan(0);
    }
  });

  it("is nearly right for a scan with flipped faces and holes, and says what it mended", () => {
    const clean = sphere(60, 24);
    const triangles = clean.triangles.slice();
    for (let k = 300; k < 360; k += 3) [triangles[k], triangles[k + 1]] = [triangles[k + 1], triangles[k]];
    const holed = triangles.filter((_, k) => Math.floor(k / 3) % 190 !== 7);
    const { mesh, report } = repairScan({ positions: clean.positions, triangles: holed });
    expect(report.openEdges).toBeGreaterThan(0);
    expect(report.flippedTriangles).toBeGreaterThan(0);
    expect(report.repairs.join()).toMatch(/hole/);
    const a = distanceField(clean, options, ctx);
    const b = distanceField(mesh, options, ctx);
    let wrong = 0;
    for (let n = 0; n < a.distanceMm.length; n++) if (a.distanceMm[n] > 3 !== b.distanceMm[n] > 3) wrong++;
    expect(wrong / a.distanceMm.length).toBeLessThan(0.002);
  });
});

describe("winding number", () => {
  it("by the tree agrees with the plain sum", () => {
    const mesh = torus(50, 20, 160, 80);
    const points = Float64Array.from({ length: 3 * 900 }, (_, k) => 75 * Math.sin(k * 12.9898));
    const many = windingNumbers(mesh, points, ctx);
    for (let k = 0; k < 900; k += 90) {
      const alone = windingNumbers(mesh, points.slice(3 * k, 3 * k + 3), ctx)[0];
      expect(many[k]).toBeCloseTo(alone, 1);
    }
  });
});
