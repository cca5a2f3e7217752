import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { refined } from "../mesh/refine.ts";
import { sphere } from "../testing/shapes.ts";
import { lugsFor } from "./lugs.ts";

/** The half of a ball of 400 mm that lies towards x. */
function half(): TriangleMesh {
  const { positions: p, triangles: t } = refined(sphere(400, 48), 40);
  const kept: number[] = [];
  for (let k = 0; k < t.length; k += 3) {
    const x = (p[3 * t[k]] + p[3 * t[k + 1]] + p[3 * t[k + 2]]) / 3;
    if (x > 0) kept.push(t[k], t[k + 1], t[k + 2]);
  }
  return { positions: p, triangles: Uint32Array.from(kept) };
}
const CENTRE = [200, 0, 0] as const;
const edge = Float64Array.from({ length: 240 * 3 }, (_, k) => {
  const turn = (2 * Math.PI * Math.floor(k / 3)) / 240;
  return k % 3 === 0 ? 0 : k % 3 === 1 ? 400 * Math.cos(turn) : 400 * Math.sin(turn);
});

describe("lugs of a heavy section", () => {
  it("lie above its centre of mass, to either side, clear of its edges, and the line between them passes over it", () => {
    const lugs = lugsFor(half(), [edge], CENTRE);
    if (!lugs) throw new Error("There is room for lugs.");
    const [a, b] = lugs.at;
    expect(Math.min(a[2], b[2])).toBeGreaterThan(0);
    expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThan(400);
    expect(lugs.offMm).toBeLessThan(25);
    for (const at of lugs.at) {
      for (let k = 0; k < edge.length; k += 3)
        expect(Math.hypot(edge[k] - at[0], edge[k + 1] - at[1], edge[k + 2] - at[2])).toBeGreaterThanOrEqual(60);
    }
  });

  it("have no place on a section that lies below its centre of mass", () => {
    expect(lugsFor(half(), [edge], [200, 0, 500])).toBeNull();
  });
});
