import { describe, expect, it } from "vitest";
import type { Wall } from "../walls/walls.ts";
import { buildSteps } from "./buildSteps.ts";

/** A wall that lies level over a square metre, half a metre above the board. */
function level(sections: [number, number]): { readonly wall: Wall } {
  const count = 11;
  const edge = (y: number) =>
    Float64Array.from({ length: 3 * count }, (_, k) => [100 * Math.floor(k / 3), y, 500][k % 3]);
  const widthsMm = new Float64Array(count).fill(45);
  return { wall: { sections, foot: edge(0), head: edge(45), widthsMm, closed: false } as unknown as Wall };
}

describe("a shell as it grows", () => {
  const walls = [level([1, 2]), level([2, 3]), level([1, 3])];

  it("has every wall set up once, with the section that is built first of the two, and every section laid once", () => {
    const steps = buildSteps(3, walls, 0);
    expect(steps.map(({ kind, section, standing }) => [kind, section, standing])).toEqual([
      ["walls", 1, 0],
      ["laid", 1, 1],
      ["walls", 2, 1],
      ["laid", 2, 2],
      // The last one is laid against what stands.
      ["laid", 3, 3],
    ]);
    const setUp = steps.filter(({ kind }) => kind === "walls").flatMap((step) => step.walls);
    expect(setUp).toEqual([0, 2, 1]);
  });

  it("has blocks under what hangs over its board, and none where there is no board", () => {
    const [first] = buildSteps(3, walls, 0);
    expect(first.blocks.length).toBeGreaterThan(3);
    for (const { heightMm, wall } of first.blocks) {
      expect(heightMm).toBeCloseTo(500, 6);
      expect([0, 2]).toContain(wall);
    }
    expect(buildSteps(3, walls, null).every(({ blocks }) => blocks.length === 0)).toBe(true);
  });
});
