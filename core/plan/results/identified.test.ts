import { describe, expect, it } from "vitest";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { NOBODY_KNOWN } from "../document/identity.ts";
import { type Identifiable, identified } from "./identified.ts";

/** Places of a drum of height 0..1000 between two angles and two heights, as a mesh of single vertices. */
function skin(fromDeg: number, toDeg: number, fromMm = 0, toMm = 1000): TriangleMesh {
  const positions: number[] = [];
  for (let deg = fromDeg; deg < toDeg; deg += 4)
    for (let z = fromMm; z < toMm; z += 20)
      positions.push(300 * Math.cos((deg * Math.PI) / 180), 300 * Math.sin((deg * Math.PI) / 180), z);
  return { positions: Float32Array.from(positions), triangles: new Uint32Array(0) };
}

/** An upright line at an angle. */
function line(deg: number, sections: readonly [number, number]) {
  const [x, y] = [300 * Math.cos((deg * Math.PI) / 180), 300 * Math.sin((deg * Math.PI) / 180)];
  return { sections, points: Float32Array.from({ length: 150 }, (_, k) => [x, y, 20 * Math.floor(k / 3)][k % 3]) };
}

const halves: Identifiable = {
  origins: null,
  skins: [skin(0, 180), skin(180, 360)],
  lines: [line(0, [0, 1]), line(180, [0, 1])],
  fills: [{ at: [300, 0, 500] }, { at: [-300, 0, 200] }],
};
const first = identified(halves, NOBODY_KNOWN);
const ids = ({ sections, lines, fills }: typeof first) => ({
  ...{ sections: sections.map(({ id }) => id), lines: lines.map(({ id }) => id), fills: fills.map(({ id }) => id) },
});

describe("ids of a plan", () => {
  it("are given once, each another", () => {
    const { sections, lines, fills } = ids(first);
    expect(new Set([...sections, ...lines, ...fills]).size).toBe(6);
    expect(first.next).toBe(7);
    expect(identified(halves, first)).toEqual(first);
  });

  it("stay with their sections, lines and fills when these are numbered again and a line is moved", () => {
    const after = identified(
      {
        origins: null,
        skins: [skin(205, 365), skin(5, 205)],
        lines: [line(205, [1, 0]), line(5, [0, 1])],
        fills: [{ at: [-290, 10, 205] }, { at: [310, 0, 480] }],
      },
      first,
    );
    const [a, b] = ids(first).sections;
    expect(ids(after).sections).toEqual([b, a]);
    expect(ids(after).lines).toEqual([...ids(first).lines].reverse());
    expect(ids(after).fills).toEqual([...ids(first).fills].reverse());
    expect(after.next).toBe(first.next);
  });

  it("of a section that is parted stay with its greater share; the rest is new", () => {
    const after = identified({ ...halves, skins: [skin(0, 180, 0, 300), skin(0, 180, 300), skin(180, 360)] }, first);
    const [a, b] = ids(first).sections;
    expect(ids(after).sections.slice(1)).toEqual([a, b]);
    expect(ids(first).sections).not.toContain(ids(after).sections[0]);
  });

  it("of sections that are made one: it has one of theirs, and the other is given to nothing again", () => {
    const after = identified({ origins: null, skins: [skin(0, 360)], lines: [], fills: [] }, first);
    expect(ids(first).sections).toContain(ids(after).sections[0]);
    const lost = ids(first).sections.find((id) => !ids(after).sections.includes(id));
    expect(ids(identified(halves, after)).sections).not.toContain(lost);
  });

  it("are new where nothing has well over half of what was", () => {
    const across = identified({ ...halves, skins: [skin(90, 270), skin(270, 450)] }, first);
    for (const id of ids(across).sections) expect(ids(first).sections).not.toContain(id);
  });

  it("stay with a section that is turned by hand, whatever it covers then, and however it is numbered", () => {
    const turned = { ...halves, skins: [skin(90, 270), skin(270, 450)], origins: [1, 0] };
    const [a, b] = ids(first).sections;
    expect(ids(identified(turned, first)).sections).toEqual([b, a]);
    // But overlap comes first: what lies where it lay is the same, whatever it is made from now.
    expect(ids(identified({ ...halves, origins: [1, 0] }, first)).sections).toEqual([a, b]);
  });
});
