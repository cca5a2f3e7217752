import { describe, expect, it } from "vitest";
import { liftCaution } from "./liftCaution.ts";

describe("the caution of a lift", () => {
  it("tells which sections, what it weighs and of what, and how to lift it", () => {
    const told = liftCaution([1], 117_000, "oil clay");
    expect(told).toContain("Section 1 leaves only after the piece");
    expect(told).toContain("about 115 kg if it is solid clay");
    expect(told).toContain("two people or a hoist");
    expect(liftCaution([2, 3], 8400, "wax")).toMatch(/^Sections 2, 3 leave .* about 8 kg if it is solid wax/);
  });
});
