import { beforeAll, describe, expect, it } from "vitest";
import { isosurface } from "../field/isosurface.ts";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { areaAndVolume, type TriangleMesh } from "../mesh/mesh.ts";
import { type BuiltSection, builtSections } from "../plan/builtSections.ts";
import { builtWalls } from "../plan/builtWalls.ts";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { PlanEngine } from "../plan/engine.ts";
import type { PlanResult } from "../plan/results/planResult.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";
import { dome, isClosed, moved, sphere } from "../testing/shapes.ts";
import { withSolids } from "./kernel.ts";
import { awayMm } from "./number.ts";

const base = newPlan();
const FOOTLESS = { ...base.shell.foot, isFlanged: false };
const FLANGELESS = { ...base.shell.flanges, widthMm: 0 };

/** A ball of 100 mm in two halves, its jacket 8 mm and its shell 15 mm thick. */
function ballIn(onBoard: boolean, flanges = base.shell.flanges, flangeThicknessMm = 20): PlanDocument {
  return {
    ...base,
    seat: { ...base.seat, onBoard },
    jacket: { ...base.jacket, smoothingMm: 0, footClayMm: 0, rimWidthMm: 0 },
    parting: {
      ...base.parting,
      pulls: [
        [1, 0, 0],
        [-1, 0, 0],
      ],
    },
    shell: { ...base.shell, figures: { thicknessMm: 15, flangeThicknessMm }, flanges, foot: FOOTLESS },
  };
}

/** What is parted once is built with this and that. */
const BALL = new PlanEngine(moved(sphere(100, 96), 0, 0, 70));

async function built(document: PlanDocument, stepMm: number): Promise<{ result: PlanResult; solids: BuiltSection[] }> {
  const result = BALL.run(document, TYPICAL_RATES, stepMm, ctx);
  const walls = builtWalls(result.walls, document);
  return { result, solids: await builtSections(result, document, walls, ctx) };
}

/** Faces of neighbours that lie no farther apart than this meet, mm. */
const MEETS_MM = 0.05;

describe("halves over a ball", () => {
  it("without flanges, and with edges no thicker, are the shell between two spheres, half each", async () => {
    const { solids, result } = await built(ballIn(false, FLANGELESS, 15), 4);
    expect(solids).toHaveLength(2);
    // What is cast, the jacket and the shell fill the ball to the shell's outside.
    const within = areaAndVolume(result.parting.filled).volumeMm3;
    const shell = solids.reduce((sum, { volumeMm3 }) => sum + volumeMm3, 0);
    expect(Math.abs((within + shell) / ((4 / 3) * Math.PI * 123 ** 3) - 1)).toBeLessThan(0.005);
    const all = solids.reduce((sum, { volumeMm3 }) => sum + volumeMm3, 0);
    expect(Math.abs(all / 2_518_112 - 1)).toBeLessThan(0.01);
    for (const { volumeMm3, centreMm, sizeMm, pieces } of solids) {
      expect(Math.abs(volumeMm3 / all - 0.5)).toBeLessThan(0.005);
      expect(pieces).toBe(1);
      // Half a thick shell: its middle lies 3/8 (R^4 - r^4) / (R^3 - r^3) off the parting.
      expect(Math.abs(centreMm[0])).toBeCloseTo((3 / 8) * ((123 ** 4 - 108 ** 4) / (123 ** 3 - 108 ** 3)), -0.5);
      expect(centreMm[1]).toBeCloseTo(0, 0);
      // With the number that stands out of it.
      const [long, wide, high] = sizeMm.map((mm) => Math.round(mm / 5));
      expect([long, wide]).toEqual([49, 49]);
      expect([25, 26]).toContain(high);
    }
  });
});

describe("sections as solids", () => {
  let plan: { result: PlanResult; solids: BuiltSection[] };
  beforeAll(async () => {
    plan = await built(ballIn(true), 5);
  });

  it("are closed bodies above the board, that overlap neither each other nor the jacket", async () => {
    const { solids, result } = plan;
    for (const { mesh, volumeMm3 } of solids) {
      expect(isClosed(mesh)).toBe(true);
      expect(volumeMm3).toBeGreaterThan(0);
      for (let v = 2; v < mesh.positions.length; v += 3) expect(mesh.positions[v]).toBeGreaterThan(-0.01);
    }
    await withSolids((bodies) => {
      const [a, b] = solids.map(({ mesh }, k) => bodies.fromMesh(mesh, `section ${k + 1}`));
      // What floats leave of them, in a million.
      expect(bodies.and(a, b).volume() / a.volume()).toBeLessThan(2e-5);
      const { grid, phi } = result.parting.body;
      const jacket = bodies.fromMesh(isosurface(grid, phi, 0, ctx), "the jacket");
      // The shell is laid on a jacket of fewer triangles, none of which strays by more than 0.2 mm.
      for (const solid of [a, b])
        expect(bodies.and(solid, jacket).volume() / result.jacket.outerAreaMm2).toBeLessThan(0.1);
      // Cavity and silicone make up what the shell is built on; with the sections that is the whole mould.
      const onBoard = bodies.above(jacket, 0);
      const { piece, jacket: made, parting } = result;
      const inside = piece.volumeMm3 + made.siliconeMm3 - made.rimMm3 + made.footClayMm3 + parting.fillMm3;
      expect(Math.abs(onBoard.volume() / inside - 1)).toBeLessThan(0.005);
      const whole = bodies.union([onBoard, a, b]).volume();
      expect(Math.abs(whole / (inside + a.volume() + b.volume()) - 1)).toBeLessThan(0.005);
    });
  });

  it("meet face to face: what faces the other half lies on it, within a twentieth of a millimetre", () => {
    const document = ballIn(true);
    const [{ wall, fastenings }] = builtWalls(plan.result.walls, document);
    const surfaces = plan.solids.map(({ mesh }) => ({ mesh, nearest: NearestField.about(mesh, 6, ctx) }));
    // From within the shell to the outer edge; bolts and pry slots are cut out of it, and keys are pressed into it.
    const { foot, head, widthsMm } = wall;
    let wallMm2 = 0;
    for (let v = 1; v < widthsMm.length; v++) {
      const step = Math.hypot(
        ...[0, 1, 2].map((a) => (foot[3 * v + a] + head[3 * v + a] - foot[3 * v - 3 + a] - head[3 * v - 3 + a]) / 2),
      );
      wallMm2 += (step * (widthsMm[v] + widthsMm[v - 1])) / 2;
    }
    const holesMm2 = fastenings.bolts.length * Math.PI * (document.shell.flanges.bolts.diameterMm / 2) ** 2;
    surfaces.forEach(({ mesh: { positions: p, triangles: t } }, k) => {
      const other = surfaces[1 - k].nearest;
      let meets = 0;
      for (let n = 0; n < t.length; n += 3) {
        const at = [0, 1, 2].map((a) => (p[3 * t[n] + a] + p[3 * t[n + 1] + a] + p[3 * t[n + 2] + a]) / 3);
        if (other.distance(at[0], at[1], at[2]) <= MEETS_MM)
          meets += areaAndVolume({ positions: p, triangles: t.subarray(n, n + 3) }).areaMm2;
      }
      expect(meets).toBeGreaterThan(0.85 * (wallMm2 - holesMm2));
    });
  });

  it("have their flanges, and a hole for every bolt through both", async () => {
    const { result, solids } = plan;
    const bare = await built(ballIn(true, FLANGELESS), 5);
    const [wall] = builtWalls(result.walls, ballIn(true));
    const flangeMm3 = wall.pattern.areaMm2 * 20;
    solids.forEach(({ volumeMm3 }, k) => {
      // Where a flange stands the shell is part of it already.
      const more = volumeMm3 - bare.solids[k].volumeMm3;
      expect(more).toBeGreaterThan(0.4 * flangeMm3);
      expect(more).toBeLessThan(flangeMm3);
    });
    const bolts = wall.fastenings.bolts.length;
    expect(bolts).toBeGreaterThan(3);
    await withSolids((bodies) => {
      // A body with n holes through it has genus n; half a ball on its board has none of its own.
      for (const { mesh } of solids) expect(bodies.fromMesh(mesh, "a section").genus()).toBe(bolts);
    });
  });

  it("have a bore for every insert in the one that is built first, which goes through the other alone", async () => {
    const { flanges } = base.shell;
    const document = ballIn(true, { ...flanges, bolts: { ...flanges.bolts, hold: "inserts" } });
    const { result } = plan;
    const walls = builtWalls(result.walls, document);
    const [first, second] = await builtSections(result, document, walls, ctx);
    const bolts = walls[0].fastenings.bolts.length;
    expect(bolts).toBeGreaterThan(3);
    await withSolids((bodies) => {
      expect(bodies.fromMesh(first.mesh, "the first").genus()).toBe(0);
      expect(bodies.fromMesh(second.mesh, "the second").genus()).toBe(bolts);
    });
    // A flange of 20 mm without its holes of 6 mm through it, but with bores of 9 mm, 12 mm deep.
    const moreMm3 = first.volumeMm3 - plan.solids[0].volumeMm3;
    const perBoltMm3 = Math.PI * (3 ** 2 * 20 - 4.5 ** 2 * 12);
    expect(Math.abs(moreMm3 / bolts - perBoltMm3)).toBeLessThan(0.1 * Math.PI * 3 ** 2 * 20);
  });

  it("bear their number and an arrow up, raised on their outside", () => {
    for (const { mesh } of plan.solids) {
      // The shell's outside is 123 mm off the ball's middle, 100 mm up; but for flange and rim, only the number stands out farther.
      const p = mesh.positions;
      const raised: number[][] = [];
      for (let v = 0; v < p.length; v += 3) {
        const off = Math.hypot(p[v], p[v + 1], p[v + 2] - 100);
        if (off > 124.5 && Math.abs(p[v]) > 60 && p[v + 2] > 25) raised.push([off, p[v + 1], p[v + 2]]);
      }
      expect(raised.length).toBeGreaterThan(12);
      expect(Math.max(...raised.map(([off]) => off))).toBeLessThan(123 + 12);
      // The arrow's tip is narrower than the figure's foot.
      const heights = raised.map(([, , z]) => z);
      const [low, high] = [Math.min(...heights), Math.max(...heights)];
      const wide = (of: (z: number) => boolean) => {
        const across = raised.filter(([, , z]) => of(z)).map(([, y]) => y);
        return Math.max(...across) - Math.min(...across);
      };
      expect(high - low).toBeGreaterThan(30);
      expect(wide((z) => z > high - 2)).toBeLessThan(wide((z) => z < low + 2) + 2);
    }
  });

  it("bear the name of the piece where there is room for it, still one closed body each", async () => {
    const document = ballIn(true);
    const walls = builtWalls(plan.result.walls, document);
    const named = await builtSections(plan.result, document, walls, ctx, { name: "Ball" });
    named.forEach(({ mesh, volumeMm3, pieces }, k) => {
      expect(isClosed(mesh)).toBe(true);
      expect(pieces).toBe(1);
      const more = volumeMm3 - plan.solids[k].volumeMm3;
      expect(more).toBeGreaterThan(100);
      expect(more).toBeLessThan(3000);
    });
  });

  it("have a groove in the one that is built first, its ridge on the other, and pry slots in both", async () => {
    const keyed = (kind: "groove" | "none") => ({
      ...base.shell.flanges,
      widthMm: 60,
      bolts: { ...base.shell.flanges.bolts, offMm: 50 },
      keys: { kind, radiusMm: 6, pitchMm: 200 },
    });
    const [grooved, plain] = [
      await built(ballIn(true, keyed("groove")), 5),
      await built(ballIn(true, keyed("none")), 5),
    ];
    const [{ fastenings, along }] = builtWalls(grooved.result.walls, ballIn(true, keyed("groove")));
    expect(fastenings.grooves.length).toBeGreaterThan(0);
    expect(fastenings.slots.length).toBeGreaterThan(0);
    // A trapezoid: its flat bottom is a third as wide as it is open. Farther out than the line it is longer than that.
    const grooveMm3 = fastenings.grooves.reduce((sum, { fromMm, toMm, offMm, widthMm, depthMm }) => {
      const outMm = (toMm - fromMm) * (1 + offMm / 108);
      return sum + outMm * widthMm * depthMm * (2 / 3);
    }, 0);
    const [taken, added] = [0, 1].map((k) => Math.abs(grooved.solids[k].volumeMm3 - plain.solids[k].volumeMm3));
    expect(grooved.solids[0].volumeMm3).toBeLessThan(plain.solids[0].volumeMm3);
    expect(grooved.solids[1].volumeMm3).toBeGreaterThan(plain.solids[1].volumeMm3);
    expect(Math.abs(taken / grooveMm3 - 1)).toBeLessThan(0.12);
    expect(added / taken).toBeGreaterThan(0.8);
    expect(added / taken).toBeLessThan(1);
    for (const { mesh, pieces } of grooved.solids) {
      expect(isClosed(mesh)).toBe(true);
      expect(pieces).toBe(1);
    }
    await withSolids((bodies) => {
      const [a, b] = grooved.solids.map(({ mesh }, k) => bodies.fromMesh(mesh, `section ${k + 1}`));
      expect(bodies.and(a, b).volume() / a.volume()).toBeLessThan(2e-5);
      // A place in the middle of a slot, on the wall, is in neither.
      const [{ fromMm, toMm }] = fastenings.slots;
      const middle = (fromMm + toMm) / 2;
      const at = along.place({ alongMm: middle, offMm: along.widthMm(middle) - 4 });
      const probe = bodies.hull(
        [-1, 1].flatMap((x) =>
          [-1, 1].flatMap((y) => [-1, 1].map((z): [number, number, number] => [at[0] + x, at[1] + y, at[2] + z])),
        ),
      );
      for (const solid of [a, b]) expect(bodies.and(solid, probe).volume()).toBeLessThan(0.01);
    });
  });

  it("have the ribs that stand on them, still one closed body each", async () => {
    const document = ballIn(true);
    const ribbed = { ...document, shell: { ...document.shell, ribs: { ...document.shell.ribs, spanMm: 200 } } };
    const { result, solids } = await built(ribbed, 5);
    expect(new Set(result.spans.ribs.map(({ section }) => section))).toEqual(new Set([1, 2]));
    solids.forEach(({ mesh, volumeMm3, pieces }, k) => {
      expect(isClosed(mesh)).toBe(true);
      expect(pieces).toBe(1);
      const own = result.spans.ribs.filter(({ section }) => section === k + 1);
      // Half round, 60 mm wide and 35 mm high, but for where it stops before the flanges.
      const mostMm3 = own.reduce((sum, { lengthMm }) => sum + lengthMm * (Math.PI / 2) * 30 * 35, 0);
      const more = volumeMm3 - plan.solids[k].volumeMm3;
      expect(more).toBeGreaterThan(0.2 * mostMm3);
      expect(more).toBeLessThan(1.3 * mostMm3);
    });
  });

  it("weigh by what they are made of, wet and dry, and say who lifts them", () => {
    for (const { volumeMm3, massWetG, massDryG, lift } of plan.solids) {
      // Plaster with 70 of water to 100, and two layers of jute of 300 g/m2, overlapped, in 15 mm.
      const jute = (2 * 300 * 1.25) / 1000 / 15;
      expect(massDryG / (volumeMm3 / 1000)).toBeCloseTo(1.108 + jute, 3);
      expect(massWetG / (volumeMm3 / 1000)).toBeCloseTo(1.588 + jute, 3);
      expect(lift).toBe("one");
    }
  });

  it("are as thick beside the wall as their flanges, and run out evenly from there", () => {
    const [{ foot }] = plan.result.walls;
    // The line where the wall leaves the shell, which is 15 mm thick on a jacket of 108.
    const leaves = Float64Array.from(foot, (mm, k) => {
      const c = 3 * Math.floor(k / 3);
      const centreMm = k % 3 === 2 ? 100 : 0;
      return centreMm + (mm - centreMm) * (123 / Math.hypot(foot[c], foot[c + 1], foot[c + 2] - 100));
    });
    const [edge, rest] = [[] as number[], [] as number[]];
    for (const { mesh } of plan.solids) {
      const { positions: p } = mesh;
      for (let v = 0; v < p.length; v += 3) {
        const at: [number, number, number] = [p[v], p[v + 1], p[v + 2]];
        const radius = Math.hypot(at[0], at[1], at[2] - 100);
        const toWallMm = awayMm(leaves, at);
        // The outside of the skin: beyond its flange, clear of the edge on the board.
        if (radius < 108 + 10 || radius > 108 + 24 || toWallMm < 24 || at[2] < 65) continue;
        const share = Math.min(1, Math.max(0, 1 - (toWallMm - 20) / 40));
        (share > 0 ? edge : rest).push(radius - 108 - (15 + 5 * share));
      }
    }
    // Flanges stand out beside it, and the number and the name on the rest.
    const sorted = (off: readonly number[]) => off.map(Math.abs).sort((a, b) => a - b);
    const within = (off: readonly number[], share: number) => sorted(off)[Math.floor(share * off.length)];
    expect(edge.length).toBeGreaterThan(150);
    expect(within(edge, 0.9)).toBeLessThan(0.2);
    expect(within(rest, 0.8)).toBeLessThan(0.2);
  });

  it("together are what the estimate of the shell is about", () => {
    const solidMm3 = plan.solids.reduce((sum, { volumeMm3 }) => sum + volumeMm3, 0);
    const { areaMm2 } = areaAndVolume(plan.result.parting.filled);
    expect(solidMm3 / (areaMm2 * 15)).toBeGreaterThan(1);
    expect(solidMm3 / (areaMm2 * 15)).toBeLessThan(1.8);
  });
});

describe("a shell in one section", () => {
  it("is one closed body with its push holes through it", async () => {
    const document: PlanDocument = {
      ...ballIn(true, FLANGELESS),
      parting: { ...base.parting, pulls: [[0, 0, 1]] },
    };
    // Sunk into its board past its middle, it is a dome.
    const engine = new PlanEngine(dome(150));
    const result = engine.run(document, TYPICAL_RATES, 5, ctx);
    expect(result.parting.sections).toHaveLength(1);
    // A pole lies over it, and leaves the holes free.
    expect(result.spans.ribs.length).toBeGreaterThan(0);
    const [solid, ...more] = await builtSections(result, document, [], ctx);
    expect(more).toEqual([]);
    expect(isClosed(solid.mesh)).toBe(true);
    await withSolids((bodies) => {
      // A dome's shell has no hole of its own.
      expect(bodies.fromMesh(solid.mesh, "the shell").genus()).toBe(2);
    });
  });
});

describe("what is no body", () => {
  it("is refused by its name", async () => {
    const open: TriangleMesh = {
      positions: Float32Array.from([0, 0, 0, 9, 0, 0, 0, 9, 0]),
      triangles: Uint32Array.from([0, 1, 2]),
    };
    await expect(withSolids((bodies) => bodies.fromMesh(open, "A scrap"))).rejects.toThrow(
      /^A scrap is no closed body/,
    );
  });
});
