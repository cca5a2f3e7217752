import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { refined } from "../mesh/refine.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";
import type { Direction } from "../space/directions.ts";
import { box, sphere } from "../testing/shapes.ts";
import { type JacketKeysRequest, jacketKeys, keyBiteMm, keyTray } from "./jacketKeys.ts";
import { TYPICAL_JACKET_KEYS } from "./settings.ts";

const R = 400;

/** The half of a ball that faces a pull. */
function half(pull: Direction): TriangleMesh {
  const { positions: p, triangles: t } = sphere(R, 64);
  const kept: number[] = [];
  for (let k = 0; k < t.length; k += 3) {
    const facing = [0, 1, 2].reduce(
      (sum, n) => sum + [0, 1, 2].reduce((dot, a) => dot + p[3 * t[k + n] + a] * pull[a], 0),
      0,
    );
    if (facing > 0) kept.push(t[k], t[k + 1], t[k + 2]);
  }
  return dropUnusedVertices({ positions: p, triangles: Uint32Array.from(kept) });
}

const PULLS: readonly Direction[] = [
  [0, 1, 0],
  [0, -1, 0],
];
const circle = Float32Array.from(
  Array.from({ length: 200 }, (_, k) => (2 * Math.PI * k) / 200).flatMap((turn) => [
    R * Math.cos(turn),
    0,
    R * Math.sin(turn),
  ]),
);
const request: JacketKeysRequest = {
  sections: PULLS.map((pull) => ({ skin: half(pull), pull })),
  lines: [{ points: circle }],
  zones: [],
  jacketMm: 8,
  giveMm: 1.5,
  boardMm: null,
  keys: TYPICAL_JACKET_KEYS,
};

describe("keys on the jacket", () => {
  it("set by hand stand where they were set, with what speaks against each", () => {
    const on = (x: number, y: number, z: number): [number, number, number] => {
      const length = Math.hypot(x, y, z);
      return [(R * x) / length, (R * y) / length, (R * z) / length];
    };
    const placed = [
      on(0, 1, 0),
      on(0.02, -1, 0),
      on(1, 0.05, 0),
      on(0.9, 0.45, 0),
      [0, 2 * R, 0] as [number, number, number],
    ];
    const keys = jacketKeys({ ...request, keys: { ...TYPICAL_JACKET_KEYS, placed } });
    expect(keys.map(({ section }) => section)).toEqual([1, 2, 1, 1, 1]);
    expect(keys.map(({ at }) => [...at])).toEqual(placed);
    expect(keys[0].troubles).toEqual([]);
    expect(keys[1].troubles).toEqual([]);
    expect(keys[2].troubles).toEqual(["locks", "line"]);
    expect(keys[3].troubles).toEqual(["locks"]);
    expect(keys[4].troubles).toContain("off the jacket");
    const fragile = jacketKeys({
      ...request,
      zones: [[0, R, 0, 0, 1, 0, 60]],
      keys: { ...TYPICAL_JACKET_KEYS, placed },
    });
    expect(fragile[0].troubles).toEqual(["zone"]);
  });

  it("are each left free by the section over it, by the bite", () => {
    const keys = jacketKeys(request);
    expect(keys.length).toBeGreaterThan(6);
    for (const { section, normal, biteMm } of keys) {
      expect(biteMm).toBeLessThanOrEqual(request.giveMm);
      expect(keyBiteMm(normal, PULLS[section - 1], TYPICAL_JACKET_KEYS)).toBe(biteMm);
    }
    for (const section of [1, 2]) expect(keys.some((key) => key.section === section)).toBe(true);
  });

  it("keep off lines, zones and the board, and apart from each other, whatever is asked for", () => {
    const made = fc.record({
      spacingMm: fc.integer({ min: 80, max: 500 }),
      radiusMm: fc.integer({ min: 5, max: 25 }),
      heightMm: fc.integer({ min: 3, max: 15 }),
      taperDeg: fc.integer({ min: 5, max: 50 }),
      kind: fc.constantFrom("buttons" as const, "strips" as const),
      giveMm: fc.double({ min: 0.3, max: 3, noNaN: true }),
    });
    const zone = [0, R, 0, 0, 1, 0, 90];
    fc.assert(
      fc.property(made, ({ giveMm, ...figures }) => {
        const keys = { ...TYPICAL_JACKET_KEYS, ...figures };
        const found = jacketKeys({ ...request, giveMm, keys, zones: [zone], boardMm: -R + 60 });
        for (const [n, key] of found.entries()) {
          expect(key.biteMm).toBeLessThanOrEqual(giveMm);
          expect(key.toLineMm).toBeGreaterThan(keys.radiusMm);
          expect(Math.hypot(key.at[0], key.at[1] - R, key.at[2])).toBeGreaterThan(90 + keys.radiusMm);
          expect(key.at[2]).toBeGreaterThan(-R + 60 + keys.radiusMm);
          for (const other of found.slice(n + 1)) {
            const apart = Math.hypot(...key.at.map((x, a) => x - other.at[a]));
            expect(apart).toBeGreaterThan(keys.spacingMm / 2);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it("stand on flats, not on corners and edges", () => {
    const pull: Direction = [0, 0, 1];
    // A slab 400 mm wide, its edges sharp; only its top is free.
    const skin = refined(box(400, 400, 40), 8);
    const found = jacketKeys({ ...request, sections: [{ skin, pull }], lines: [] });
    expect(found.length).toBeGreaterThan(2);
    for (const { at, normal } of found) {
      expect(normal[2]).toBeGreaterThan(0.99);
      expect(Math.max(Math.abs(at[0]), Math.abs(at[1]))).toBeLessThan(200 - 8);
    }
  });

  it("are more on an underside than on the same form turned up", () => {
    const along = (z: number): number => {
      const pull: Direction = [0, 0, z];
      return jacketKeys({ ...request, sections: [{ skin: half(pull), pull }], lines: [] }).length;
    };
    expect(along(-1)).toBeGreaterThan(along(1));
  });

  it("are none where none are wanted, and none that the pull would hold", () => {
    expect(jacketKeys({ ...request, keys: { ...TYPICAL_JACKET_KEYS, kind: "none" } })).toEqual([]);
    expect(keyBiteMm([1, 0, 0], [0, 1, 0], TYPICAL_JACKET_KEYS)).toBe(Number.POSITIVE_INFINITY);
    expect(keyBiteMm([0, 1, 0], [0, 1, 0], TYPICAL_JACKET_KEYS)).toBe(0);
    // A flank of 35 degrees, a pull of 45: h (1 - tan 35).
    const aslant: Direction = [Math.SQRT1_2, Math.SQRT1_2, 0];
    expect(keyBiteMm([0, 1, 0], aslant, TYPICAL_JACKET_KEYS)).toBeCloseTo(8 * (1 - Math.tan((35 * Math.PI) / 180)), 9);
  });
});

describe("the tray that keys are cast in", () => {
  it("has room for all of them, and takes the silicone of as many frustums", () => {
    const { count, columns, rows, sizeMm, siliconeMm3 } = keyTray(17, TYPICAL_JACKET_KEYS);
    expect(count).toBe(17);
    expect(columns * rows).toBeGreaterThanOrEqual(17);
    expect(Math.max(...sizeMm) / Math.min(...sizeMm)).toBeLessThan(2);
    const top = 12 - 8 * Math.tan((35 * Math.PI) / 180);
    expect(siliconeMm3).toBeCloseTo((17 * Math.PI * 8 * (144 + 12 * top + top ** 2)) / 3, 3);
    expect(keyTray(0, TYPICAL_JACKET_KEYS)).toMatchObject({ columns: 0, rows: 0, siliconeMm3: 0 });
  });
});
