import { describe, expect, it } from "vitest";
import type { ColumnFrame } from "../survey/columns.ts";
import { fillStarts, type Stretch, withoutGrazes } from "./fillable.ts";

const COUNT_U = 40;
const frame = (spacingMm: number): ColumnFrame => ({
  u: [1, 0, 0],
  v: [0, 1, 0],
  d: [0, 0, 1],
  bundle: { axis: 2, originU: 0, originV: 0, spacingMm, countU: COUNT_U, countV: 40 },
  backMm: 0,
});

/** Blocked lines over a rectangle of the bundle, all of one depth and thickness. */
function patch(i0: number, j0: number, wide: number, high: number, depthMm: number, thickMm: number): Stretch[] {
  const out: Stretch[] = [];
  for (let j = j0; j < j0 + high; j++) {
    for (let i = i0; i < i0 + wide; i++) {
      const line = i + COUNT_U * j;
      out.push({ line, to: 100, low: 100 - depthMm, near: 100 - depthMm / 2, lengthMm: depthMm, thickMm });
    }
  }
  return out;
}

describe("grazes", () => {
  it("are deep locks two lines wide; three lines wide counts, with its edges", () => {
    expect(withoutGrazes(patch(5, 5, 2, 12, 60, 5), frame(4), 40, 8)).toEqual([]);
    expect(withoutGrazes(patch(5, 5, 3, 12, 60, 5), frame(4), 40, 8).length).toBe(36);
  });

  it("are as wide in millimetres on finer lines", () => {
    // 8 mm on lines 2 mm apart: four lines are a graze, five are not.
    expect(withoutGrazes(patch(5, 5, 4, 12, 60, 5), frame(2), 40, 8)).toEqual([]);
    expect(withoutGrazes(patch(5, 5, 5, 12, 60, 5), frame(2), 40, 8).length).toBe(60);
  });

  it("do not take shallow locks with them, but for lone lines shorter than the spacing", () => {
    expect(withoutGrazes(patch(5, 5, 1, 6, 10, 5), frame(4), 40, 8).length).toBe(6);
    expect(withoutGrazes(patch(5, 5, 1, 1, 3, 1), frame(4), 40, 8)).toEqual([]);
  });
});

describe("what is filled", () => {
  it("short stretches, from where they begin", () => {
    expect([...fillStarts(patch(5, 5, 6, 6, 30, 12), frame(4), 40)]).toEqual(Array.from({ length: 36 }, () => 70));
  });

  it("a long shallow hollow wholly, a deep one not at all", () => {
    const shallow = fillStarts(patch(5, 5, 8, 8, 90, 20), frame(4), 40);
    expect([...shallow].every((from) => from === 10)).toBe(true);
    const deep = fillStarts(patch(5, 5, 8, 8, 90, 60), frame(4), 40);
    expect([...deep].every(Number.isNaN)).toBe(true);
  });

  it("a narrow ledge as far as the section reaches", () => {
    const ledge = fillStarts(patch(5, 5, 3, 12, 90, 60), frame(4), 40);
    expect([...ledge].every((from) => from === 55)).toBe(true);
  });

  it("two locks apart are judged apart, though on neighbouring lines one lies above the other", () => {
    const low = patch(5, 5, 8, 8, 90, 60);
    const high = patch(13, 5, 8, 8, 60, 20).map((s) => ({ ...s, to: 300, low: 240, near: 270 }));
    const starts = fillStarts([...low, ...high], frame(4), 40);
    expect([...starts.slice(0, 64)].every(Number.isNaN)).toBe(true);
    expect([...starts.slice(64)].every((from) => from === 240)).toBe(true);
  });
});
