import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { box, sphere, torus } from "../testing/shapes.ts";
import { closedOffset, closingBand } from "./closing.ts";
import { distanceField } from "./distance.ts";
import { isosurface } from "./isosurface.ts";

/** Outside of a floating piece, grown by t and closed by r. */
function outside(mesh: TriangleMesh, t: number, r: number, h: number) {
  const field = distanceField(
    mesh,
    { stepMm: h, reachMm: t + r + 2 * h, exactBandsMm: [[0, t + h], closingBand(t + r, h)] },
    ctx,
  );
  const phi = closedOffset(mesh, field, t, r, ctx);
  const surface = isosurface(field.grid, phi, 0, ctx);
  return { ...areaAndVolume(surface), surface, phi, field };
}

const ring = torus(100, 30, 256, 128);
const plugged = torus(60, 40, 256, 128);

describe("growing and closing meet their closed forms", () => {
  const cases = [
    { name: "sphere", mesh: sphere(100, 128), t: 8, r: 0, want: (4 / 3) * Math.PI * 108 ** 3 },
    { name: "box", mesh: box(200, 150, 300), t: 8, r: 0, want: 200 * 150 * 300 + 2_292_835 },
    { name: "torus, opened by nothing", mesh: ring, t: 8, r: 20, want: 2_850_342 },
    { name: "torus, r as large as leaves it", mesh: ring, t: 16, r: 50, want: 4_176_817 },
    { name: "torus, hole narrowed", mesh: ring, t: 16, r: 75, want: 4_287_459 },
    { name: "torus, hole gone", mesh: ring, t: 16, r: 120, want: 4_587_690 },
    { name: "torus, hole plugged", mesh: plugged, t: 8, r: 20, want: 2_744_709 },
  ];
  for (const { name, mesh, t, r, want } of cases) {
    it(`${name}: error falls with the step and is under 0.5 % at t/4`, () => {
      const errors = [t, t / 2, t / 4].map((h) => Math.abs(outside(mesh, t, r, h).volumeMm3 / want - 1));
      expect(errors[2]).toBeLessThan(0.005);
      expect(errors[1]).toBeLessThan(errors[0]);
      expect(errors[2]).toBeLessThan(errors[1]);
      // About second order: two halvings gain at least a factor of six.
      expect(errors[0] / errors[2]).toBeGreaterThan(6);
    });
  }

  it("a thin coat round a torus whose hole is narrowed or gone is right at half its thickness, too", () => {
    expect(Math.abs(outside(ring, 8, 75, 4).volumeMm3 / 2_888_490 - 1)).toBeLessThan(0.005);
    expect(Math.abs(outside(ring, 8, 120, 4).volumeMm3 / 3_152_590 - 1)).toBeLessThan(0.005);
  });

  it("area follows too, so that errors in volume cannot cancel", () => {
    expect(outside(sphere(100, 128), 8, 0, 2).areaMm2 / (4 * Math.PI * 108 ** 2)).toBeCloseTo(1, 3);
    expect(outside(ring, 8, 20, 2).areaMm2 / (4 * Math.PI ** 2 * 100 * 38)).toBeCloseTo(1, 3);
  });

  it("makes a closed two-manifold", () => {
    for (const r of [0, 20, 75]) {
      const { openEdges, nonManifoldEdges } = adjacencyOf(outside(ring, 8, r, 4).surface);
      expect({ openEdges, nonManifoldEdges }).toEqual({ openEdges: 0, nonManifoldEdges: 0 });
    }
  });
});

describe("what closing must never do", () => {
  it("shrink: it only lowers the field", () => {
    const plain = outside(plugged, 8, 0, 4);
    const closed = outside(plugged, 8, 20, 4);
    expect(closed.volumeMm3).toBeGreaterThan(plain.volumeMm3);
    for (let n = 0; n < closed.phi.length; n++)
      expect(closed.phi[n]).toBeLessThanOrEqual(closed.field.distanceMm[n] - 8 + 1e-3);
  });

  it("change a convex body", () => {
    const plain = outside(box(200, 150, 300), 8, 0, 4).volumeMm3;
    expect(outside(box(200, 150, 300), 8, 20, 4).volumeMm3 / plain).toBeCloseTo(1, 4);
  });

  it("change anything the second time", () => {
    const once = outside(plugged, 8, 20, 3);
    const twice = outside(once.surface, 0.01, 20, 3);
    // Closing the closed body again adds no more than the grid's own error.
    expect(Math.abs(twice.volumeMm3 / once.volumeMm3 - 1)).toBeLessThan(0.002);
  });

  it("depend on scale: twice the piece at twice the step is eight times the volume", () => {
    const small = outside(torus(60, 40, 96, 48), 8, 20, 4).volumeMm3;
    const large = outside(torus(120, 80, 96, 48), 16, 40, 8).volumeMm3;
    expect(large / (8 * small)).toBeCloseTo(1, 2);
  });
});
