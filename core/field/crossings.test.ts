import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { evenly, lumps, lumpy, rotation, rotations } from "../testing/random.ts";
import { box, sphere, torus, turned } from "../testing/shapes.ts";
import { acrossAxes, type LineBundle, lineCrossings } from "./crossings.ts";

const bundleAlong = (axis: number, originU = -130.3, originV = -131.7): LineBundle => ({
  axis,
  originU,
  originV,
  spacingMm: 7,
  countU: 40,
  countV: 40,
});

/** Where a line meets a triangle, by solving for it: the slow answer. */
function meets(mesh: TriangleMesh, bundle: LineBundle, line: number): { place: number; sign: number }[] {
  const [u, v] = acrossAxes(bundle.axis);
  const x = bundle.originU + bundle.spacingMm * (line % bundle.countU);
  const y = bundle.originV + bundle.spacingMm * Math.floor(line / bundle.countU);
  const p = mesh.positions;
  const found: { place: number; sign: number }[] = [];
  for (let k = 0; k < mesh.triangles.length; k += 3) {
    const [a, b, c] = [0, 1, 2].map((n) => 3 * mesh.triangles[k + n]);
    const det = (p[b + u] - p[a + u]) * (p[c + v] - p[a + v]) - (p[c + u] - p[a + u]) * (p[b + v] - p[a + v]);
    if (Math.abs(det) < 1e-9) continue;
    const s = ((x - p[a + u]) * (p[c + v] - p[a + v]) - (p[c + u] - p[a + u]) * (y - p[a + v])) / det;
    const r = ((p[b + u] - p[a + u]) * (y - p[a + v]) - (x - p[a + u]) * (p[b + v] - p[a + v])) / det;
    if (s < 0 || r < 0 || s + r > 1) continue;
    const place = p[a + bundle.axis] * (1 - s - r) + p[b + bundle.axis] * s + p[c + bundle.axis] * r;
    found.push({ place, sign: det > 0 ? -1 : 1 });
  }
  return found.sort((one, other) => one.place - other.place);
}

describe("crossings of a bundle of lines", () => {
  it("are those found by solving for each, in order, with their signs", () => {
    fc.assert(
      fc.property(lumps, fc.nat(2), fc.nat(1599), (waves, axis, line) => {
        const body = lumpy(sphere(90, 20), waves);
        const bundle = bundleAlong(axis);
        const { start, place, sign } = lineCrossings(body, bundle);
        const wanted = meets(body, bundle, line);
        expect(start[line + 1] - start[line]).toBe(wanted.length);
        wanted.forEach((cross, k) => {
          expect(place[start[line] + k]).toBeCloseTo(cross.place, 2);
          expect(sign[start[line] + k]).toBe(cross.sign);
        });
      }),
      { numRuns: 60, seed: 4 },
    );
  });

  it("go in and out in turn through a closed body, however it is turned, and come back to nothing", () => {
    fc.assert(
      fc.property(rotations, fc.nat(2), (angles, axis) => {
        for (const body of [torus(80, 30, 40, 20), box(120, 80, 150)]) {
          const { start, sign } = lineCrossings(turned(body, rotation(angles)), bundleAlong(axis));
          for (let line = 0; line + 1 < start.length; line++) {
            let winding = 0;
            for (let k = start[line]; k < start[line + 1]; k++) {
              winding += sign[k];
              expect(winding === 0 || winding === 1).toBe(true);
            }
            expect(winding).toBe(0);
          }
        }
      }),
      { numRuns: 20, seed: 5 },
    );
  });

  it("lose and double none on shared edges: lines run straight through vertices and along faces", () => {
    // Faces of the box lie on the lines, its edges run through them.
    const brick = box(140, 140, 140);
    const { start, sign } = lineCrossings(brick, bundleAlong(2, -70, -70));
    for (let line = 0; line + 1 < start.length; line++) {
      const own = Array.from(sign.subarray(start[line], start[line + 1]));
      expect(own.length === 0 || own.join() === "1,-1").toBe(true);
    }
  });

  it("add up to the volume", () => {
    fc.assert(
      fc.property(evenly(-134, -127), evenly(-134, -127), fc.nat(2), (originU, originV, axis) => {
        const { start, place, sign } = lineCrossings(sphere(90, 60), bundleAlong(axis, originU, originV));
        let length = 0;
        for (let k = 0; k < start[start.length - 1]; k++) length -= sign[k] * place[k];
        expect((length * 49) / ((4 / 3) * Math.PI * 90 ** 3)).toBeCloseTo(1, 1);
      }),
      { numRuns: 20, seed: 6 },
    );
  });
});
