import { describe, expect, it } from "vitest";
import { placeInWords } from "./place.ts";

const box = { min: [-200, -100, 0], max: [200, 100, 1000] } as const;
const told = (x: number, y: number, z: number) => placeInWords([x, y, z], box, (mm) => `${mm} mm`);

describe("a place in words", () => {
  it("is told as it is seen from the front, and how high up", () => {
    expect(told(-150, -90, 704)).toBe("front left, 700 mm up");
    expect(told(150, 90, 20)).toBe("back right, 20 mm up");
    expect(told(10, 90, 500)).toBe("back, 500 mm up");
    expect(told(-199, 5, 500)).toBe("left, 500 mm up");
    expect(told(0, 0, 998)).toBe("middle, 1000 mm up");
  });

  it("counts its height from the lowest place of the piece, and never below it", () => {
    const floating = { min: [-50, -50, -300], max: [50, 50, 300] } as const;
    expect(placeInWords([0, -50, -200], floating, String)).toBe("front, 100 up");
    expect(told(0, -90, -4)).toBe("front, 0 mm up");
  });
});
