import { describe, expect, it } from "vitest";
import type { Sdf } from "../field/implicit.ts";
import { NearestField } from "../field/nearest.ts";
import { polygonise } from "../field/polygonise.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { cutSections } from "../parting/lines/cut.ts";
import type { Direction } from "../space/directions.ts";
import { sphere } from "../testing/shapes.ts";
import { type BlockRequest, findBlocks } from "./blocks.ts";
import { Cells } from "./cells.ts";
import { orderOf } from "./order.ts";

const found = (request: BlockRequest) => findBlocks(request, ctx);

describe("who blocks whom", () => {
  const ball = sphere(100, 64);
  /** A ball cut by height: a cap on a belt on a bowl. */
  function layered(heights: readonly number[], pulls: readonly Direction[]): BlockRequest {
    const z = Float32Array.from({ length: ball.positions.length / 3 }, (_, v) => ball.positions[3 * v + 2]);
    // Section s holds from heights[s] up: the potential of a layer falls off outside it.
    const potentials = pulls.map((_, s) =>
      z.map((value) => {
        const low = heights[s] ?? -Infinity;
        const high = heights[s + 1] ?? Infinity;
        return Math.min(value - low, high - value);
      }),
    );
    const mesh: TriangleMesh = ball;
    const { skins } = cutSections(mesh, potentials);
    const cells = Cells.of(NearestField.about(mesh, 4, ctx), potentials);
    return {
      skins,
      pulls,
      cells: cells.data,
      sectionOf: potentials.map((_, cell) => cell),
      shellMm: 15,
      boardMm: null,
    };
  }

  it("nobody, for two halves pulled apart", () => {
    expect(
      found(
        layered(
          [-1000, 0],
          [
            [0, 0, -1],
            [0, 0, 1],
          ],
        ),
      ),
    ).toEqual([]);
  });

  it("a wall that can be leaned blocks nobody", () => {
    // The belt slides up past the cap's rim if the wall between them stands upright.
    const blocks = found(
      layered(
        [-1000, -40, 60],
        [
          [0, 0, -1],
          [0, 0, 1],
          [0, 0, 1],
        ],
      ),
    );
    expect(blocks).toEqual([]);
  });

  it("belt and cap block the bowl that is pulled up through them, and it says where", () => {
    const blocks = found(
      layered(
        [-1000, -40, 60],
        [
          [0, 0, 1],
          [0.8, 0, 0.6],
          [0, 0, 1],
        ],
      ),
    );
    const met = blocks.find(({ section, by }) => section === 0 && by === 1);
    expect(met).toBeDefined();
    expect(met?.at[2]).toBeGreaterThan(-60);
    expect(met?.afterMm).toBeGreaterThan(0);
    expect(blocks.some(({ section }) => section === 2)).toBe(false);
    const { remove } = orderOf(3, blocks);
    expect(remove.indexOf(1)).toBeLessThan(remove.indexOf(0));
  });

  it("two pulled through each other block each other: a circle", () => {
    const blocks = found(
      layered(
        [-1000, 0],
        [
          [0, 0, 1],
          [0, 0, -1],
        ],
      ),
    );
    expect(orderOf(2, blocks).circle).toEqual([0, 1]);
  });

  describe("two hooks", () => {
    const WIDE = 80;
    const SHELL = 15;
    const slab =
      (low: readonly number[], high: readonly number[]): Sdf =>
      (x, y, z) =>
        Math.max(low[0] - x, x - high[0], low[1] - y, y - high[1], low[2] - z, z - high[2]);
    /**
     * A trough 80 mm wide whose right wall has a lip over it. The left wall's inside is pulled up, past the lip; the right
     * wall's, with the lip, to the left. What is outside the trough is no section's.
     */
    function hooks(lipReachMm: number, stepMm: number): BlockRequest {
      const parts = [
        slab([-30, -60, 0], [0, 60, 160]),
        slab([WIDE, -60, 0], [WIDE + 30, 60, 200]),
        slab([-30, -60, -30], [WIDE + 30, 60, 0]),
        slab([WIDE - lipReachMm, -60, 170], [WIDE + 30, 60, 200]),
      ];
      const body: Sdf = (x, y, z) => Math.min(...parts.map((part) => part(x, y, z)));
      const mesh = polygonise(body, { min: [-60, -90, -60], max: [140, 90, 230] }, stepMm);
      const p = mesh.positions;
      const fields = [[], [], []] as number[][];
      for (let v = 0; v < p.length; v += 3) {
        const [x, y, z] = p.subarray(v, v + 3);
        const inside = Math.min(x + 20, WIDE + 20 - x, z + 20, 55 - Math.abs(y), 190 - z);
        fields[0].push(Math.min(inside, 6 - x));
        fields[1].push(Math.min(inside, x - 6));
        fields[2].push(-inside);
      }
      const potentials = fields.map((field) => Float32Array.from(field));
      const pulls: Direction[] = [
        [0, 0, 1],
        [-1, 0, 0],
      ];
      return {
        ...{
          skins: cutSections(mesh, potentials).skins.slice(0, 2),
          pulls,
          sectionOf: [0, 1, -1],
          shellMm: SHELL,
          boardMm: null,
        },
        cells: Cells.of(NearestField.about(mesh, stepMm, ctx), potentials).data,
      };
    }

    it("hold each other where the lip reaches over the other wall, on any grid", () => {
      for (const stepMm of [6, 4, 3]) {
        const blocks = found(hooks(68, stepMm));
        expect(blocks.find(({ section, by }) => section === 0 && by === 1)?.biteMm).toBeGreaterThan(SHELL / 3);
        expect(blocks.some(({ section, by }) => section === 1 && by === 0)).toBe(true);
        expect(orderOf(2, blocks).circle).toEqual([0, 1]);
      }
    });

    it("come apart one after the other where there is room to pass", () => {
      for (const stepMm of [6, 4, 3]) {
        const blocks = found(hooks(25, stepMm));
        expect(blocks.some(({ section, by }) => section === 0 && by === 1)).toBe(false);
        const { remove, circle } = orderOf(2, blocks);
        expect(circle).toEqual([]);
        expect(remove.indexOf(0)).toBeLessThan(remove.indexOf(1));
      }
    });
  });
});
