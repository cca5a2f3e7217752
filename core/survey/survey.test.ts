import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { meshBox } from "../mesh/mesh.ts";
import {
  bearingAndElevation,
  type Direction,
  directionFrom,
  dot,
  frameAcross,
  onGlobe,
  pullDirections,
  sameDirection,
} from "../space/directions.ts";
import { evenly } from "../testing/random.ts";
import { mushroom, sphere, torus } from "../testing/shapes.ts";
import { columnFrame, columnPoint, FROM_BACK, visitColumns } from "./columns.ts";
import { depthField } from "./depth.ts";
import { FREE, freeCounts, LOCKED, LOW_DRAFT, surveyMap } from "./map.ts";
import { surveyDirections } from "./survey.ts";

describe("pulls", () => {
  it("are unit, and each has its exact contrary", () => {
    const pulls = pullDirections(200);
    expect(pulls.length).toBeGreaterThan(180);
    for (const d of pulls) expect(Math.hypot(...d)).toBeCloseTo(1, 9);
    for (const d of pulls) expect(pulls.some((other) => dot(other, d) < -1 + 1e-9)).toBe(true);
  });

  it("are dense: no direction is farther than 16 degrees from one", () => {
    const pulls = pullDirections(200);
    fc.assert(
      fc.property(evenly(0, 360), evenly(-90, 90), (b, e) => {
        const d = directionFrom(b, e);
        expect(Math.max(...pulls.map((pull) => dot(pull, d)))).toBeGreaterThan(Math.cos((16 * Math.PI) / 180));
      }),
      { seed: 3 },
    );
  });

  it("on a globe seen along a pull: the pull in the middle, right and up as one looks at it, the far side unseen", () => {
    const front: Direction = [0, -1, 0];
    expect(onGlobe(front, front)).toEqual({ x: 0, y: 0 });
    expect(onGlobe([1, 0, 0], front)).toEqual({ x: 1, y: 0 });
    expect(onGlobe([0, 0, 1], front)).toEqual({ x: 0, y: 1 });
    expect(onGlobe([0, 1, 0], front)).toBeNull();
    expect(sameDirection(front, directionFrom(0.05, 0.05))).toBe(true);
    expect(sameDirection(front, directionFrom(1, 0))).toBe(false);
  });

  it("bearing and elevation go there and back; frames are right-handed", () => {
    fc.assert(
      fc.property(evenly(0, 359), evenly(-89, 89), (b, e) => {
        const d = directionFrom(b, e);
        const back = bearingAndElevation(d);
        expect(back.elevationDeg).toBeCloseTo(e, 6);
        expect(Math.cos(((back.bearingDeg - b) * Math.PI) / 180)).toBeCloseTo(1, 9);
        const { u, v } = frameAcross(d);
        expect(Math.abs(dot(u, d)) + Math.abs(dot(v, d)) + Math.abs(dot(u, v))).toBeLessThan(1e-9);
        expect(
          u[0] * (v[1] * d[2] - v[2] * d[1]) + u[1] * (v[2] * d[0] - v[0] * d[2]) + u[2] * (v[0] * d[1] - v[1] * d[0]),
        ).toBeCloseTo(1, 9);
      }),
      { seed: 4 },
    );
    expect(bearingAndElevation([0, -1, 0])).toEqual({ bearingDeg: 0, elevationDeg: 0 });
    expect(bearingAndElevation([-1, 0, 0]).bearingDeg).toBeCloseTo(90);
  });
});

describe("columns of blocked space", () => {
  it("under a mushroom's cap run from the board to the cap", () => {
    const piece = mushroom(40, 200, 90, 30, 96);
    let volume = 0;
    const lines: number[] = [];
    const frame = columnFrame(piece, [0, 0, 1], 4);
    visitColumns(piece, frame, 0, (line, from, to, first) => {
      expect(from).toBeCloseTo(0, 3);
      expect(to).toBeCloseTo(200, 3);
      expect(first).toBe(-1);
      lines.push(line);
      volume += 16 * (to - from);
    });
    const foot = new Float64Array(3);
    for (const line of lines) {
      columnPoint(frame, line, 0, foot);
      expect(Math.hypot(foot[0], foot[1])).toBeGreaterThan(39);
      expect(Math.hypot(foot[0], foot[1])).toBeLessThan(91);
    }
    expect(volume / (Math.PI * (90 ** 2 - 40 ** 2) * 200)).toBeCloseTo(1, 1);
  });

  it("across a ring's hole run from wall to wall", () => {
    let widest = 0;
    const ring = torus(100, 30, 96, 48);
    visitColumns(ring, columnFrame(ring, [1, 0, 0], 4), null, (_line, from, to, first) => {
      if (first >= 0) widest = Math.max(widest, to - from);
    });
    // 140 mm at mid height, where the hole is narrowest; nearly 200 where its walls roll away.
    expect(widest).toBeGreaterThan(139);
    expect(widest).toBeLessThan(200);
  });

  it("are none for a convex body seen from behind its own horizon but those behind it", () => {
    const ball = sphere(50, 32);
    const back = meshBox(ball).min[2];
    visitColumns(ball, columnFrame(ball, [0, 0, 1], 5), null, (_line, from, _to, first) => {
      expect(first).toBe(FROM_BACK);
      // A section's own thickness behind the ball.
      expect(from).toBeCloseTo(back - 25, 4);
    });
  });
});

describe("the survey", () => {
  const body = mushroom(40, 120, 90, 30, 64);
  const request = {
    mesh: body,
    depth: depthField(body, ctx),
    directions: pullDirections(24),
    spacingMm: 6,
    boardMm: 0,
  };

  it("charges nothing sideways at the stem's free side and much from above", () => {
    const sideways = surveyDirections({ ...request, directions: [[1, 0, 0]] }, ctx).lockMm3;
    const above = surveyDirections({ ...request, directions: [[0, 0, 1]] }, ctx).lockMm3;
    const sum = (row: Float32Array) => row.reduce((total, value) => total + value, 0);
    expect(sum(above) / (Math.PI * (90 ** 2 - 40 ** 2) * 120)).toBeCloseTo(1, 1);
    const facing = Array.from({ length: sideways.length }, (_, v) => v).filter(
      (v) => request.mesh.positions[3 * v] > 20,
    );
    expect(facing.reduce((total, v) => total + sideways[v], 0)).toBe(0);
  });
});

describe("maps", () => {
  it("of a ball along a pull: half free, half locked, a thin band of low draft between", () => {
    const ball = sphere(80, 64);
    const pull: Direction = [0.6, 0, 0.8];
    const map = surveyMap(ball, pull, 3, 3, null);
    for (let v = 0; v < map.length; v++) {
      const facing = (ball.positions[3 * v] * pull[0] + ball.positions[3 * v + 2] * pull[2]) / 80;
      if (facing > 0.08) expect(map[v]).toBe(FREE);
      else if (facing < -0.08) expect(map[v]).toBe(LOCKED);
      else if (Math.abs(facing) < 0.03) expect(map[v]).toBe(LOW_DRAFT);
    }
  });

  it("count every pull a place is free from", () => {
    const counts = freeCounts(sphere(80, 24), pullDirections(40), 1, 5, null, () => {});
    const most = pullDirections(40).length;
    // Each place of a ball sees just about half of all directions.
    for (const count of counts) expect(Math.abs(count / most - 0.5)).toBeLessThan(0.12);
  });
});
