import { describe, expect, it } from "vitest";
import { BRICK_NODES, type BrickGrid, gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import { dropFloating } from "./floating.ts";

/** A field of balls on a grid of 4 x 2 x 2 bricks with a step of 1 mm. */
function balls(grid: BrickGrid, list: readonly (readonly [x: number, y: number, z: number, r: number])[]) {
  const out = new Float32Array(nodeCount(grid));
  const p = new Float64Array(3);
  for (let n = 0; n < out.length; n++) {
    nodePoint(grid, n, p, 0);
    out[n] = Math.min(...list.map(([x, y, z, r]) => Math.hypot(p[0] - x, p[1] - y, p[2] - z) - r));
  }
  return out;
}

describe("fill that touches nothing", () => {
  const bricks = [4, 2, 2] as const;
  const grid = gridFromActive([0, 0, 0], 1, bricks, new Uint8Array(16).fill(1));
  const all = new Uint8Array(16).fill(1);
  const body = [7, 8, 8, 4.3] as const;

  it("is taken out, and what touches the body stays", () => {
    const bare = { grid, phi: balls(grid, [body]) };
    const touching = [12, 8, 8, 2.6] as const;
    const phi = balls(grid, [body, touching, [24, 8, 8, 3.2]]);
    const dropped = dropFloating(grid, phi, bare, all);
    const want = balls(grid, [body, touching]);
    expect(dropped).toBeGreaterThan(100);
    for (let n = 0; n < phi.length; n++) expect(phi[n] < 0).toBe(want[n] < 0);
  });

  it("stays where it goes on in bricks that were filled before", () => {
    const bare = { grid, phi: balls(grid, [body]) };
    // Filled before in the bricks of x < 24, and now beyond them.
    const phi = balls(grid, [[24, 8, 8, 3.2]]);
    const changed = Uint8Array.from(all, (_, b) => (b % 4 === 3 ? 1 : 0));
    expect(dropFloating(grid, phi, bare, changed)).toBe(0);
    expect(phi.length).toBe(16 * BRICK_NODES);
  });
});
