import { describe, expect, it } from "vitest";
import { sphere } from "../testing/shapes.ts";
import { builtKeys, keysCsv } from "./builtKeys.ts";
import { newPlan } from "./document/document.ts";

const ground = {
  sections: [{ skin: sphere(600, 48), pull: [0, 0, 1] as const }],
  lines: [],
  jacketMm: 8,
  giveMm: 1.5,
};
const floating = { ...newPlan(), seat: { ...newPlan().seat, onBoard: false } };

describe("keys on a plan's jacket", () => {
  it("keep off what is fragile", () => {
    const free = builtKeys(ground, floating);
    expect(free.length).toBeGreaterThan(1);
    const everywhere = [0, 0, 600, 0, 0, 1, 1500];
    const fragile = { ...floating, zones: { ...floating.zones, fragile: everywhere } };
    expect(builtKeys(ground, fragile)).toEqual([]);
  });

  it("are told with where they are glued, a row each", () => {
    const keys = builtKeys(ground, floating);
    const [head, first, ...others] = keysCsv(keys, { min: [-600, -600, -600], max: [600, 600, 600] })
      .trim()
      .split("\n");
    expect(head.split(",")).toHaveLength(9);
    // The second is made otherwise.
    const noted = keysCsv(keys, { min: [-600, -600, -600], max: [600, 600, 600] }, 1)
      .trim()
      .split("\n");
    expect(noted.map((row) => row.endsWith("make it otherwise"))).toEqual(noted.map((_, row) => row === 2));
    expect(others).toHaveLength(keys.length - 1);
    expect(first).toContain(`"`);
    expect(Number(first.split('",')[1].split(",")[0])).toBe(Math.round(keys[0].at[2] + 600));
  });
});
