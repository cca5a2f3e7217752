import { describe, expect, it } from "vitest";
import { areaAndVolume } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { sphere } from "../../testing/shapes.ts";
import { meshNeighbours } from "./graph.ts";
import { plugPatch } from "./plugPatch.ts";
import { regionsOf } from "./regions.ts";

const R = 100;
const ball = sphere(R, 48);
const near = meshNeighbours(ball);
const { areasMm2 } = vertexNormals(ball);
const edgeMm = Math.sqrt((2.3 * areaAndVolume(ball).areaMm2) / (ball.triangles.length / 3));
const vertices = [...areasMm2.keys()];

/** Angle of a vertex from the top, degrees, and its bearing, 0..360. */
function placeOf(v: number): [fromTop: number, bearing: number] {
  const [x, y, z] = ball.positions.subarray(3 * v, 3 * v + 3);
  return [(Math.acos(z / R) * 180) / Math.PI, ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360];
}

function plug(isLocked: (fromTop: number, bearing: number) => boolean): Uint8Array {
  const label = new Uint8Array(vertices.length);
  plugPatch(
    { label, near, areasMm2, edgeMm },
    vertices.filter((v) => isLocked(...placeOf(v))),
    0,
    1,
  );
  return label;
}

describe("the patch of a plug", () => {
  it("is the lock and a little more, in one piece, and leaves the section in one", () => {
    const label = plug((fromTop) => fromTop < 20);
    expect(regionsOf(label, near).label).toHaveLength(2);
    for (const v of vertices) {
      const [fromTop] = placeOf(v);
      if (fromTop < 20) expect(label[v]).toBe(1);
      if (fromTop > 20 + (4 * edgeMm * 180) / (Math.PI * R)) expect(label[v]).toBe(0);
    }
  });

  it("closes a lock that lies like a horseshoe or a ring about a free middle", () => {
    for (const gapDeg of [0, 45]) {
      const label = plug((fromTop, bearing) => fromTop > 12 && fromTop < 22 && bearing > gapDeg);
      expect(regionsOf(label, near).label).toHaveLength(2);
      for (const v of vertices) if (placeOf(v)[0] < 12) expect(label[v]).toBe(1);
    }
  });

  it("takes the larger of two locks and leaves the other to a plug of its own", () => {
    const label = plug((fromTop) => fromTop < 20 || fromTop > 170);
    for (const v of vertices) if (placeOf(v)[0] > 90) expect(label[v]).toBe(0);
    expect(regionsOf(label, near).label).toHaveLength(2);
  });
});
