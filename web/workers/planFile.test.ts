import { beforeAll, describe, expect, it } from "vitest";
import { readScan } from "../../core/mesh/io/index.ts";
import { areaAndVolume } from "../../core/mesh/mesh.ts";
import type { PlanResult } from "../../core/plan/engine.ts";
import { MM2_PER_M2 } from "../../core/units/constants.ts";
import { planOfABall } from "../testing/figures.ts";
import { type PlanFile, planFileOf } from "./planFile.ts";

let plan: PlanResult;
beforeAll(() => {
  plan = planOfABall();
});

const bytesOf = async (kind: PlanFile): Promise<Uint8Array> => {
  const file = await planFileOf(plan, kind);
  if (typeof file === "string") throw new Error(`${kind} is text.`);
  return file;
};
const textOf = async (kind: PlanFile): Promise<string> => {
  const file = await planFileOf(plan, kind);
  if (typeof file !== "string") throw new Error(`${kind} is no text.`);
  return file;
};

describe("a plan written out", () => {
  it("is, as STL, the filled jacket, to the square millimetre", async () => {
    const { mesh } = await readScan(await bytesOf("stl"), "plan.stl");
    expect(areaAndVolume(mesh).areaMm2).toBeCloseTo(areaAndVolume(plan.parting.filled).areaMm2, -1);
  });

  it("is, as GLB, the jacket and every section's skin by name, in metres", async () => {
    const bytes = await bytesOf("glb");
    const json = JSON.parse(
      new TextDecoder().decode(bytes.subarray(20, 20 + new DataView(bytes.buffer).getUint32(12, true))),
    );
    expect(json.nodes.map(({ name }: { name: string }) => name)).toEqual(
      expect.arrayContaining(["jacket", "section-1", "section-2"]),
    );
    const skins = plan.parting.sections.reduce((sum, { areaMm2 }) => sum + areaMm2, 0);
    const wholeMm2 = MM2_PER_M2 * areaAndVolume((await readScan(bytes, "plan.glb")).mesh).areaMm2;
    expect(wholeMm2 / (areaAndVolume(plan.jacket.mesh).areaMm2 + skins)).toBeCloseTo(1, 3);
  });

  it("is, as JSON and as DXF, its parting line", async () => {
    const { lines } = JSON.parse(await textOf("json")) as { lines: { points: number[][]; closed: boolean }[] };
    const lengthMm = lines.reduce(
      (sum, { points, closed }) =>
        sum + points.reduce((all, point, k) => all + apart(point, points[k + 1] ?? (closed ? points[0] : point)), 0),
      0,
    );
    expect(lengthMm).toBeCloseTo(plan.parting.partingLengthMm, 0);
    expect((await textOf("dxf")).match(/^VERTEX$/gm)?.length).toBeGreaterThanOrEqual(lines[0].points.length);
  });
});

const apart = (a: number[], b: number[]) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
