import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { sphere } from "../testing/shapes.ts";
import { fillThickness, thickestFillMm } from "./fillThickness.ts";

const STEP_MM = 4;
const bare = NearestField.about(sphere(100, 48), 2 * STEP_MM, ctx);

describe("the thickness of a fill", () => {
  it("is how far a skin stands off the bare jacket, and nothing where it lies on it", () => {
    const body = sphere(100, 40);
    // The upper half is filled, up to 20 mm at the top.
    const positions = body.positions.map((x, k) => x * (1 + 0.2 * Math.max(0, body.positions[k - (k % 3) + 2] / 100)));
    const skin = { ...body, positions };
    const found = fillThickness(skin, bare, STEP_MM);
    found.forEach((mm, v) => {
      const wanted = Math.max(0, Math.hypot(...positions.subarray(3 * v, 3 * v + 3)) - 100);
      if (wanted < STEP_MM / 2 - 0.5) expect(mm).toBe(0);
      if (wanted > STEP_MM / 2 + 0.5) expect(Math.abs(mm - wanted)).toBeLessThan(0.5);
    });
    expect(Math.abs(thickestFillMm(skin, bare, STEP_MM) - 20)).toBeLessThan(1.5);
  });

  it("is nothing on a jacket without fill", () => {
    expect(thickestFillMm(sphere(100, 40), bare, STEP_MM)).toBe(0);
  });
});
