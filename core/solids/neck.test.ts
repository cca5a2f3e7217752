import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { lathe, moved, sphere } from "../testing/shapes.ts";
import { neckOf, placesAcross } from "./neck.ts";

/** What of a mesh lies in front of the plane y = 0. */
function front({ positions, triangles }: TriangleMesh): TriangleMesh {
  const kept = triangles.filter((_, k) => {
    const first = k - (k % 3);
    return [0, 1, 2].every((c) => positions[3 * triangles[first + c] + 1] <= 1e-6);
  });
  return { positions, triangles: Uint32Array.from(kept) };
}

/** A post of 1.2 m, 150 mm in radius, that narrows to a waist of 60 mm at a height. */
function waisted(waistMm: number): TriangleMesh {
  const profile = Array.from({ length: 61 }, (_, k): [number, number] => {
    const z = 20 * k;
    return [150 - 90 * Math.exp(-(((z - waistMm) / 120) ** 2)), z];
  });
  return lathe([[0, 0], ...profile, [0, 1200]], 64);
}

describe("the neck of a section", () => {
  it("lies where it is narrowest, across it from edge to edge", () => {
    for (const waistMm of [480, 600, 700]) {
      const neck = neckOf(front(waisted(waistMm)));
      if (!neck) throw new Error("It has a neck.");
      expect(Math.abs(neck.at[2] - waistMm)).toBeLessThan(45);
      // Half round.
      expect(neck.lengthMm / (Math.PI * 60)).toBeGreaterThan(0.85);
      expect(neck.lengthMm / (Math.PI * 60)).toBeLessThan(1.25);
      expect(neck.shares[0] + neck.shares[1]).toBeCloseTo(1, 9);
      const places = placesAcross(neck, 40);
      expect(places.length).toBeGreaterThan(3);
      // It begins and ends at the section's edges.
      for (const [, y] of [places[0], places[places.length - 1]]) expect(Math.abs(y)).toBeLessThan(12);
    }
  });

  it("is about the middle where a section is as wide all along, and none where there is no edge to lead to", () => {
    const even = lathe(
      [
        [0, 0],
        [150, 0],
        [150, 600],
        [150, 1200],
        [0, 1200],
      ],
      64,
    );
    const neck = neckOf(front(even));
    expect(Math.min(...(neck?.shares ?? [0]))).toBeGreaterThan(0.28);
    expect(neckOf(moved(sphere(100, 32), 0, 0, 0))).toBeNull();
  });
});
