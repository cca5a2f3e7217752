import { describe, expect, it } from "vitest";
import { gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import type { Cells } from "./cells.ts";
import { type FillChoice, fillsOf } from "./fills.ts";

const STEP_MM = 2;
const grid = gridFromActive([0, 0, 0], STEP_MM, [6, 3, 4], new Uint8Array(72).fill(1));

function field(at: (x: number, y: number, z: number) => number): Float32Array {
  const p = new Float64Array(3);
  return Float32Array.from({ length: nodeCount(grid) }, (_, n) => {
    nodePoint(grid, n, p, 0);
    return at(p[0], p[1], p[2]);
  });
}

const slab = (low: readonly number[], high: readonly number[]) => (x: number, y: number, z: number) =>
  Math.max(low[0] - x, x - high[0], low[1] - y, y - high[1], low[2] - z, z - high[2]);

/** A jacket that is flat at z = 20.5 but for a wall at either side of a gap, x 60.5 to 70.5, 30 mm high. */
const bare = (x: number, y: number, z: number) =>
  Math.min(z - 20.5, slab([50, -9, 0], [60.5, 99, 50.5])(x, y, z), slab([70.5, -9, 0], [92, 99, 50.5])(x, y, z));
/** A pad of 24 x 20 mm, 8 mm thick, on the flat; and the gap closed over 36 mm of its length. */
const pad = slab([9, 11, 18], [33, 31, 28.5]);
const web = slab([58, 6.5, 18], [73, 42.5, 50.5]);

const PAD_MM3 = 24 * 20 * 8;
const WEB_MM3 = 10 * 36 * 30;

function fills(mostSiliconeMm: number, choices: readonly FillChoice[] = []) {
  const phi = field((x, y, z) => Math.min(bare(x, y, z), pad(x, y, z), web(x, y, z)));
  return fillsOf({
    filled: { grid, phi, capMm: 20, boardMm: null, away: new Uint8Array(0) },
    bare: { grid, phi: field(bare) },
    // Every place is in the one section's cell.
    cells: { at: () => 0 } as unknown as Cells,
    ...{ sections: 1, totalMm3: PAD_MM3 + WEB_MM3, mostSiliconeMm, choices },
  });
}

describe("the fills of a plan", () => {
  it("add up to what was filled, largest first, each with the jacket it lies on", () => {
    const { parts } = fills(15);
    expect(parts).toHaveLength(2);
    expect(parts.reduce((sum, { volumeMm3 }) => sum + volumeMm3, 0)).toBeCloseTo(PAD_MM3 + WEB_MM3, 0);
    for (const { bySection, volumeMm3 } of parts) expect(bySection[0]).toBeCloseTo(volumeMm3, 0);
    const [gap, flat] = parts;
    expect(Math.abs(gap.volumeMm3 / WEB_MM3 - 1)).toBeLessThan(0.15);
    // The pad lies on 480 mm2; the web on the floor of the gap and on both its walls.
    expect(Math.abs(flat.onJacketMm2 / 480 - 1)).toBeLessThan(0.15);
    expect(Math.abs(gap.onJacketMm2 / (360 + 2 * 1080) - 1)).toBeLessThan(0.4);
    expect(Math.abs(flat.thickMm - 8)).toBeLessThan(STEP_MM);
  });

  it("close a gap with a web where they are too thick for silicone", () => {
    expect(fills(50).parts[0].kind).toBe("silicone");
    expect(fills(3).parts[0].kind).toBe("web");
  });

  it("tell at a place what the fill there is made of", () => {
    const { kindAt } = fills(5, [{ at: [65, 21, 35], kind: "plug" }]);
    expect(kindAt(65, 21, 35)).toBe("plug");
    // Just off its face, as a section's inner face is.
    expect(kindAt(65, 21, 51)).toBe("plug");
    expect(kindAt(21, 40, 21)).toBeNull();
  });
});
