import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { orderOf } from "./order.ts";

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
