import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { cutSections } from "../parting/cut.ts";
import type { Direction } from "../survey/directions.ts";
import { sphere } from "../testing/shapes.ts";
import { Cells } from "./cells.ts";
import { type BlockRequest, findBlocks, orderOf } from "./order.ts";

const found = (request: BlockRequest) => findBlocks(request, ctx);

describe("the order of taking apart", () => {
  it("is the reverse of building, last built first, where nothing blocks", () => {
    expect(orderOf(3, [])).toEqual({ remove: [2, 1, 0], build: [0, 1, 2], circle: [] });
  });

  it("lets what blocks leave first", () => {
    const order = orderOf(3, [
      { section: 2, by: 0 },
      { section: 1, by: 2 },
    ]);
    expect(order.remove).toEqual([0, 2, 1]);
    expect(order.build).toEqual([1, 2, 0]);
  });

  it("names a circle", () => {
    const blocks = [
      { section: 0, by: 1 },
      { section: 1, by: 2 },
      { section: 2, by: 0 },
    ];
    expect(orderOf(4, blocks)).toMatchObject({ circle: [0, 1, 2] });
    expect(orderOf(4, blocks).remove[0]).toBe(3);
  });

  it("never moves a section before one that blocks it, unless they are in a circle", () => {
    const pair = fc.record({ section: fc.nat(4), by: fc.nat(4) }).filter(({ section, by }) => section !== by);
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 8 }), (blocks) => {
        const { remove, build, circle } = orderOf(5, blocks);
        expect([...remove].sort()).toEqual([0, 1, 2, 3, 4]);
        expect(build).toEqual(remove.toReversed());
        for (const { section, by } of blocks) {
          if (circle.includes(section)) continue;
          expect(remove.indexOf(by)).toBeLessThan(remove.indexOf(section));
        }
      }),
      { seed: 8 },
    );
  });
});

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
      stepMm: 4,
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
});
