import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { throughHoles } from "../survey/holes.ts";
import { rotation } from "../testing/random.ts";
import { torus, turned } from "../testing/shapes.ts";
import { type Jacket, makeJacket } from "./jacket.ts";
import { clayShareOf, STOP_THICKNESS_MM, stopMesh, withStops } from "./stops.ts";

const STEP_MM = 4;
const JACKET_MM = 8;
const [RING_MM, TUBE_MM] = [100, 30];
/** Radius of the hole. */
const HOLE_MM = RING_MM - TUBE_MM;

function jacketOf(piece: TriangleMesh, stops: readonly { loop: readonly number[] }[]): Jacket {
  const coats = [{ id: "coat-1", thicknessMm: JACKET_MM, thickened: true, pigment: "#cccccc" }];
  return makeJacket(piece, { coats, smoothingMm: 0, rimWidthMm: 0, stops, onBoard: false, stepMm: STEP_MM }, ctx);
}

const holesIn = ({ mesh }: Jacket) => throughHoles(mesh, NearestField.about(mesh, 2 * STEP_MM, ctx));

describe("a through-hole closed with clay", () => {
  for (const [name, m] of [
    ["lying", [1, 0, 0, 0, 1, 0, 0, 0, 1]],
    ["askew", rotation([1.1, 0.7])],
  ] as const) {
    const ring = turned(torus(RING_MM, TUBE_MM, 96, 40), m);
    const open = jacketOf(ring, []);
    const holes = holesIn(open);
    const stop = { loop: Array.from(holes[0].loop) };
    const closed = jacketOf(ring, [stop]);

    it(`is no hole any more: ${name}`, () => {
      expect(holes).toHaveLength(1);
      expect(holesIn(closed)).toHaveLength(0);
    });

    it(`takes the clay of a disc as wide as the hole: ${name}`, () => {
      // The ring bulges into the disc's rim: the clay is a little more than the narrowest disc.
      const discMm3 = Math.PI * HOLE_MM ** 2 * STOP_THICKNESS_MM;
      expect(closed.stopsMm3 / discMm3).toBeGreaterThan(0.97);
      expect(closed.stopsMm3 / discMm3).toBeLessThan(1.1);
      expect(open.stopsMm3).toBe(0);
    });

    it(`takes no silicone for what clay takes, but for both faces of the web: ${name}`, () => {
      const within = closed.outerVolumeMm3 - closed.stopsMm3 - areaAndVolume(ring).volumeMm3;
      expect(closed.siliconeMm3 / within).toBeCloseTo(1, 2);
    });
  }
});

describe("a web", () => {
  it("is closed, whatever order its loop runs in, and stands on the board where it reaches it", () => {
    const loop = Array.from({ length: 24 }, (_, k) => [80 * Math.cos(k / 3.82), 0, 60 + 80 * Math.sin(k / 3.82)]);
    for (const points of [loop, [...loop].reverse()]) {
      const mesh = stopMesh({ loop: points.flat() }, true);
      const edges = new Map<string, number>();
      for (let k = 0; k < mesh.triangles.length; k++) {
        const [a, b] = [mesh.triangles[k], mesh.triangles[k % 3 === 2 ? k - 2 : k + 1]];
        edges.set(`${a} ${b}`, (edges.get(`${a} ${b}`) ?? 0) + 1);
      }
      for (const [edge, times] of edges) {
        expect(times).toBe(1);
        expect(edges.get(edge.split(" ").reverse().join(" "))).toBe(1);
      }
      expect(areaAndVolume(mesh).volumeMm3).toBeGreaterThan(0);
      expect(Math.min(...mesh.positions.filter((_, k) => k % 3 === 2))).toBeGreaterThanOrEqual(0);
    }
  });

  it("leaves a piece without stops as it is", () => {
    const ring = torus(RING_MM, TUBE_MM);
    expect(withStops(ring, [], true)).toBe(ring);
  });

  it("counts as clay by its share of all of them, and not at all where a plug closes the hole", () => {
    const ringOf = (radiusMm: number) =>
      Array.from({ length: 72 }, (_, k) => {
        const turn = (2 * Math.PI * Math.floor(k / 3)) / 24;
        return [radiusMm * Math.cos(turn), 0, 500 + radiusMm * Math.sin(turn)][k % 3];
      });
    const [wide, narrow] = [{ loop: ringOf(78) }, { loop: ringOf(28) }];
    expect(clayShareOf([], true)).toBe(1);
    expect(clayShareOf([wide, narrow], true)).toBe(1);
    expect(clayShareOf([{ ...wide, kind: "plug" }], true)).toBe(0);
    // Discs of 100 and of 50 mm, seated 22 mm deep: four to one.
    expect(clayShareOf([wide, { ...narrow, kind: "plug" }], true)).toBeCloseTo(0.8, 6);
  });
});
