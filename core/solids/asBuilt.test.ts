import { describe, expect, it } from "vitest";
import { plainContext as ctx } from "../job/context.ts";
import { adjacencyOf } from "../mesh/adjacency.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import type { Direction } from "../space/directions.ts";
import { box, moved } from "../testing/shapes.ts";
import { clashesAsBuilt, trimmedBetween } from "./asBuilt.ts";
import { meshOf, withSolids } from "./kernel.ts";
import { type Relief, type ReliefRequest, relieved } from "./relief.ts";

const FLANGE_MM = 20;
const leaving = (mesh: TriangleMesh, pull: Direction, travelMm = 200) => ({
  mesh,
  pull,
  travelMm,
  flangeMm: FLANGE_MM,
});

/** Boxes by their lowest corner and their sides, as one body. */
async function bodyOf(...boxes: readonly (readonly number[])[]): Promise<TriangleMesh> {
  return withSolids(async (solids) =>
    meshOf(
      solids.union(
        boxes.map(([x, y, z, w, d, h], k) =>
          solids.fromMesh(moved(box(w, d, h), x + w / 2, y + d / 2, z + h / 2), `box ${k + 1}`),
        ),
      ),
    ),
  );
}

describe("two sections that leave one after the other", () => {
  it("pass where one slides along the other's face", async () => {
    const low = await bodyOf([0, 0, 0, 200, 100, 40]);
    const high = await bodyOf([0, 0, 40.04, 200, 100, 40]);
    for (const pull of [
      [0, 0, 1],
      [1, 0, 0],
      [0, -1, 0],
    ] as Direction[])
      expect(clashesAsBuilt([leaving(low, pull), leaving(high, pull)], 5, ctx)).toEqual([]);
  });

  it("clash where a ledge hangs over: as deep as half of what is the thinner of the two that meet", async () => {
    // A wall with a ledge of 24 mm that reaches 30 mm over the other section.
    const low = await bodyOf([-40, 0, 0, 40, 100, 150], [-40, 0, 126, 70, 100, 24]);
    const under = await bodyOf([0.04, 0, 0, 120, 100, 60]);
    const [clash, ...more] = clashesAsBuilt([leaving(low, [-1, 0, 0]), leaving(under, [0, 0, 1])], 4, ctx);
    expect(more).toEqual([]);
    expect([clash.section, clash.other]).toEqual([2, 1]);
    // A place of the top face ends up in the middle of the ledge, 12 mm from its faces.
    expect(Math.abs(clash.biteMm - 12)).toBeLessThan(1);
    expect(Math.abs(clash.movedMm - (138 - clash.at[2]))).toBeLessThan(1.5);
    // All that is under the ledge, but for what is trimmed along its edges.
    expect(Math.abs(clash.areaMm2 / ((30 - 3) * (100 - 2 * 3)) - 1)).toBeLessThan(0.05);
    // Pulled away to the side first, it passes.
    expect(clashesAsBuilt([leaving(low, [-1, 0, 0]), leaving(under, [1, 0, 0])], 4, ctx)).toEqual([]);
    // So it does where it is clear before it comes there.
    expect(clashesAsBuilt([leaving(low, [-1, 0, 0]), leaving(under, [0, 0, 1], 50)], 4, ctx)).toEqual([]);
  });

  /** A bolt in the one that leaves, and one in the ledge. */
  const [UNDER, LEDGE] = [
    { wall: 1, alongMm: 50, at: [110, 50, 55] },
    { wall: 1, alongMm: 60, at: [110, 50, 138] },
  ];
  /** The upper edge of a shell of 40 mm on its jacket at the left passes under a ledge of 24 mm that reaches 20 mm over it. */
  async function passedUnder(shellMm: number, areaMm2 = 20_000, boltsOf: ReliefRequest["boltsOf"] = () => []) {
    const low = await bodyOf([120, 0, 0, 60, 100, 150], [100, 0, 126, 80, 100, 24]);
    const high = await bodyOf([80, 0, 0, 39.96, 100, 60]);
    return passed(low, high, shellMm, areaMm2, boltsOf);
  }
  async function passed(
    low: TriangleMesh,
    high: TriangleMesh,
    shellMm: number,
    areaMm2: number,
    boltsOf: ReliefRequest["boltsOf"],
  ) {
    const solids = [leaving(low, [1, 0, 0]), leaving(high, [0, 0, 1])];
    const found: { mesh: TriangleMesh; relief: Relief }[] = [];
    const clashes = await withSolids((bodies) =>
      clashesAsBuilt(solids, 5, ctx, (met) => {
        const less = relieved(
          bodies,
          met,
          {
            asSolids: new Map(),
            offJacketMm: (x: number) => x - 80,
            shellsMm: [shellMm, shellMm],
            areasMm2: [areaMm2, areaMm2],
            boltsOf,
          },
          ctx,
        );
        found.push(...less.reliefs.map((relief) => ({ mesh: less.mesh, relief })));
        return less.mesh;
      }),
    );
    return { clashes, found };
  }

  it("pass where the one that leaves is laid thinner by what would run into the other", async () => {
    const { clashes, found } = await passedUnder(40);
    expect(clashes).toEqual([]);
    expect(found).toHaveLength(1);
    const [{ mesh, relief }] = found;
    expect([relief.section, relief.other]).toEqual([2, 1]);
    // Half of its 40 mm are under the ledge, but for what is trimmed; nothing ends up deeper than half of the ledge's 24 mm.
    expect(Math.abs((relief.leftMm ?? 0) - 20)).toBeLessThan(2);
    expect(Math.abs(relief.biteMm - 12)).toBeLessThan(1);
    const { volumeMm3 } = areaAndVolume(mesh);
    expect(volumeMm3 / (20 * 100 * 60)).toBeGreaterThan(1);
    expect(volumeMm3 / (20 * 100 * 60)).toBeLessThan(1.15);
    expect(adjacencyOf(mesh).openEdges).toBe(0);
  });

  it("are tried once more past each other where a cut has gained something, and only then", async () => {
    const low = await bodyOf([120, 0, 0, 60, 100, 150], [100, 0, 126, 80, 100, 24]);
    const high = await bodyOf([80, 0, 0, 39.96, 100, 60]);
    // Less of it after the first time it is asked, and all that is under the ledge gone after the fifth.
    const cuts = [await bodyOf([80, 0, 0, 39.96, 100, 59]), await bodyOf([80, 0, 0, 15, 100, 60])];
    const asked = (gains: boolean) => {
      let times = 0;
      const clashes = clashesAsBuilt([leaving(low, [1, 0, 0]), leaving(high, [0, 0, 1])], 5, ctx, (met) => {
        times++;
        if (gains && times === 1) return cuts[0];
        return gains && times === 5 ? cuts[1] : met.leaving.mesh;
      });
      return { times, clashes: clashes.length };
    };
    expect(asked(true)).toEqual({ times: 5, clashes: 0 });
    expect(asked(false)).toEqual({ times: 4, clashes: 1 });
  });

  it("pass with less of a shell than is enough where hardly any of it is concerned", async () => {
    const { clashes, found } = await passedUnder(70, 1e6);
    expect(clashes).toEqual([]);
    expect(found[0].relief.leftMm).toBeLessThan(70 / 3);
  });

  it("pass where a bolt is in the one that leaves, and the one in its way is laid thinner", async () => {
    const { clashes, found } = await passedUnder(40, 20_000, (section) => (section === 2 ? [UNDER] : []));
    expect(clashes).toEqual([]);
    expect(found).toHaveLength(1);
    const [{ mesh, relief }] = found;
    expect([relief.section, relief.other]).toEqual([1, 2]);
    // The ledge is gone where the other comes past, but for what is trimmed along its edges.
    const { volumeMm3 } = areaAndVolume(mesh);
    expect(volumeMm3 / (60 * 100 * 150)).toBeGreaterThan(1);
    expect(volumeMm3 / (60 * 100 * 150)).toBeLessThan(1.02);
    expect(adjacencyOf(mesh).openEdges).toBe(0);
  });

  it("pass under two ledges, each by itself", async () => {
    const low = await bodyOf([120, 0, 0, 60, 340, 150], [100, 0, 126, 80, 60, 24], [100, 280, 126, 80, 60, 24]);
    const high = await bodyOf([80, 0, 0, 39.96, 340, 60]);
    const both = await passed(low, high, 40, 20_000, () => []);
    expect(both.clashes).toEqual([]);
    expect(both.found.map(({ relief: { at } }) => at[1] < 170).sort()).toEqual([false, true]);
    expect(new Set(both.found.map(({ mesh }) => mesh)).size).toBe(1);
    // With a bolt under one of them, that ledge is cut back instead.
    const one = await passed(low, high, 40, 20_000, (section) => (section === 2 ? [UNDER] : []));
    expect(one.clashes).toEqual([]);
    expect(one.found.map(({ relief: { section, at, bolts } }) => [section, at[1] < 170, bolts])).toEqual([
      [2, false, []],
      [1, true, []],
    ]);
    const areas = [both, one].map(({ clashes, found }) => [...clashes, ...found.map(({ relief }) => relief)]);
    for (const all of areas) for (const { areaMm2 } of all) expect(areaMm2).toBeLessThan(20 * 60);
  });

  it("clash still where too little of the shell would stay", async () => {
    const { found, clashes } = await passedUnder(70);
    expect(found).toEqual([]);
    expect(clashes.map(({ section, other }) => [section, other])).toEqual([[2, 1]]);
  });

  it("pass where there are bolts in both by giving up that of the one that leaves", async () => {
    const { found, clashes } = await passedUnder(40, 20_000, (section) => [section === 2 ? UNDER : LEDGE]);
    expect(clashes).toEqual([]);
    expect(found.map(({ relief: { section, bolts } }) => [section, bolts])).toEqual([[2, [{ wall: 1, alongMm: 50 }]]]);
  });

  it("clash where flanges of cloth run through each other, thin as they are", async () => {
    const [low, high] = [await bodyOf([0, 0, 60, 200, 100, 4]), await bodyOf([0, 0, 0, 200, 100, 40])];
    const thin = (mesh: TriangleMesh, pull: Direction) => ({ ...leaving(mesh, pull), flangeMm: 4 });
    const [clash] = clashesAsBuilt([thin(low, [0, 0, 1]), thin(high, [0, 0, 1])], 5, ctx);
    // No deeper than half of what is run through, to half a step of its field.
    expect(Math.abs(clash.biteMm - 2)).toBeLessThan(0.75);
    expect(clash.areaMm2).toBeGreaterThan(0.9 * 200 * 100);
  });

  it.each([
    { depthMm: 8, clashes: true },
    { depthMm: 2, clashes: false },
  ])("a key of $depthMm mm across the pull: holds is $clashes", async ({ depthMm, clashes }) => {
    const width = 24;
    const key = [88, 30, 40 - depthMm, width, 40, depthMm + 0.04];
    const pit = await withSolids(async (solids) => {
      const low = solids.fromMesh(moved(box(200, 100, 40), 100, 50, 20), "low");
      const [x, y, z, w, d, h] = key;
      return meshOf(solids.minus(low, solids.fromMesh(moved(box(w, d, h), x + w / 2, y + d / 2, z + h / 2), "pit")));
    });
    const high = await bodyOf([0, 0, 40.04, 200, 100, 40], [...key.slice(0, 5), depthMm + 1]);
    const [clash] = clashesAsBuilt([leaving(pit, [0, 0, 1]), leaving(high, [1, 0, 0])], 4, ctx);
    expect(clash !== undefined).toBe(clashes);
    if (clash) {
      expect(clash.biteMm).toBeGreaterThan(trimmedBetween(leaving(pit, [0, 0, 1]), leaving(high, [1, 0, 0])));
      expect(clash.biteMm).toBeLessThanOrEqual(depthMm + 0.5);
    }
    // Lifted off it never holds.
    expect(clashesAsBuilt([leaving(pit, [0, 0, 1]), leaving(high, [0, 0, 1])], 4, ctx)).toEqual([]);
  });
});
