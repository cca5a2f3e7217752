import { describe, expect, it } from "vitest";
import { linearRgb, SECTION_PIGMENTS } from "../display/palette.ts";
import { drawPortrait } from "../display/portrait.ts";
import { thinned, thinnedRoughly } from "../display/thin.ts";
import { plainContext as ctx } from "../job/context.ts";
import { ALONE } from "../job/team.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { readScan } from "../mesh/io/index.ts";
import { areaAndVolume, boxSize, meshBox } from "../mesh/mesh.ts";
import { weld } from "../mesh/weld.ts";
import type { PartingLine } from "../parting/lines/cut.ts";
import { box, moved, sphere } from "../testing/shapes.ts";
import { writeGlb } from "./glb.ts";
import { linesAsData, writeDxf } from "./lines.ts";
import { writeStl } from "./stl.ts";

const square: PartingLine = {
  sections: [0, 1],
  closed: true,
  points: Float32Array.from([0, 0, 0, 100, 0, 0, 100, 100, 5.12345, 0, 100, 0]),
};
const open: PartingLine = { sections: [1, 2], closed: false, points: Float32Array.from([0, 0, 0, 0, 0, 50]) };

describe("files out", () => {
  it("STL comes back in with the same shape, faces outward", async () => {
    const body = moved(box(30, 40, 50), 1, 2, 3);
    const back = weld((await readScan(writeStl(body), "body.stl", ctx)).mesh, 1e-3);
    expect(areaAndVolume(back).volumeMm3).toBeCloseTo(30 * 40 * 50, 0);
    expect(adjacencyOf(back).openEdges).toBe(0);
  });

  it("GLB holds every part with its name and colour, in metres and y up as the format wants", async () => {
    const bytes = await writeGlb([
      { name: "jacket", mesh: sphere(100, 16), colour: [0.5, 0.5, 0.5, 0.4] },
      { name: "section-1", mesh: box(10, 20, 30), colour: [1, 0, 0, 1] },
    ]);
    const jsonLength = new DataView(bytes.buffer, bytes.byteOffset).getUint32(12, true);
    const json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + jsonLength)));
    expect(json.nodes.map((node: { name?: string }) => node.name)).toEqual(
      expect.arrayContaining(["jacket", "section-1"]),
    );
    expect(json.materials).toHaveLength(2);
    expect(json.materials[0].alphaMode).toBe("BLEND");
    const back = await readScan(bytes, "plan.glb", ctx);
    expect(back.mesh.triangles.length / 3).toBe(sphere(100, 16).triangles.length / 3 + 12);
  });

  it("GLB is in metres, y up: a slab of 10 by 20 by 300 mm, upright, stands along y", async () => {
    const bytes = await writeGlb([{ name: "slab", mesh: moved(box(10, 20, 300), 0, 0, 150), colour: [1, 0, 0, 1] }]);
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    const jsonLength = view.getUint32(12, true);
    const json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + jsonLength)));
    const { min, max } = json.accessors[json.meshes[0].primitives[0].attributes.POSITION] as Record<string, number[]>;
    expect(json.nodes[0]).toEqual({ name: "slab", mesh: 0 });
    expect(json.asset.generator).toBe("Rimefell");
    expect(max.map((metres, a) => Number((metres - min[a]).toFixed(6)))).toEqual([0.01, 0.3, 0.02]);
    expect([min[1], max[1]].map((metres) => Number(metres.toFixed(6)))).toEqual([0, 0.3]);
  });

  it("lines as data number sections from one and round to a thousandth", () => {
    const data = linesAsData([square, open]);
    expect(data.unit).toBe("mm");
    expect(data.lines[0]).toMatchObject({ sections: [1, 2], closed: true });
    expect(data.lines[0].points[2]).toEqual([100, 100, 5.123]);
    expect(data.lines[1]).toMatchObject({ sections: [2, 3], closed: false });
  });

  it("DXF has one layer a pair of sections and closes closed lines", () => {
    const text = writeDxf([square, open, square]);
    expect(text).toContain("parting-1-2");
    expect(text).toContain("parting-2-3");
    // Four corners and the first again, twice; two ends of the open one.
    expect(text.match(/\n\s*0\r?\nVERTEX/g)).toHaveLength(5 + 5 + 2);
    expect(text.trimEnd()).toMatch(/EOF$/);
  });
});

describe("what is shown", () => {
  it("meshes thinned roughly keep their size, and are left alone where there is little to thin", async () => {
    const ball = sphere(100, 160);
    // As single triangles, the way a scan comes.
    const soup = {
      positions: Float32Array.from([...ball.triangles].flatMap((v) => [...ball.positions.subarray(3 * v, 3 * v + 3)])),
      triangles: Uint32Array.from(ball.triangles.keys()),
    };
    const rough = thinnedRoughly(soup, 2000);
    expect(rough.triangles.length / 3).toBeGreaterThan(1500);
    expect(rough.triangles.length / 3).toBeLessThan(2500);
    expect(areaAndVolume(rough).volumeMm3 / areaAndVolume(ball).volumeMm3).toBeCloseTo(1, 1);
    boxSize(meshBox(rough)).forEach((size) => {
      expect(Math.abs(size - 200)).toBeLessThan(6);
    });
    const small = sphere(100, 12);
    expect(thinnedRoughly(small, 2000)).toBe(small);
  });

  it("thinned meshes keep the shape, in the order they were given; what is thin enough is itself", async () => {
    const ball = sphere(100, 96);
    const small = sphere(30, 48);
    const wanted = [
      { mesh: small, triangles: 900 },
      { mesh: ball, triangles: 1e6 },
      { mesh: ball, triangles: 2000 },
    ];
    const [thinSmall, whole, thin] = await thinned(wanted, ALONE);
    expect(whole).toBe(ball);
    for (const [mesh, full, triangles] of [
      [thinSmall, small, 900],
      [thin, ball, 2000],
    ] as const) {
      expect(mesh.triangles.length / 3).toBeLessThan(1.3 * triangles);
      expect(mesh.triangles.length / 3).toBeGreaterThan(0.7 * triangles);
      expect(Math.max(...mesh.triangles)).toBe(mesh.positions.length / 3 - 1);
      expect(areaAndVolume(mesh).volumeMm3 / areaAndVolume(full).volumeMm3).toBeCloseTo(1, 1);
    }
  });

  it("portraits show the body in the middle, lit, on nothing", () => {
    const { width, height, pixels } = drawPortrait(sphere(100, 32), 60, 40, [0, -1, 0], [200, 190, 180]);
    const alpha = (x: number, y: number) => pixels[4 * (x + width * y) + 3];
    expect(alpha(30, 20)).toBe(255);
    expect(alpha(1, 1)).toBe(0);
    const red = (x: number, y: number) => pixels[4 * (x + width * y)];
    // The lamp stands to the left and above.
    expect(red(22, 12)).toBeGreaterThan(red(40, 30));
    expect(height).toBe(40);
  });

  it("pigments are eight, told apart by more than their number, and linear light is darker than sRGB", () => {
    expect(new Set(SECTION_PIGMENTS.map((p) => p.css)).size).toBe(SECTION_PIGMENTS.length);
    expect(linearRgb("#ffffff")).toEqual([1, 1, 1]);
    expect(linearRgb("#000000")).toEqual([0, 0, 0]);
    expect(linearRgb("#808080")[0]).toBeCloseTo(0.2159, 3);
  });
});
