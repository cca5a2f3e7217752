import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { connectedPieces, floodFrom, type NeighbourRows } from "./flood.ts";

/** A grid of so many columns and rows; neighbours share a side. */
function grid(columns: number, rows: number): NeighbourRows {
  const start = [0];
  const list: number[] = [];
  for (let v = 0; v < columns * rows; v++) {
    const [x, y] = [v % columns, Math.floor(v / columns)];
    if (x > 0) list.push(v - 1);
    if (x < columns - 1) list.push(v + 1);
    if (y > 0) list.push(v - columns);
    if (y < rows - 1) list.push(v + columns);
    start.push(list.length);
  }
  return { start: Uint32Array.from(start), list: Uint32Array.from(list) };
}

const labels = (columns: number, rows: number) =>
  fc.array(fc.integer({ min: 0, max: 2 }), { minLength: columns * rows, maxLength: columns * rows });

describe("connected pieces", () => {
  it("agree with pieces joined edge by edge", () => {
    const near = grid(7, 6);
    fc.assert(
      fc.property(labels(7, 6), (label) => {
        const root = label.map((_, v) => v);
        const find = (v: number): number => (root[v] === v ? v : find(root[v]));
        label.forEach((own, v) => {
          for (const o of near.list.subarray(near.start[v], near.start[v + 1]))
            if (label[o] === own) root[find(v)] = find(o);
        });
        const { of, label: names, sizes } = connectedPieces(label, near);
        expect(new Set(label.map((_, v) => find(v))).size).toBe(names.length);
        expect(sizes.reduce((sum, size) => sum + size, 0)).toBe(label.length);
        label.forEach((own, v) => {
          expect(names[of[v]]).toBe(own);
          expect(of[v]).toBe(of[find(v)]);
        });
      }),
    );
  });
});

describe("a flood", () => {
  it("reaches every place it may enter by the shortest way", () => {
    const [columns, rows] = [8, 5];
    const told = new Uint8Array(columns * rows);
    told[0] = 1;
    const steps = new Map([[0, 0]]);
    floodFrom(told, grid(columns, rows), (v, from) => steps.set(v, (steps.get(from) as number) + 1));
    for (let v = 0; v < told.length; v++) expect(steps.get(v)).toBe((v % columns) + Math.floor(v / columns));
  });

  it("does not enter what it may not", () => {
    const told = Uint8Array.from([1, 0, 0, 0, 0]);
    const reached: number[] = [];
    floodFrom(
      told,
      grid(5, 1),
      (v) => reached.push(v),
      (v) => v !== 3,
    );
    expect(reached).toEqual([1, 2]);
    expect([...told]).toEqual([1, 1, 1, 0, 0]);
  });
});
