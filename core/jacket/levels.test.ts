import { describe, expect, it } from "vitest";
import { distanceField } from "../field/distance.ts";
import { isosurface } from "../field/isosurface.ts";
import { plainContext as ctx } from "../job/context.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume } from "../mesh/mesh.ts";
import { moved, sphere } from "../testing/shapes.ts";
import { levelFigures } from "./levels.ts";

const LEVELS_MM = [2, 6, 11];

describe("the figures of a field's levels", () => {
  const ball = moved(sphere(80, 48), 3, -5, 40);
  const field = distanceField(ball, { stepMm: 6, reachMm: 24, exactBandsMm: [[0, 14]] }, ctx);

  it("are those of the surfaces themselves, cut off by the board or whole", () => {
    for (const onBoard of [true, false]) {
      const found = levelFigures(field.grid, field.distanceMm, LEVELS_MM, onBoard, ctx);
      LEVELS_MM.forEach((level, k) => {
        const surface = isosurface(field.grid, field.distanceMm, level, ctx);
        const { areaMm2, volumeMm3 } = areaAndVolume(onBoard ? clipAbove(surface, 0) : surface);
        expect(found[k].areaMm2 / areaMm2).toBeCloseTo(1, 6);
        expect(found[k].volumeMm3 / volumeMm3).toBeCloseTo(1, 6);
      });
    }
  });

  it("are a ball's own: 4 pi r^2 and 4/3 pi r^3", () => {
    levelFigures(field.grid, field.distanceMm, LEVELS_MM, false, ctx).forEach(({ areaMm2, volumeMm3 }, k) => {
      const r = 80 + LEVELS_MM[k];
      expect(areaMm2 / (4 * Math.PI * r ** 2)).toBeCloseTo(1, 2);
      expect(volumeMm3 / ((4 / 3) * Math.PI * r ** 3)).toBeCloseTo(1, 2);
    });
  });
});
