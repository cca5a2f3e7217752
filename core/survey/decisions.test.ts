import { describe, expect, it } from "vitest";
import { decisionsOf, undecided } from "./decisions.ts";

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

  const gapsAt = (...xs: number[]) => decisionsOf({ holes: [], gaps: xs.map((x) => gap(x, 5)), thin: [], tips: [] });
  const done = (x: number) => ({ kind: "gap", at: [x, 0, 0], reason: "clay" }) as const;
  const left = (found: ReturnType<typeof gapsAt>, dismissed: Parameters<typeof undecided>[1]) =>
    undecided(found, dismissed).map(({ at }) => at[0]);

  it("is not asked again where the survey finds the same place a little beside, wherever that is", () => {
    for (let x = 0; x < 100; x += 0.7) {
      expect(left(gapsAt(x + 0.2), [done(x)])).toEqual([]);
      expect(left(gapsAt(x + 30), [done(x)])).toEqual([]);
      expect(left(gapsAt(x + 400), [done(x)])).toEqual([x + 400]);
    }
  });

  it("is asked of each of two places that are close together", () => {
    expect(left(gapsAt(0, 24), [done(2)])).toEqual([24]);
    expect(left(gapsAt(0, 24), [done(20)])).toEqual([0]);
    expect(left(gapsAt(0, 24), [done(0), done(24)])).toEqual([]);
  });

  it("of another kind is another decision", () => {
    expect(undecided(gapsAt(0), [{ kind: "thin", at: [0, 0, 0], reason: "" }])).toHaveLength(1);
  });

  it("keeps to a list that can be read", () => {
    const many = Array.from({ length: 40 }, (_, k) => gap(100 * k, k));
    expect(decisionsOf({ holes: [], gaps: many, thin: [], tips: [] })).toHaveLength(8);
  });
});
