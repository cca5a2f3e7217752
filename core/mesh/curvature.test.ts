import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lumps, lumpy } from "../testing/random.ts";
import { box, capsule, sphere, torus } from "../testing/shapes.ts";
import { curvatureSums } from "./curvature.ts";
import { areaAndVolume, type TriangleMesh } from "./mesh.ts";
import { vertexNormals } from "./normals.ts";

/** Its upper half alone: open along its rim. */
function upperHalf({ positions, triangles }: TriangleMesh): TriangleMesh {
  const kept: number[] = [];
  for (let k = 0; k < triangles.length; k += 3) {
    const corners = [...triangles.subarray(k, k + 3)];
    if (corners.every((v) => positions[3 * v + 2] > -1e-3)) kept.push(...corners);
  }
  return { positions, triangles: Uint32Array.from(kept) };
}

describe("curvature summed up over a surface", () => {
  const cases = [
    { name: "a sphere", mesh: sphere(100), meanMm: 4 * Math.PI * 100, gauss: 4 * Math.PI },
    // Two half balls and a tube.
    { name: "a capsule", mesh: capsule(60, 200), meanMm: 4 * Math.PI * 60 + Math.PI * 200, gauss: 4 * Math.PI },
    { name: "a torus", mesh: torus(100, 30, 128, 64), meanMm: 2 * Math.PI ** 2 * 100, gauss: 0 },
    { name: "a box", mesh: box(200, 150, 300), meanMm: Math.PI * (200 + 150 + 300), gauss: 4 * Math.PI },
  ];
  for (const { name, mesh, meanMm, gauss } of cases) {
    it(`is that of ${name}`, () => {
      const sums = curvatureSums(mesh);
      expect(Math.abs(sums.meanMm / meanMm - 1)).toBeLessThan(0.005);
      expect(Math.abs(sums.gauss - gauss)).toBeLessThan(1e-6);
    });
  }

  it("is half of it on half a sphere: the rim adds nothing", () => {
    const { meanMm, gauss } = curvatureSums(upperHalf(sphere(100, 96)));
    expect(Math.abs(meanMm / (2 * Math.PI * 100) - 1)).toBeLessThan(0.04);
    expect(Math.abs(gauss / (2 * Math.PI) - 1)).toBeLessThan(0.06);
  });

  it("tells the volume of a layer laid on what is lumpy", () => {
    fc.assert(
      fc.property(lumps, fc.integer({ min: 2, max: 12 }), (waves, layerMm) => {
        const mesh = lumpy(sphere(150, 128), waves);
        const { areaMm2, volumeMm3 } = areaAndVolume(mesh);
        const { meanMm, gauss } = curvatureSums(mesh);
        const { normals } = vertexNormals(mesh);
        const positions = mesh.positions.map((value, k) => value + layerMm * normals[k]);
        const layerMm3 = areaAndVolume({ ...mesh, positions }).volumeMm3 - volumeMm3;
        const told = areaMm2 * layerMm + meanMm * layerMm ** 2 + (gauss * layerMm ** 3) / 3;
        expect(Math.abs(told / layerMm3 - 1)).toBeLessThan(0.01);
      }),
      { numRuns: 8, seed: 3 },
    );
  });
});
