import { describe, expect, it } from "vitest";
import { moved, sphere } from "../testing/shapes.ts";
import { withSolids } from "./kernel.ts";
import { letterPlaces, lettersOf, lettersSolid, segmentsOf } from "./letters.ts";
import type { NumberPlace } from "./number.ts";

const RADIUS_MM = 150;
const ball = moved(sphere(RADIUS_MM, 64), 0, 0, 0);
const onFront: NumberPlace = { at: [0, -RADIUS_MM, 0], normal: [0, -1, 0], heightMm: 40 };

describe("a name in letters", () => {
  it("is plain, upper case, and cut off at a word", () => {
    expect(lettersOf("The lamplighter")).toBe("THE LAMPLIGHTER");
    expect(lettersOf("  Möwe über Wellen, groß 2 ")).toBe("MOWE UBER WELLEN");
    expect(lettersOf("Unpronounceablenesses")).toBe("UNPRONOUNCEABLEN");
    expect(lettersOf("?!")).toBe("");
  });

  it("has strokes for every letter and figure, within four columns and six rows", () => {
    for (const letter of "ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-") {
      const segments = segmentsOf(letter);
      expect(segments.length).toBeGreaterThan(0);
      for (const [[ax, ay], [bx, by]] of segments) {
        expect(Math.hypot(bx - ax, by - ay)).toBeGreaterThan(0);
        for (const x of [ax, bx]) expect(Math.abs(x)).toBeLessThanOrEqual(1 / 3);
        for (const y of [ay, by]) expect(y >= 0 && y <= 1).toBe(true);
      }
    }
  });

  it("follows the face that it is on, in order, and stands out of it there", async () => {
    const places = letterPlaces(ball, [], null, "Walrus", onFront);
    expect(places.map(({ letter }) => letter).join("")).toBe("WALRUS");
    for (const { at, normal } of places) {
      expect(Math.abs(Math.hypot(...at) - RADIUS_MM)).toBeLessThan(1);
      expect(normal.reduce((sum, x, a) => sum + (x * at[a]) / RADIUS_MM, 0)).toBeGreaterThan(0.99);
    }
    // From the front the right is where x grows.
    const across = places.map(({ at }) => at[0]);
    expect([...across].sort((a, b) => a - b)).toEqual(across);
    await withSolids((solids) => {
      const body = lettersSolid(solids, places, () => 20);
      if (!body) throw new Error("There is no name.");
      const shell = solids.fromMesh(moved(sphere(RADIUS_MM + 20, 96), 0, 0, 0), "the shell");
      const outMm3 = solids.minus(body, shell).volume();
      const strokes = places.flatMap(({ letter, heightMm }) =>
        segmentsOf(letter).map(([[ax, ay], [bx, by]]) => heightMm * Math.hypot(bx - ax, by - ay)),
      );
      const [{ heightMm }] = places;
      const alongMm = strokes.reduce((sum, mm) => sum + mm, 0);
      // Two millimetres high, 0.15 of their height wide; strokes overlap where they meet.
      const mostMm3 = 2 * 0.15 * heightMm * (alongMm + strokes.length * 0.15 * heightMm);
      expect(outMm3).toBeGreaterThan(0.5 * mostMm3);
      expect(outMm3).toBeLessThan(1.3 * mostMm3);
    });
  });

  it("is left out where it would lie on a line, below what stands on the board, or round the corner", () => {
    const line = Float32Array.from([20, -RADIUS_MM, -50]);
    expect(letterPlaces(ball, [line], null, "Walrus", onFront)).toEqual([]);
    expect(letterPlaces(ball, [], -40, "Walrus", onFront)).toEqual([]);
    const small = moved(sphere(45, 48), 0, 0, 0);
    const place: NumberPlace = { at: [0, -45, 0], normal: [0, -1, 0], heightMm: 30 };
    expect(letterPlaces(small, [], null, "The lamplighter", place)).toEqual([]);
  });
});
