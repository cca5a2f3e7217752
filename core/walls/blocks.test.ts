import { describe, expect, it } from "vitest";
import { blocksUnder } from "./blocks.ts";
import type { Wall } from "./walls.ts";

/** A wall along x, 45 mm wide, from a height rising by a slope, standing out sideways and turned up by so much. */
function wall(lengthMm: number, heightMm: number, slope: number, upDeg: number): Wall {
  const count = Math.round(lengthMm / 5) + 1;
  const up = (upDeg * Math.PI) / 180;
  const foot = new Float64Array(3 * count);
  const head = new Float64Array(3 * count);
  for (let k = 0; k < count; k++) {
    foot.set([5 * k, 0, heightMm + slope * 5 * k], 3 * k);
    head.set([5 * k, 45 * Math.cos(up), heightMm + slope * 5 * k + 45 * Math.sin(up)], 3 * k);
  }
  return {
    ...{ foot, head, sections: [1, 2], closed: false, wantedMm: 45, narrowed: [], folds: [] },
    widthsMm: new Float64Array(count).fill(45),
  };
}

describe("blocks under a wall", () => {
  it("hold a level wall every 180 mm, each as high as the wall's middle over the board", () => {
    const blocks = blocksUnder(wall(1000, 300, 0.2, 0), 0);
    expect(blocks).toHaveLength(6);
    for (const { heightMm, at, alongMm } of blocks) {
      expect(heightMm).toBeCloseTo(300 + 0.2 * at[0], 6);
      expect(alongMm).toBeCloseTo(at[0] * Math.hypot(1, 0.2), 6);
      expect(at[1]).toBeCloseTo(22.5, 6);
    }
    blocks.slice(1).forEach(({ alongMm }, k) => {
      expect(alongMm - blocks[k].alongMm).toBeGreaterThanOrEqual(180);
    });
  });

  it("are none under a wall that stands upright, nor under one on the board", () => {
    expect(blocksUnder(wall(1000, 300, 0, 80), 0)).toEqual([]);
    expect(blocksUnder(wall(1000, 10, 0, 0), 0)).toEqual([]);
    // Nor is a wall as high as a man stood on blocks.
    expect(blocksUnder(wall(1000, 1500, 0, 0), 0)).toEqual([]);
  });
});
