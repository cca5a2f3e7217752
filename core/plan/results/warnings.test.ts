import { describe, expect, it } from "vitest";
import { warningInWords } from "./warnings.ts";

const box = { min: [-100, -100, 0], max: [100, 100, 800] } as const;

describe("warnings in words", () => {
  it("tell a section that is held with its figure and its place", () => {
    const held = { kind: "held", section: 2, biteMm: 14, at: [-80, 70, 700] } as const;
    const told = warningInWords(held, box);
    expect(told).toMatch(/^Section 2 is held: .* 14(\.0)?\smm deep into the jacket \(back left, 700\smm up\)\.$/);
    const inches = { length: (mm: number) => `${mm / 25.4} in`, mass: String };
    expect(warningInWords({ ...held, biteMm: 25.4, at: null }, box, inches)).toContain("1 in deep into the jacket.");
  });

  it("tell sections in a circle in the order of their numbers", () => {
    const told = warningInWords({ kind: "circle", sections: [3, 1], at: [0, -90, 400] }, box);
    expect(told).toMatch(/^Sections 1 and 3 block each other/);
    expect(told).toMatch(/They meet at: front, 400\smm up\.$/);
  });

  it("tell a lift with its caution, and anything else as it is", () => {
    const lift = { kind: "lift", sections: [1], massG: 80_000, surface: "oil clay" } as const;
    expect(warningInWords(lift, box)).toContain("two people or a hoist");
    expect(warningInWords({ kind: "scan", text: "A hole was closed." }, box)).toBe("A hole was closed.");
  });
});
