import { describe, expect, it } from "vitest";
import { Cancelled, plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";
import { capsule, moved, sphere } from "../testing/shapes.ts";
import { coarseEngineOf, coarsePlan, practise } from "./coarse.ts";
import { newPlan, type PlanDocument } from "./document/document.ts";

const R = 150;
const LENGTH = 900;

/** Triangles with corners of their own, as most files hold them. */
function soup({ positions, triangles }: TriangleMesh): TriangleMesh {
  return {
    positions: Float32Array.from([...triangles].flatMap((v) => [...positions.subarray(3 * v, 3 * v + 3)])),
    triangles: Uint32Array.from(triangles.keys()),
  };
}

describe("the coarse answer of parts that run into each other", () => {
  // Thinned, they are one surface that runs through itself, and its own volume counts the overlap twice.
  it("is a jacket as thick as it was asked for", () => {
    const ball = sphere(200, 64);
    const parts = [0, 1, 2].map((k) => moved(ball, 60 * k, 0, 200));
    const scan = soup(together(together(parts[0], parts[1]), parts[2]));
    const { jacket } = coarsePlan(coarseEngineOf(scan), newPlan(), TYPICAL_RATES, "quick", ctx);
    const coat = jacket.siliconeMm3 / (jacket.outerAreaMm2 * jacket.thicknessMm);
    expect(coat).toBeGreaterThan(0.8);
    expect(coat).toBeLessThan(1.5);
  });
});

describe("the coarse answer", () => {
  // Fine enough that it is thinned many times over.
  const body = moved(capsule(R, LENGTH, 160), 0, 0, 600);
  const base = newPlan({ onBoard: false });
  const document: PlanDocument = { ...base, jacket: { ...base.jacket, smoothingMm: 0, rimWidthMm: 0 } };
  const coarse = coarsePlan(coarseEngineOf(soup(body)), document, TYPICAL_RATES, "quick", ctx);

  it("weighs the silicone to a few in a hundred, of a scan that was never joined or mended", () => {
    const shellMm3 = (r: number) => (4 / 3) * Math.PI * r ** 3 + Math.PI * r ** 2 * LENGTH;
    const exact = shellMm3(R + coarse.jacket.thicknessMm) - shellMm3(R);
    expect(coarse.jacket.siliconeMm3 / exact).toBeGreaterThan(0.95);
    expect(coarse.jacket.siliconeMm3 / exact).toBeLessThan(1.05);
  });

  it("parts a capsule in two across its middle, to a few in a hundred of the shortest line", () => {
    const { sections, partingLengthMm } = coarse.parting;
    expect(sections).toHaveLength(2);
    expect(partingLengthMm / (2 * Math.PI * (R + coarse.jacket.thicknessMm))).toBeCloseTo(1, 1);
  });
});

describe("practice", () => {
  it("plans to the end, some times over, and stops when it is told to", () => {
    let rounds = 0;
    const counting = (stage: string, fraction: number) => {
      if (stage === "repair" && fraction === 1) rounds++;
    };
    practise({ ...ctx, progress: counting });
    expect(rounds).toBeGreaterThan(1);
    const stopped = () => {
      if (rounds > 0) throw new Cancelled();
    };
    expect(() => practise({ ...ctx, checkCancelled: stopped })).toThrow(Cancelled);
  });
});
