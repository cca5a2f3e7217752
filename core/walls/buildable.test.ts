import { describe, expect, it } from "vitest";
import { dragsMm, withoutFlange } from "./buildable.ts";
import type { Narrowed } from "./walls.ts";

const narrow = (widthMm: number, lengthMm: number): Narrowed => ({
  ...{ widthMm, lengthMm, fromMm: 0, limit: "form" },
  at: [0, 0, 0],
});

describe("what of a wall cannot be built", () => {
  it("is what is too narrow for a flange and too long to be bridged", () => {
    const found = withoutFlange({ narrowed: [narrow(14, 60), narrow(15, 300), narrow(0, 55)] });
    expect(found).toEqual([narrow(14, 60)]);
  });

  it("is where the section that leaves first drags: the one with the greater number", () => {
    // Left and right of two rulings: the left one drags on the first, the right one on both.
    const draft = Float32Array.from([-0.1, -0.1, 0.5, -0.1]);
    expect(dragsMm({ sections: [2, 1], draft })).toBe(5);
    expect(dragsMm({ sections: [1, 2], draft })).toBe(10);
  });
});
