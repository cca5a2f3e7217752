import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../../job/context.ts";
import { evenly } from "../../testing/random.ts";
import { sphere } from "../../testing/shapes.ts";
import { cutSections, lineLengthMm } from "../lines/cut.ts";
import { labelsFrom } from "../lines/network.ts";
import { treated } from "./edit.ts";
import { insertHandle, layStretch, moveHandle, type Place, placeAt, removeHandle, shiftStretch } from "./handles.ts";
import { type LaidLine, type Layout, layoutOf, networkOn, placesAlong } from "./layout.ts";
import { potentialsOf, SIDE_REACH } from "./potentials.ts";
import {
  drawLine,
  labelsOfLayout,
  mergeSections,
  mirrorLine,
  neighboursOf,
  troublesOf,
  undivided,
} from "./sections.ts";
import { surfaceOf, vertexAt } from "./surface.ts";
import { pathBetween } from "./ways.ts";

const R = 150;
const ball = surfaceOf(sphere(R, 40), null, ctx);

/** A ring on the ball at a height, points anticlockwise seen from above: what is above lies on its left. */
function ring(z: number, points = 120): LaidLine {
  const r = Math.sqrt(R * R - z * z);
  const xyz = Array.from({ length: points }, (_, k) => {
    const a = (2 * Math.PI * k) / points;
    return [r * Math.cos(a), r * Math.sin(a), z];
  });
  return { points: xyz.flat(), handles: [0, 30, 60, 90], closed: true, left: 1, right: 0 };
}

const halves: Layout = {
  sections: [{ pull: [0, 0, -1] }, { pull: [0, 0, 1] }],
  lines: [ring(0)],
};

const on = (lat: number, lon: number): Place => {
  const [b, l] = [(lat * Math.PI) / 180, (lon * Math.PI) / 180];
  return [R * Math.cos(b) * Math.cos(l), R * Math.cos(b) * Math.sin(l), R * Math.sin(b)];
};
const lengthOf = (points: ArrayLike<number>, closed = false) => placesAlong(points, closed).at(-1) ?? 0;
const areaOf = (label: Uint8Array, section: number) =>
  label.reduce((sum, own, v) => sum + (own === section ? ball.areasMm2[v] : 0), 0);
const wholeMm2 = 4 * Math.PI * R * R;
const offBall = (line: LaidLine) =>
  Math.max(...Array.from({ length: line.points.length / 3 }, (_, k) => Math.abs(Math.hypot(...placeAt(line, k)) - R)));

function drawn(layout: Layout, picked: readonly Place[], closed = false): Layout {
  const found = drawLine(ball, layout, picked, { closed, way: { kind: "shortest" } });
  if (!found.ok) throw new Error(found.problem);
  return found.layout;
}

describe("a stretch that is moved", () => {
  it("has its middle where it was wanted, gives way a little beyond, and stays as it was elsewhere", () => {
    fc.assert(
      fc.property(evenly(-3, 3), evenly(-25, 25), evenly(60, 300), (angle, up, lengthMm) => {
        const at: Place = [R * Math.cos(angle), R * Math.sin(angle), 0];
        const to = on((up * 180) / (Math.PI * R), (angle * 180) / Math.PI);
        const [line] = shiftStretch(ball, halves, at, to, lengthMm).lines;
        expect(offBall(line)).toBeLessThan(1);
        const nearestTo = (place: Place) =>
          Math.min(
            ...Array.from({ length: line.points.length / 3 }, (_, k) =>
              Math.hypot(...placeAt(line, k).map((x, a) => x - place[a])),
            ),
          );
        // The line's points stand 8 mm apart.
        expect(nearestTo(to)).toBeLessThan(8);
        const reachRad = (0.75 * lengthMm + 10) / R;
        for (const side of [reachRad, -reachRad]) {
          const still: Place = [R * Math.cos(angle + side), R * Math.sin(angle + side), 0];
          expect(nearestTo(still)).toBeLessThan(6);
        }
      }),
      { numRuns: 30, seed: 71 },
    );
  });

  it("is none where there is no line", () => {
    const none = { ...halves, lines: [] };
    expect(shiftStretch(ball, none, on(0, 0), on(5, 0), 50)).toBe(none);
  });
});

describe("a section treated another way", () => {
  it("keeps its pull, its lines and whatever else was decided", () => {
    const clay = treated(treated(halves, 1, { hold: "section" }), 1, { fillWith: "clay" });
    expect(clay).toEqual({
      ...halves,
      sections: [halves.sections[0], { ...halves.sections[1], hold: "section", fillWith: "clay" }],
    });
    expect(treated(clay, 1, { hold: undefined }).sections[1].fillWith).toBe("clay");
  });
});

describe("the way of a line", () => {
  it("is the great circle where it is to be the shortest", () => {
    fc.assert(
      fc.property(evenly(-70, 70), evenly(0, 360), evenly(-70, 70), evenly(20, 160), (lat, lon, lat2, turn) => {
        const [a, b] = [on(lat, lon), on(lat2, lon + turn)];
        const angle = Math.acos((a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) / R ** 2);
        const length = lengthOf(pathBetween(ball, a, b, { kind: "shortest" }));
        expect(length).toBeGreaterThan(0.985 * R * angle - 2);
        expect(length).toBeLessThan(1.01 * R * angle + 2);
      }),
      { numRuns: 25 },
    );
  });

  it("keeps to the horizon of a pull, the long way round too", () => {
    const path = pathBetween(ball, on(0, 0), on(0, 170), { kind: "horizon", pull: [0, 0, 1] });
    for (let k = 2; k < path.length; k += 3) expect(Math.abs(path[k])).toBeLessThan(3);
    expect(lengthOf(path)).toBeCloseTo((R * Math.PI * 170) / 180, -1);
  });
});

describe("the horizon of a wrinkled ball", () => {
  it("is the form's, not every wrinkle's: it neither wanders off nor zigzags", () => {
    const smooth = sphere(R, 60);
    const positions = smooth.positions.map((value, k) => {
      const [x, y, z] = smooth.positions.subarray(k - (k % 3), k - (k % 3) + 3);
      return value * (1 + 0.008 * Math.sin(x / 4) * Math.sin(y / 5) * Math.cos(z / 4));
    });
    const wrinkled = surfaceOf({ ...smooth, positions }, null, ctx);
    const path = pathBetween(wrinkled, on(0, 0), on(0, 170), { kind: "horizon", pull: [0, 0, 1] });
    for (let k = 2; k < path.length; k += 3) expect(Math.abs(path[k])).toBeLessThan(12);
    expect(turningDeg(path)).toBeLessThan(3 * 170);
  });
});

/** Sum of all turns from leg to leg. */
function turningDeg(points: Float64Array): number {
  const leg = (k: number) => [0, 1, 2].map((a) => points[k + 3 + a] - points[k + a]);
  let sum = 0;
  for (let k = 0; k + 6 < points.length; k += 3) {
    const [a, b] = [leg(k), leg(k + 3)];
    const inner = a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    sum += Math.acos(Math.min(1, inner / (Math.hypot(...a) * Math.hypot(...b))));
  }
  return (sum * 180) / Math.PI;
}

describe("lines laid by hand", () => {
  it("give every vertex its side, and the cut runs where they were laid", () => {
    for (const z of [0, 40, -90]) {
      const network = networkOn({ ...halves, lines: [ring(z)] }, ball.nearest);
      const { lines } = cutSections(ball.mesh, potentialsOf(ball.mesh, network, 2, ball.edgeMm));
      expect(lines).toHaveLength(1);
      expect(lineLengthMm(lines[0])).toBeCloseTo(2 * Math.PI * Math.sqrt(R * R - z * z), -1.2);
      for (let k = 2; k < lines[0].points.length; k += 3) expect(Math.abs(lines[0].points[k] - z)).toBeLessThan(1.5);
    }
  });

  it("are told by their sides at corners as sharp as a third of a right angle", () => {
    const star = [0, 120, 240].flatMap((lon) => [on(70, lon), on(20, lon + 60)]);
    const layout = drawn(undivided([0, 0, 1]), star, true);
    const label = labelsOfLayout(ball, layout);
    expect(troublesOf(ball, layout, label)).toEqual([]);
  });

  it("split a section along a ring, its smaller part a new section facing out", () => {
    const cap = drawn(halves, [on(50, 0), on(50, 90), on(50, 180), on(50, 270)], true);
    expect(cap.sections).toHaveLength(3);
    expect(cap.sections[2].pull[2]).toBeGreaterThan(0.95);
    const label = labelsOfLayout(ball, cap);
    expect(areaOf(label, 0)).toBeCloseTo(wholeMm2 / 2, -4);
    expect(areaOf(label, 2) / wholeMm2).toBeLessThan(0.16);
    expect(areaOf(label, 2) / wholeMm2).toBeGreaterThan(0.08);
    expect(troublesOf(ball, cap, label)).toEqual([]);
    expect(cap.lines.every((line) => offBall(line) < 1)).toBe(true);
  });

  it("split a section between two places of another line, which is cut there", () => {
    const three = drawn(halves, [on(4, 20), on(80, 100), on(-3, 200)]);
    expect(three.sections).toHaveLength(3);
    expect(three.lines).toHaveLength(3);
    const label = labelsOfLayout(ball, three);
    expect(areaOf(label, 0)).toBeCloseTo(wholeMm2 / 2, -4);
    expect(areaOf(label, 1) + areaOf(label, 2)).toBeCloseTo(wholeMm2 / 2, -4);
    expect(neighboursOf(three, 0)).toEqual([1, 2]);
    expect(neighboursOf(three, 2)).toEqual([0, 1]);
    expect(troublesOf(ball, three, label)).toEqual([]);
    // The ends of the new line and of the two halves of the old one are the same places.
    const ends = three.lines.flatMap((line) => [placeAt(line, 0), placeAt(line, line.points.length / 3 - 1)]);
    expect(new Set(ends.map(String)).size).toBe(2);
  });

  it("keep within the section they part, where the easiest way would lead over another", () => {
    const lat = (Math.asin(60 / R) * 180) / Math.PI;
    const upper = { ...halves, lines: [ring(60)] };
    const bay = drawn(upper, [on(lat, -50), on(65, -50), on(65, 50), on(lat, 50)]);
    const ends = [on(lat, -80), on(lat, 80)];
    const straight = pathBetween(ball, ends[0], ends[1], { kind: "shortest" });
    const label = labelsOfLayout(ball, bay);
    const crossed = new Set(
      Array.from(
        { length: straight.length / 3 },
        (_, k) => label[vertexAt(ball, ...placeAt({ points: [...straight] }, k))],
      ),
    );
    expect(crossed.size).toBeGreaterThan(1);
    const across = drawLine(ball, bay, ends, { closed: false, way: { kind: "shortest" } });
    if (!across.ok) throw new Error(across.problem);
    expect(across.layout.sections).toHaveLength(4);
    expect(troublesOf(ball, across.layout, labelsOfLayout(ball, across.layout))).toEqual([]);
  });

  it("are refused in words where they part nothing or run over a line", () => {
    const refusals = [
      drawLine(ball, halves, [on(60, 0), on(50, 120)], { closed: false, way: { kind: "shortest" } }),
      drawLine(ball, halves, [on(60, 0)], { closed: false, way: { kind: "shortest" } }),
      drawLine(ball, halves, [on(60, 0), on(-60, 20), on(-60, 80), on(60, 100)], {
        closed: true,
        way: { kind: "shortest" },
      }),
    ];
    for (const refusal of refusals) expect(refusal.ok).toBe(false);
    expect(refusals[0]).toMatchObject({ problem: expect.stringContaining("close it to a ring") });
    expect(refusals[2]).toMatchObject({ problem: expect.stringContaining("runs over 2 sections") });
  });

  it("merge back to what was split, ring and all", () => {
    const three = drawn(halves, [on(0, 20), on(80, 100), on(0, 200)]);
    const back = mergeSections(three, 1, 2);
    if (!back.ok) throw new Error(back.problem);
    expect(back.layout.sections).toEqual(halves.sections);
    expect(back.layout.lines).toHaveLength(1);
    expect(back.layout.lines[0].closed).toBe(true);
    expect(lengthOf(back.layout.lines[0].points, true)).toBeCloseTo(2 * Math.PI * R, -1);
    expect(labelsOfLayout(ball, back.layout)).toEqual(labelsOfLayout(ball, halves));
    expect(mergeSections(halves, 0, 0).ok).toBe(false);
  });

  it("merge the other way too, and numbers close up", () => {
    const three = drawn(halves, [on(0, 20), on(80, 100), on(0, 200)]);
    const other = mergeSections(three, 0, 1);
    if (!other.ok) throw new Error(other.problem);
    expect(other.layout.sections).toHaveLength(2);
    const label = labelsOfLayout(ball, other.layout);
    expect(areaOf(label, 1)).toBeCloseTo(areaOf(labelsOfLayout(ball, three), 2), -3);
    expect(troublesOf(ball, other.layout, label)).toEqual([]);
  });

  it("can be mirrored", () => {
    const cap = drawn(halves, [on(60, -20), on(60, 20), on(30, 20), on(30, -20)], true);
    const both = mirrorLine(ball, cap, 1, "x");
    if (!both.ok) throw new Error(both.problem);
    expect(both.layout.sections).toHaveLength(4);
    const label = labelsOfLayout(ball, both.layout);
    expect(areaOf(label, 3) / areaOf(label, 2)).toBeGreaterThan(0.93);
    expect(areaOf(label, 3) / areaOf(label, 2)).toBeLessThan(1.07);
    expect(both.layout.sections[3].pull[0]).toBeCloseTo(-cap.sections[2].pull[0], 1);
  });
});

describe("handles", () => {
  it("take the line along as far as their neighbours, and no farther", () => {
    fc.assert(
      fc.property(evenly(-40, 40), evenly(-15, 15), (lat, lon) => {
        const moved = moveHandle(ball, halves, 0, 1, on(lat, 90 + lon));
        const line = moved.lines[0];
        expect(Math.hypot(...placeAt(line, 30).map((x, a) => x - on(lat, 90 + lon)[a]))).toBeLessThan(2);
        for (let k = 60; k <= 120; k++) expect(placeAt(line, k % 120)).toEqual(placeAt(halves.lines[0], k % 120));
        expect(offBall(line)).toBeLessThan(1);
        expect(troublesOf(ball, moved, labelsOfLayout(ball, moved))).toEqual([]);
      }),
      { numRuns: 20 },
    );
  });

  it("of a junction take all its lines along", () => {
    const three = drawn(halves, [on(0, 20), on(80, 100), on(0, 200)]);
    const n = three.lines.length - 1;
    const moved = moveHandle(ball, three, n, 0, on(10, 10));
    const ends = moved.lines.flatMap((line) => [placeAt(line, 0), placeAt(line, line.points.length / 3 - 1)]);
    expect(new Set(ends.map(String)).size).toBe(2);
    expect(troublesOf(ball, moved, labelsOfLayout(ball, moved))).toEqual([]);
  });

  it("can be added and taken away, which draws the line tight", () => {
    const more = insertHandle(halves, 0, on(0, 45));
    expect(more.lines[0].handles).toEqual([0, 15, 30, 60, 90]);
    const bent = moveHandle(ball, more, 0, 1, on(20, 45));
    const back = removeHandle(ball, bent, 0, 1);
    expect(back.lines[0].handles).toHaveLength(4);
    expect(lengthOf(back.lines[0].points, true)).toBeCloseTo(2 * Math.PI * R, -1);
  });

  it("let a stretch be laid again, over the seam of a ring too", () => {
    for (const handle of [0, 3]) {
      const bent = moveHandle(ball, halves, 0, handle, on(25, handle * 90));
      const laid = layStretch(ball, bent, 0, handle, { kind: "shortest" });
      expect(laid.lines[0].handles).toHaveLength(4);
      expect(troublesOf(ball, laid, labelsOfLayout(ball, laid))).toEqual([]);
      expect(lengthOf(laid.lines[0].points, true)).toBeLessThan(lengthOf(bent.lines[0].points, true) + 1);
    }
  });
});

describe("a plan's lines taken in hand", () => {
  it("keep their sides", () => {
    // Off the equator: the ball has vertices just on it.
    const network = networkOn({ ...halves, lines: [ring(7)] }, ball.nearest);
    const taken = layoutOf(network, [
      [0, 0, -1],
      [0, 0, 1],
    ]);
    const blank = new Uint8Array(ball.areasMm2.length);
    const label = labelsFrom(ball.mesh, network, blank, ball.near, SIDE_REACH * ball.edgeMm);
    expect(labelsOfLayout(ball, taken)).toEqual(label);
    expect(taken.lines[0].handles.length).toBeGreaterThanOrEqual(4);
  });
});
