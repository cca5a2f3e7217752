import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import { sphere } from "../../testing/shapes.ts";
import { lineLengthMm, type PartingLine } from "./cut.ts";
import { fairLine } from "./fair.ts";

const R = 100;
const nearest = NearestField.about(sphere(R, 96), 4, ctx);

/** A zigzag of the given reach about the equator. */
function zigzag(reachMm: number, count = 160): PartingLine {
  const points = new Float32Array(3 * count);
  for (let k = 0; k < count; k++) {
    const a = (2 * Math.PI * k) / count;
    const z = k % 2 === 0 ? reachMm : -reachMm;
    const r = Math.sqrt(R * R - z * z);
    points.set([r * Math.cos(a), r * Math.sin(a), z], 3 * k);
  }
  return { sections: [0, 1], closed: true, points };
}

describe("fairing a line", () => {
  it("takes a zigzag out and keeps the circle it ran about", () => {
    const rough = zigzag(4);
    const fair = fairLine(rough, 4, nearest);
    expect(lineLengthMm(rough) / (2 * Math.PI * R)).toBeGreaterThan(1.5);
    expect(lineLengthMm(fair) / (2 * Math.PI * R)).toBeCloseTo(1, 2);
    for (let k = 2; k < fair.points.length; k += 3) expect(Math.abs(fair.points[k])).toBeLessThan(1.5);
  });

  it("leaves it on the jacket", () => {
    const { points } = fairLine(zigzag(6), 4, nearest);
    for (let k = 0; k < points.length; k += 3) {
      expect(Math.abs(Math.hypot(points[k], points[k + 1], points[k + 2]) - R)).toBeLessThan(0.2);
    }
  });

  it("does not shrink a line that is fair already", () => {
    const circle = zigzag(0);
    expect(lineLengthMm(fairLine(circle, 4, nearest)) / lineLengthMm(circle)).toBeCloseTo(1, 3);
  });

  it("leaves the ends of an open line where they meet others", () => {
    const whole = zigzag(3).points;
    const open: PartingLine = { sections: [0, 1], closed: false, points: whole.slice(0, 90) };
    const { points } = fairLine(open, 4, nearest);
    expect([...points.slice(0, 3)]).toEqual([...open.points.slice(0, 3)]);
    expect([...points.slice(-3)]).toEqual([...open.points.slice(-3)]);
  });

  it("leaves a line too short to fair as it is", () => {
    const stub: PartingLine = { sections: [0, 1], closed: false, points: Float32Array.from([R, 0, 0, 99, 12, 0]) };
    expect(fairLine(stub, 40, nearest).points.length / 3).toBeLessThanOrEqual(4);
  });
});
