import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";
import { cylinder, moved, sphere, torus } from "../testing/shapes.ts";
import { narrowClasses, narrowPlaces, wallsOf } from "./walls.ts";

const walls = (mesh: TriangleMesh, widestMm: number, boardMm: number | null = null) =>
  wallsOf(mesh, NearestField.about(mesh, 4, ctx), widestMm, boardMm);
const finite = (values: Float32Array) => [...values].filter(Number.isFinite);

describe("how far apart walls stand", () => {
  it("a ball and a tube are as thick as they are, and have no gap", () => {
    for (const thick of walls(sphere(40, 32), 200).thickMm) expect(thick / 80).toBeCloseTo(1, 1);
    expect(finite(walls(sphere(40, 32), 200).gapMm)).toEqual([]);
    const ring = walls(torus(100, 20, 96, 48), 60);
    for (const thick of ring.thickMm) expect(thick / 40).toBeCloseTo(1, 1);
    // Its hole is wider than asked for.
    expect(finite(ring.gapMm)).toEqual([]);
  });

  it("a ring's hole is a gap as wide as it is, on the walls that face it", () => {
    const ring = torus(60, 40, 96, 48);
    const { gapMm } = walls(ring, 60);
    let inner = 0;
    for (let v = 0; v < gapMm.length; v++) {
      const [x, y, z] = ring.positions.subarray(3 * v, 3 * v + 3);
      const r = Math.hypot(x, y);
      if (r < 20.2) {
        inner++;
        expect(gapMm[v]).toBeCloseTo(40, 0);
      }
      if (r > 62) expect(gapMm[v]).toBe(Infinity);
      if (Math.abs(z) > 39) expect(gapMm[v]).toBe(Infinity);
    }
    expect(inner).toBeGreaterThan(50);
  });

  it("two balls side by side: the gap is narrowest between them, and is told once for each wall", () => {
    const pair = together(moved(sphere(50, 48), -56, 0, 0), moved(sphere(50, 48), 56, 0, 0));
    const { gapMm } = walls(pair, 60);
    const places = narrowPlaces(pair, gapMm, 20, 10);
    expect(places.length).toBe(2);
    for (const { at, narrowestMm, areaMm2 } of places) {
      expect(narrowestMm).toBeCloseTo(12, 0);
      expect(Math.abs(at[0])).toBeCloseTo(6, 0);
      expect(areaMm2).toBeGreaterThan(500);
    }
  });

  it("a thin rod is thin all along and not at the ball it stands on", () => {
    const pin = together(sphere(40, 32), moved(cylinder(4, 100, 32), 0, 0, 85));
    const { thickMm } = walls(pin, 40);
    for (let v = 0; v < thickMm.length; v++) {
      const [x, y, z] = pin.positions.subarray(3 * v, 3 * v + 3);
      if (z > 60 && z < 120 && Math.hypot(x, y) > 3.9) expect(thickMm[v]).toBeCloseTo(8, 0);
      if (z < 0) expect(thickMm[v]).toBe(Infinity);
    }
  });

  it("does not call the edge thin that a piece stands on", () => {
    const ring = torus(100, 20, 96, 48);
    const { thickMm } = walls(ring, 60, -20);
    for (let v = 0; v < thickMm.length; v++) {
      if (ring.positions[3 * v + 2] < 9) expect(thickMm[v]).toBe(Infinity);
      else if (ring.positions[3 * v + 2] > 11) expect(thickMm[v] / 40).toBeCloseTo(1, 1);
    }
  });

  it("leaves out places too small to matter", () => {
    const pair = together(moved(sphere(50, 48), -56, 0, 0), moved(sphere(50, 48), 56, 0, 0));
    const { gapMm } = walls(pair, 60);
    expect(narrowPlaces(pair, gapMm, 20, 1e6)).toEqual([]);
    expect(narrowPlaces(pair, gapMm, 5, 0)).toEqual([]);
    expect([...narrowClasses(Float32Array.of(3, 10, 14, 15, 40, Infinity), 10)]).toEqual([2, 1, 1, 0, 0, 0]);
  });
});
