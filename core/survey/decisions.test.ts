import { describe, expect, it } from "vitest";
import { decisionsOf } from "./decisions.ts";

const gap = (x: number, narrowestMm: number) => ({
  at: [x, 0, 0] as [number, number, number],
  narrowestMm,
  areaMm2: 100,
});

describe("what needs a decision", () => {
  it("takes the kinds by turns, the most telling of each first", () => {
    const found = decisionsOf({
      holes: [{ at: [0, 0, 100], girthMm: 300, loop: new Float32Array(0) }],
      gaps: [gap(0, 4), gap(500, 6)],
      thin: [gap(900, 2)],
      tips: [{ at: [0, 300, 40], depthMm: 30 }],
    });
    expect(found.map(({ kind }) => kind)).toEqual(["hole", "gap", "thin", "tip", "gap"]);
    expect(found.map(({ figureMm }) => figureMm)).toEqual([300, 4, 2, 30, 6]);
  });

  it("knows a place again when the survey finds it a little beside", () => {
    const ids = [0, 12, 400].map((x) => decisionsOf({ holes: [], gaps: [gap(x, 5)], thin: [], tips: [] })[0].id);
    expect(ids[1]).toBe(ids[0]);
    expect(ids[2]).not.toBe(ids[0]);
  });

  it("keeps to a list that can be read", () => {
    const many = Array.from({ length: 40 }, (_, k) => gap(100 * k, k));
    expect(decisionsOf({ holes: [], gaps: many, thin: [], tips: [] }).length).toBeLessThan(12);
  });
});
