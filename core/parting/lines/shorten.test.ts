import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { evenly } from "../../testing/random.ts";
import { capsule, sphere } from "../../testing/shapes.ts";
import { neighbours, vertexGraph } from "../graph/graph.ts";
import { labelsFrom, networkLengthMm, networkOf } from "./network.ts";
import { shortened } from "./shorten.ts";

const R = 100;
const EDGE_MM = (Math.PI * R) / 48;

function labelled(mesh: TriangleMesh, sectionAt: (x: number, y: number, z: number) => number) {
  const p = mesh.positions;
  const label = Uint8Array.from({ length: p.length / 3 }, (_, v) => sectionAt(p[3 * v], p[3 * v + 1], p[3 * v + 2]));
  return {
    mesh,
    label,
    nearest: NearestField.about(mesh, 4, ctx),
    near: neighbours(vertexGraph(mesh)),
    areasMm2: vertexNormals(mesh).areasMm2,
    edgeMm: EDGE_MM,
    boardMm: null,
    linePerMm: 1,
    lineWeight: null,
  };
}

const free = (mesh: TriangleMesh, sections: number) =>
  Array.from({ length: sections }, () => new Float32Array(mesh.positions.length / 3));
const ball = sphere(R, 48);

describe("the network of lines", () => {
  it("gives back the labels it was made from, but for what the evening rounds off", () => {
    fc.assert(
      fc.property(evenly(0, 3), evenly(-40, 40), (tilt, height) => {
        const of = (x: number, _y: number, z: number) => (Math.cos(tilt) * z + Math.sin(tilt) * x > height ? 1 : 0);
        const { mesh, label, near, nearest } = labelled(ball, of);
        const again = labelsFrom(mesh, networkOf(mesh, label, near, nearest), label, near, 2.5 * EDGE_MM);
        const changed = again.filter((own, v) => own !== label[v]).length;
        expect(changed).toBeLessThan(0.02 * label.length);
      }),
      { numRuns: 20, seed: 8 },
    );
  });

  it("knows left from right: swapped labels swap its sides", () => {
    const upper = labelled(ball, (_x, _y, z) => (z > 0 ? 1 : 0));
    const lower = labelled(ball, (_x, _y, z) => (z > 0 ? 0 : 1));
    const [a] = networkOf(ball, upper.label, upper.near, upper.nearest);
    const [b] = networkOf(ball, lower.label, lower.near, lower.nearest);
    expect([a.left, a.right].sort()).toEqual([0, 1]);
    const turns = (line: typeof a) => Math.sign(line.points[0] * line.points[4] - line.points[1] * line.points[3]);
    // Anticlockwise from above, the upper side is on the left.
    expect(a.left === 1).toBe(turns(a) > 0);
    expect(b.left === 0).toBe(turns(b) > 0);
  });

  it("of three sections has three open lines that meet in two places", () => {
    const { mesh, label, near, nearest } = labelled(ball, (x, y) => {
      const bearing = (Math.atan2(y, x) / (2 * Math.PI) + 1.03) % 1;
      return Math.floor(3 * bearing);
    });
    const network = networkOf(mesh, label, near, nearest);
    expect(network.map((line) => line.closed)).toEqual([false, false, false]);
    const ends = new Set(
      network.flatMap(({ points }) => [points.slice(0, 3), points.slice(-3)].map((p) => [...p].map(Math.round).join())),
    );
    expect(ends.size).toBe(2);
  });
});

describe("lines drawn tight", () => {
  it("a crooked ring on a ball becomes a great circle where nothing hinders it", () => {
    const crooked = labelled(ball, (x, y, z) => (z > 28 * Math.sin(3 * Math.atan2(y, x)) ? 1 : 0));
    const start = networkLengthMm(networkOf(ball, crooked.label, crooked.near, crooked.nearest));
    const { label, before, after } = shortened({ ...crooked, prices: free(ball, 2) });
    const length = networkLengthMm(networkOf(ball, label, crooked.near, crooked.nearest));
    expect(start / (2 * Math.PI * R)).toBeGreaterThan(1.08);
    expect(length / (2 * Math.PI * R)).toBeLessThan(1.01);
    expect(after).toBeLessThan(before);
  });

  it("a slanting ring round a capsule becomes square to it", () => {
    const tube = capsule(60, 300, 48);
    const slanting = labelled(tube, (x, _y, z) => (z > 0.7 * x ? 1 : 0));
    const { label } = shortened({ ...slanting, prices: free(tube, 2) });
    const length = networkLengthMm(networkOf(tube, label, slanting.near, slanting.nearest));
    expect(Math.abs(length / (2 * Math.PI * 60) - 1)).toBeLessThan(0.012);
  });

  it("stays out of what would cost more than the length it saves", () => {
    const crooked = labelled(ball, (x, y, z) => (z > 25 * Math.sin(3 * Math.atan2(y, x)) ? 1 : 0));
    // Every vertex dear to the section it is not in.
    const dear = crooked.areasMm2.map((area) => 10 * area);
    const prices = [0, 1].map((s) => dear.map((price, v) => (crooked.label[v] === s ? 0 : price)));
    const { label } = shortened({ ...crooked, prices });
    const changed = label.filter((own, v) => own !== crooked.label[v]).length;
    expect(changed).toBeLessThan(0.01 * label.length);
  });

  it("never makes a plan dearer, and keeps every section in one piece", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000 }), evenly(0, 30), (seed, reach) => {
        const wave = (a: number) => reach * Math.sin(2 * a + seed) + 0.5 * reach * Math.cos(5 * a - seed);
        const start = labelled(ball, (x, y, z) => (z > wave(Math.atan2(y, x)) ? (x > 0 ? 2 : 1) : 0));
        const prices = free(ball, 3).map((row, s) => row.map((_, v) => ((v * 7919 + s * 104_729 + seed) % 97) / 97));
        const { label, before, after } = shortened({ ...start, prices });
        expect(after).toBeLessThanOrEqual(before);
        expect(new Set(label)).toEqual(new Set([0, 1, 2]));
      }),
      { numRuns: 6, seed: 12 },
    );
  });
});
