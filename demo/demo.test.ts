import { inflateSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import { ball, blended, bone } from "../core/field/implicit.ts";
import { polygonise } from "../core/field/polygonise.ts";
import { plainContext as ctx } from "../core/job/context.ts";
import { areaAndVolume, boxSize, meshBox } from "../core/mesh/mesh.ts";
import { repairScan } from "../core/mesh/repair.ts";
import { makeLamplighter } from "./pieces/lamplighter.ts";
import { makeRelief } from "./pieces/relief.ts";
import { makeWalrus } from "./pieces/walrus.ts";
import { encodePng } from "./png.ts";

describe("implicit bodies", () => {
  it("polygonise to closed meshes of the right volume", () => {
    const mesh = polygonise(ball([0, 0, 60], 50), { min: [-60, -60, 0], max: [60, 60, 120] }, 4);
    expect(areaAndVolume(mesh).volumeMm3 / ((4 / 3) * Math.PI * 50 ** 3)).toBeCloseTo(1, 2);
    expect(repairScan(mesh, ctx).report.openEdges).toBe(0);
  });

  it("join: a bone with its two ends is no larger than the bone and the ball on it", () => {
    const arm = bone([0, 0, 0], [100, 0, 0], 20, 10);
    expect(arm(50, 15, 0)).toBeCloseTo(0);
    expect(arm(-20, 0, 0)).toBeCloseTo(0);
    expect(arm(110, 0, 0)).toBeCloseTo(0);
    const joined = blended(10, arm, ball([100, 0, 0], 30));
    expect(joined(130, 0, 0)).toBeLessThanOrEqual(1e-9);
    expect(joined(-20, 0, 0)).toBeCloseTo(0);
  });
});

describe("the demo pieces", () => {
  // Coarser than shown, but the same bodies.
  const pieces = [
    { name: "lamplighter", mesh: makeLamplighter(14), size: [700, 1200, 500, 1200, 1800, 2000] },
    { name: "walrus", mesh: makeWalrus(24), size: [800, 2600, 800, 2600, 500, 900] },
    { name: "relief", mesh: makeRelief(8), size: [850, 950, 550, 650, 20, 200] },
  ];
  it.each(pieces)("$name is one closed body of its size", ({ mesh, size }) => {
    const { report } = repairScan(mesh, ctx);
    expect(report.openEdges).toBe(0);
    expect(report.nonManifoldEdges).toBe(0);
    const extent = boxSize(meshBox(mesh));
    extent.forEach((length, a) => {
      expect(length).toBeGreaterThan(size[2 * a]);
      expect(length).toBeLessThan(size[2 * a + 1]);
    });
    expect(areaAndVolume(mesh).volumeMm3).toBeGreaterThan(0);
  });
});

describe("PNG", () => {
  it("holds the pixels it was given, row by row", () => {
    const pixels = Uint8ClampedArray.from({ length: 2 * 3 * 4 }, (_, k) => k);
    const bytes = encodePng({ width: 2, height: 3, pixels });
    expect([...bytes.subarray(0, 8)]).toEqual([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]);
    const at = bytes.indexOf("IDAT");
    const rows = inflateSync(bytes.subarray(at + 4, at + 4 + bytes.readUInt32BE(at - 4)));
    expect(rows.length).toBe(3 * (2 * 4 + 1));
    expect([...rows.subarray(10, 18)]).toEqual([8, 9, 10, 11, 12, 13, 14, 15]);
  });
});
