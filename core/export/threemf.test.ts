import { strFromU8, unzipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { readScan } from "../mesh/io/index.ts";
import { areaAndVolume } from "../mesh/mesh.ts";
import { box, moved } from "../testing/shapes.ts";
import { write3mf } from "./threemf.ts";

describe("a 3MF of parts", () => {
  const parts = [
    { name: 'Section 1 <of "two">', mesh: box(100, 40, 30), css: "#743655" },
    { name: "Section 2", mesh: moved(box(20, 20, 20), 300, 0, 0), css: "#a95900" },
  ];
  const bytes = write3mf(parts);

  it("is read back with all its parts, to the cubic millimetre", async () => {
    const { mesh, unitHint } = await readScan(bytes, "sections.3mf");
    expect(unitHint).toBe("mm");
    expect(areaAndVolume(mesh).volumeMm3).toBeCloseTo(100 * 40 * 30 + 20 ** 3, 0);
  });

  it("has names and colours, and millimetres", () => {
    const model = strFromU8(unzipSync(bytes)["3D/3dmodel.model"]);
    expect(model).toContain('unit="millimeter"');
    expect(model).toContain('displaycolor="#743655"');
    expect(model).toContain('name="Section 1 &lt;of &quot;two&quot;>"');
    expect(model.match(/<object /g)).toHaveLength(2);
  });

  it("is the same bytes for the same parts", () => {
    expect(write3mf(parts)).toEqual(bytes);
  });
});
