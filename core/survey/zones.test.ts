import { describe, expect, it } from "vitest";
import { vertexNormals } from "../mesh/normals.ts";
import { sphere } from "../testing/shapes.ts";
import { DAB_FIGURES, lengthWithin, withDab, withinZone, withoutDabs } from "./zones.ts";

const R = 100;
const ball = sphere(R, 48);
const { normals, areasMm2 } = vertexNormals(ball);
const dab = [0, 0, R, 0, 0, 1, 30];

describe("a zone", () => {
  it("covers what lies within the brush of a dab: a cap of its chord's radius", () => {
    const within = withinZone(dab, ball.positions, normals, 0);
    const area = areasMm2.reduce((sum, own, v) => sum + own * within[v], 0);
    // A cap of chord c has the area pi c2, on any sphere.
    expect(area / (Math.PI * 30 ** 2)).toBeGreaterThan(0.9);
    expect(area / (Math.PI * 30 ** 2)).toBeLessThan(1.12);
  });

  it("holds on the jacket over the piece, as far as that lies over it", () => {
    const over = Float32Array.from(ball.positions, (x) => x * 1.08);
    const tip = withinZone(dab, over, normals, 8);
    expect(tip.some((own) => own === 1)).toBe(true);
    expect(withinZone([0, 0, R, 0, 0, 1, 3], over, normals, 0).some((own) => own === 1)).toBe(false);
  });

  it("stays on its own wall", () => {
    const under = [0, 0, R, 0, 0, -1, 30];
    expect(withinZone(under, ball.positions, normals, 0).some((own) => own === 1)).toBe(false);
    expect(withinZone(under, ball.positions, null, 0).some((own) => own === 1)).toBe(true);
  });

  it("takes no dab twice, and gives them back to the wiper", () => {
    const once = withDab([], [0, 0, R], [0, 0, 1], 30);
    expect(once).toHaveLength(DAB_FIGURES);
    expect(withDab(once, [2, 0, R], [0, 0, 1], 30)).toBe(once);
    const two = withDab(once, [50, 0, 85], [0.5, 0, 0.85], 30);
    expect(two).toHaveLength(2 * DAB_FIGURES);
    // A wall's other side is another place.
    expect(withDab(once, [0, 0, R - 5], [0, 0, -1], 30)).toHaveLength(2 * DAB_FIGURES);
    expect(withoutDabs(two, [48, 0, 85], 10)).toEqual(once);
    expect(withoutDabs(two, [0, 0, 0], 10)).toEqual(two);
  });

  it("tells how much of a line runs through it", () => {
    const points = Array.from({ length: 201 }, (_, k) => [k - 100, 0, R]).flat();
    expect(lengthWithin(dab, { points, closed: false }, 0)).toBeCloseTo(60, -0.5);
    expect(lengthWithin(dab, { points, closed: false }, 5)).toBeCloseTo(70, -0.5);
    expect(lengthWithin([], { points, closed: false }, 0)).toBe(0);
  });
});
