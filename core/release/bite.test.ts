import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gridFromActive, nodeCount, nodePoint } from "../field/grid.ts";
import { makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { bareBody } from "../plan/proof/freeing.ts";
import type { Direction } from "../space/directions.ts";
import { rotation, rotations, turnedDirection } from "../testing/random.ts";
import { lathe, moved, mushroom, sphere, torus } from "../testing/shapes.ts";
import { measureBites } from "./bite.ts";
import { Body, bodyOf } from "./body.ts";

const UP: Direction = [0, 0, 1];

function jacketOf(piece: TriangleMesh, thicknessMm: number, stepMm: number, onBoard = false) {
  const coats = [{ id: "coat-1", thicknessMm, thickened: true, pigment: "#cccccc" }];
  return makeJacket(piece, { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard, stepMm }, ctx);
}

/** The greatest bite over the vertices of a jacket that a test chooses. */
function greatest(
  piece: TriangleMesh,
  t: number,
  stepMm: number,
  pull: Direction,
  onBoard: boolean,
  where: (x: number, y: number, z: number) => boolean,
) {
  const jacket = jacketOf(piece, t, stepMm, onBoard);
  const p = jacket.mesh.positions;
  const chosen = Array.from({ length: p.length / 3 }, (_, v) => v).filter((v) =>
    where(p[3 * v], p[3 * v + 1], p[3 * v + 2]),
  );
  const points = Float32Array.from(chosen.flatMap((v) => [...p.subarray(3 * v, 3 * v + 3)]));
  const section = new Uint8Array(chosen.length);
  const bites = measureBites({ body: bareBody(jacket, ctx), points, section, pulls: [pull], fineMm: 0 }, ctx);
  return Math.max(...bites);
}

/** A four-sided frustum 300 mm high that widens upwards, its walls leaning back by an angle. */
function frustum(leanDeg: number): TriangleMesh {
  const out = 300 * Math.tan((leanDeg * Math.PI) / 180);
  const r = 100 * Math.SQRT2;
  return lathe(
    [
      [0, 300],
      [r + out * Math.SQRT2, 300],
      [r, 0],
      [0, 0],
    ],
    4,
  );
}

describe("the bite of a section", () => {
  it("is 300 sin a where walls 300 mm high lean back by a, at any step, within 0.3 mm", () => {
    for (const leanDeg of [0.1, 0.2, 0.286, 0.4, 1]) {
      for (const stepMm of [7, 5, 3.5]) {
        const bite = greatest(frustum(leanDeg), 4, stepMm, UP, false, (x, y, z) => {
          // The walls, clear of the edges between them, which lie on the axes, and of the rounded rims.
          return z > 6 && z < 290 && Math.abs(x) > 30 && Math.abs(y) > 30;
        });
        const want = 290 * Math.sin((leanDeg * Math.PI) / 180);
        expect(Math.abs(bite - want)).toBeLessThan(0.3);
      }
    }
  });

  it("is half of a mushroom's cap for its stem pulled up", () => {
    for (const stepMm of [5, 3.5]) {
      const bite = greatest(
        mushroom(40, 200, 90, 60),
        1,
        stepMm,
        UP,
        true,
        (x, y, z) => z < 190 && Math.hypot(x, y) < 50,
      );
      // The cap with its jacket is 62 mm thick, and its rim is 51 mm off the stem.
      expect(Math.abs(bite - 31)).toBeLessThan(1);
    }
  });

  it("is half of a ring's thickness for the wall of its hole, pulled sideways across it on the board", () => {
    const ring = moved(torus(100, 30), 0, 0, 30);
    for (const stepMm of [5, 3.5]) {
      const across = (where: (x: number, y: number, z: number) => boolean) =>
        greatest(ring, 1, stepMm, [1, 0, 0], true, where);
      const hole = (x: number, y: number, z: number) => x < 0 && Math.hypot(x, y) < 75 && Math.abs(z - 30) < 25;
      // Deepest where the field has its ridge, which nodes know to half a step.
      expect(Math.abs(across(hole) - 31)).toBeLessThan(stepMm / 2);
      // The outside of the half that faces the pull leaves free.
      expect(across((x, y, z) => x > 5 && Math.hypot(x, y) > 102 && z > 5)).toBeLessThan(0.3);
    }
  });

  it("is nothing for the half of a ball that faces the pull", () => {
    expect(greatest(sphere(100, 64), 8, 5, UP, false, (_x, _y, z) => z > 2)).toBeLessThan(0.3);
  });

  it("is nothing past the board: what leaves downwards leaves after a lift", () => {
    const ball = moved(sphere(100, 64), 0, 0, 60);
    const bite = greatest(ball, 4, 5, [0, 0, -1], true, (_x, _y, z) => z < 55);
    expect(bite).toBeLessThan(0.3);
  });
});

describe("a way through a body", () => {
  it("meets the least value of the field to within half a step of it, from anywhere", () => {
    const body = new Body(bareBody(jacketOf(sphere(100, 64), 8, 5), ctx));
    for (let k = 0; k < 60; k++) {
      // Ways past a ball of 108 mm, k mm off its middle: the least value is at the nearest place to it.
      const off = 60 + k;
      const least = body.leastAlong(-118, off, 0, 1, 0, 0, Infinity, -Infinity);
      if (off - 108 > 4) continue;
      expect(Math.abs(Math.max(least, -12) - Math.max(off - 108, -12))).toBeLessThan(0.5);
    }
  });

  it("comes to its end along the faces of cells, however little a pull is off them", () => {
    const grid = gridFromActive([0, 0, 0], 5, [4, 4, 4], new Uint8Array(64).fill(1));
    const body = new Body(bodyOf(grid, new Float32Array(nodeCount(grid)), 20, null, ctx.team));
    for (const off of [0, 6e-17, -6e-17, 1e-9, -1e-9, -2e-6, 2e-6]) {
      expect(body.leastAlong(50, 50, 50, off, off, 1, 0, -Infinity)).toBe(0);
      expect(body.leastAlong(50, 50, 50, -1, off, off, 0, -Infinity)).toBe(0);
    }
  });

  it("meets the least value there is between the nodes: no place of a finely walked way is lower", () => {
    // Hills and hollows no steeper than a millimetre a millimetre, over several bricks.
    const grid = gridFromActive([0, 0, 0], 5, [4, 4, 4], new Uint8Array(64).fill(1));
    const lastMm = 155;
    const place = new Float64Array(3);
    const phi = Float32Array.from({ length: nodeCount(grid) }, (_, n) => {
      nodePoint(grid, n, place, 0);
      const [x, y, z] = place;
      return 6 * Math.sin(x / 23 + y / 31) + 5 * Math.cos(y / 19 - z / 27) + 4 * Math.sin(z / 17 + x / 29) + 3;
    });
    const body = new Body(bodyOf(grid, phi, 1e6, null, ctx.team));
    const inside = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 1, max: lastMm - 1, noNaN: true })));
    fc.assert(
      fc.property(inside, rotations, ([x, y, z], angles) => {
        const [dx, dy, dz] = turnedDirection(rotation(angles), [0, 0, 1]);
        const from = body.at(x, y, z);
        let lowest = from;
        for (let s = 0; s < 280; s += 0.05) {
          const at = [x + s * dx, y + s * dy, z + s * dz];
          if (at.some((mm) => mm < 0 || mm > lastMm)) break;
          lowest = Math.min(lowest, body.at(at[0], at[1], at[2]));
        }
        const least = body.leastAlong(x, y, z, dx, dy, dz, from, -Infinity);
        expect(least).toBeLessThanOrEqual(lowest + 1e-6);
        expect(least).toBeGreaterThan(lowest - 0.03);
      }),
      { numRuns: 300, seed: 5 },
    );
  });
});
