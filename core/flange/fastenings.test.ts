import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { groundOf, round, upright, WIDTH_MM, wallOf } from "../testing/walls.ts";
import { NUT_FIGURES } from "../walls/nutRoom.ts";
import type { WallGround } from "../walls/wallGround.ts";
import { wallsOn } from "../walls/walls.ts";
import { AlongWall } from "./along.ts";
import { drillMap } from "./drillMap.ts";
import {
  boltOffMm,
  type Fastenings,
  fasteningsOf,
  flangeWidthMm,
  insertLengthMm,
  leastWidthMm,
  SLOT_DEPTH_MM,
  washerMm,
} from "./fastenings.ts";
import { chosen, type FlangeSettings, TYPICAL_FLANGES } from "./settings.ts";

const TERMS = { flangeMm: 20 };

function alongOf(ground: WallGround, widthMm = WIDTH_MM): AlongWall {
  return new AlongWall(ground, wallsOn([ground], [widthMm])[0]);
}

const settings = (change: {
  bolts?: Partial<FlangeSettings["bolts"]>;
  keys?: Partial<FlangeSettings["keys"]>;
}): FlangeSettings => ({
  ...TYPICAL_FLANGES,
  bolts: { ...TYPICAL_FLANGES.bolts, ...change.bolts },
  keys: { ...TYPICAL_FLANGES.keys, ...change.keys },
});

/** A wall 900 mm long, straight up. */
const long = wallOf(900, (mm) => [
  [100, 0, mm],
  [100 + WIDTH_MM, 0, mm],
]);

/** What must hold of anything placed on a wall, whatever it is like. */
function expectClear(along: AlongWall, own: FlangeSettings, { bolts, dimples, slots }: Fastenings): void {
  const washer = washerMm(own.bolts.diameterMm);
  const { lengthMm } = along;
  for (const [n, bolt] of bolts.entries()) {
    expect(bolt.troubles).toEqual([]);
    expect(bolt.alongMm).toBeGreaterThanOrEqual(0);
    expect(bolt.alongMm).toBeLessThanOrEqual(lengthMm);
    expect(along.widthMm(bolt.alongMm) - bolt.offMm).toBeGreaterThanOrEqual(2 * own.bolts.diameterMm - 1e-6);
    expect(bolt.offMm - washer).toBeGreaterThanOrEqual(TERMS.flangeMm);
    for (const other of bolts.slice(n + 1))
      expect(Math.hypot(other.alongMm - bolt.alongMm, other.offMm - bolt.offMm)).toBeGreaterThan(2 * washer);
  }
  for (const key of dimples) {
    expect(key.offMm - key.radiusMm).toBeGreaterThanOrEqual(10 - 1e-9);
    expect(along.widthMm(key.alongMm)).toBeGreaterThan(key.offMm + key.radiusMm);
    expect(key.depthMm).toBeGreaterThan(0);
    for (const bolt of bolts)
      expect(Math.hypot(bolt.alongMm - key.alongMm, bolt.offMm - key.offMm)).toBeGreaterThan(key.radiusMm + washer);
  }
  for (const slot of slots) {
    expect(slot.fromMm).toBeGreaterThan(0);
    expect(slot.toMm).toBeLessThan(lengthMm);
    for (const bolt of bolts)
      expect(bolt.alongMm < slot.fromMm - washer || bolt.alongMm > slot.toMm + washer).toBe(true);
    for (const key of dimples)
      expect(key.alongMm < slot.fromMm - key.radiusMm || key.alongMm > slot.toMm + key.radiusMm).toBe(true);
    expect(along.widthMm((slot.fromMm + slot.toMm) / 2)).toBeGreaterThanOrEqual(2 * SLOT_DEPTH_MM);
  }
}

describe("bolts by rule", () => {
  it("stand evenly, no farther apart than the pitch, none at the corners, clear of the shell", () => {
    const along = alongOf(groundOf(long));
    const { bolts, unbolted } = fasteningsOf(along, TYPICAL_FLANGES, null, TERMS);
    const gaps = bolts.slice(1).map(({ alongMm }, k) => alongMm - bolts[k].alongMm);
    for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0], 6);
    expect(gaps[0]).toBeLessThanOrEqual(TYPICAL_FLANGES.bolts.pitchMm);
    expect(bolts[0].alongMm).toBeCloseTo(40, 6);
    expect(bolts[bolts.length - 1].alongMm).toBeCloseTo(860, 6);
    for (const { offMm, access, toShellMm } of bolts) {
      expect(offMm).toBeCloseTo(boltOffMm(TYPICAL_FLANGES, TERMS), 6);
      expect(access).toEqual({ kind: "clear" });
      expect(toShellMm).toBeCloseTo(2, 6);
    }
    expect(unbolted).toEqual([]);
  });

  it("leave out what is too narrow for them, and say how long it is without", () => {
    // Half way up there is room for 20 mm only, over 300 mm.
    const roomMm = Float32Array.from({ length: long.widthsMm.length }, (_, k) => (k > 60 && k < 120 ? 20 : 120));
    const along = alongOf(groundOf(long, { roomMm }));
    const { bolts, unbolted } = fasteningsOf(along, TYPICAL_FLANGES, null, TERMS);
    expect(bolts.every(({ alongMm }) => alongMm <= 305 || alongMm >= 595)).toBe(true);
    expect(unbolted).toHaveLength(1);
    expect(unbolted[0].toMm - unbolted[0].fromMm).toBeGreaterThan(290);
  });

  it("stand evenly all round a closed wall: the gap from the last to the first is like any other", () => {
    const ring = wallOf(
      1000,
      (mm) => {
        const [x, y] = [Math.cos((2 * Math.PI * mm) / 1000), Math.sin((2 * Math.PI * mm) / 1000)];
        return [
          [159.155 * x, 159.155 * y, 0],
          [204.155 * x, 204.155 * y, 0],
        ];
      },
      true,
    );
    const along = alongOf(groundOf(ring));
    const { bolts } = fasteningsOf(along, TYPICAL_FLANGES, null, TERMS);
    const round = along.lengthMm - bolts[bolts.length - 1].alongMm + bolts[0].alongMm;
    expect(round).toBeCloseTo(bolts[1].alongMm - bolts[0].alongMm, 3);
    expect(round).toBeLessThanOrEqual(TYPICAL_FLANGES.bolts.pitchMm);
  });

  it("are drilled aslant where the shell comes near behind them, and give way to straps where it comes nearer", () => {
    const near = (mm: number) => {
      const { nutMm } = groundOf(long);
      // Left of the wall alone.
      return groundOf(long, { nutMm: nutMm.map((far, n) => ((n % NUT_FIGURES) % 2 === 0 ? mm : far)) });
    };
    const accessAt = (mm: number) => fasteningsOf(alongOf(near(mm)), TYPICAL_FLANGES, null, TERMS).bolts[3].access;
    const needed = 20 + washerMm(6) + 1;
    expect(accessAt(needed + 0.1)).toEqual({ kind: "clear" });
    const aslant = accessAt(needed - 5);
    expect(aslant).toMatchObject({ kind: "aslant", section: 1 });
    expect((aslant as { deg: number }).deg).toBeCloseTo((Math.atan(5 / 30) * 180) / Math.PI, 3);
    expect(accessAt(needed - 15)).toEqual({ kind: "none", section: 1 });
  });

  it("need no room behind the flange that their inserts lie in, and as much as ever behind the other", () => {
    const own = settings({ bolts: { hold: "inserts" } });
    const tight = (side: 0 | 1) => {
      const { nutMm } = groundOf(long);
      return alongOf(groundOf(long, { nutMm: nutMm.map((far, n) => ((n % NUT_FIGURES) % 2 === side ? 2 : far)) }));
    };
    const [first, second] = long.sections;
    const builtFirst = first < second ? 0 : 1;
    const accessAt = (along: AlongWall, how: FlangeSettings) => fasteningsOf(along, how, null, TERMS).bolts[3].access;
    expect(accessAt(tight(builtFirst), TYPICAL_FLANGES).kind).toBe("none");
    expect(accessAt(tight(builtFirst), own)).toEqual({ kind: "clear" });
    expect(accessAt(tight(builtFirst === 0 ? 1 : 0), own).kind).toBe("none");
    const along = alongOf(groundOf(long));
    const map = drillMap(along, fasteningsOf(along, own, null, TERMS), "inserts");
    expect(new Set(map.map(({ insertIn }) => insertIn))).toEqual(new Set([Math.min(first, second)]));
    // As long as two diameters, and never through the flange.
    expect(insertLengthMm(20, 6)).toBe(12);
    expect(insertLengthMm(13, 6)).toBe(9);
  });
});

describe("the width of flanges by rule", () => {
  it("leaves bolts and keys their room beside edges of any thickness, in steps of 5 mm", () => {
    const any = fc.record({
      flangeMm: fc.double({ min: 3, max: 60, noNaN: true }),
      diameterMm: fc.integer({ min: 3, max: 20 }),
    });
    fc.assert(
      fc.property(any, ({ flangeMm, diameterMm }) => {
        const own = settings({ bolts: { diameterMm } });
        const width = flangeWidthMm(own, { flangeMm });
        expect(width % 5).toBe(0);
        expect(width).toBeGreaterThanOrEqual(Math.min(120, leastWidthMm(own, { flangeMm })));
        expect(width).toBeLessThan(Math.max(45, leastWidthMm(own, { flangeMm })) + 5);
      }),
    );
    expect(flangeWidthMm({ ...TYPICAL_FLANGES, widthMm: 33 }, TERMS)).toBe(33);
  });
});

describe("bolts where a short narrow place parts two runs", () => {
  it("do not crowd each other", () => {
    const roomMm = Float32Array.from({ length: long.widthsMm.length }, (_, k) => (k === 90 ? 38 : 120));
    const { bolts } = fasteningsOf(alongOf(groundOf(long, { roomMm })), TYPICAL_FLANGES, null, TERMS);
    expect(bolts.length).toBeGreaterThan(4);
    for (const { troubles } of bolts) expect(troubles).toEqual([]);
  });
});

describe("a bolt set by hand", () => {
  const along = alongOf(groundOf(long));
  const troubleOf = (bolts: { alongMm: number; offMm: number }[]) => {
    const own = chosen(TYPICAL_FLANGES, "line-1", { bolts });
    return fasteningsOf(along, own, own.walls[0], TERMS).bolts[0].troubles;
  };

  it("is told what speaks against it where it stands", () => {
    expect(troubleOf([{ alongMm: 300, offMm: 29 }])).toEqual([]);
    expect(troubleOf([{ alongMm: 300, offMm: 38 }])).toEqual(["edge"]);
    expect(troubleOf([{ alongMm: 300, offMm: 20 }])).toContain("shell");
    expect(troubleOf([{ alongMm: 12, offMm: 29 }])).toEqual(["corner"]);
    expect(
      troubleOf([
        { alongMm: 300, offMm: 29 },
        { alongMm: 310, offMm: 29 },
      ]),
    ).toContain("crowded");
    expect(troubleOf([{ alongMm: 300, offMm: 60 }])).toContain("off the wall");
  });
});

describe("flange keys", () => {
  const keysWith = (sine: number, kind: "dimples" | "groove" = "dimples") => {
    const draft = new Float32Array(2 * long.widthsMm.length).fill(sine);
    return fasteningsOf(alongOf(groundOf(long, { draft })), settings({ keys: { kind } }), null, TERMS);
  };

  it("are as deep as the section that leaves first can leave them: a cap of that slope", () => {
    const [key] = keysWith(1).dimples;
    expect(key.depthMm).toBeCloseTo(8 * Math.tan(Math.PI / 6), 6);
    const [shallow] = keysWith(Math.sin((45 * Math.PI) / 180)).dimples;
    expect(shallow.depthMm).toBeCloseTo(8 * Math.tan((20 * Math.PI) / 180), 4);
  });

  it("are none where the pull runs along the wall", () => {
    expect(keysWith(0.2).dimples).toEqual([]);
    expect(keysWith(0.2, "groove").grooves).toEqual([]);
  });

  it("may be of another kind on one wall", () => {
    const along = alongOf(groundOf(long), 70);
    const choice = { id: "line", widthMm: null, joint: "bolts" as const, keys: "groove" as const, bolts: null };
    const own = fasteningsOf(along, settings({}), choice, TERMS);
    const all = fasteningsOf(along, settings({ keys: { kind: "groove" } }), null, TERMS);
    expect(own).toEqual(all);
    expect(own.grooves.length).toBeGreaterThan(0);
    expect(fasteningsOf(along, settings({}), { ...choice, keys: null }, TERMS).dimples.length).toBeGreaterThan(0);
  });

  it("as a groove leave the bolts farther out, clear of it", () => {
    const { grooves } = keysWith(1, "groove");
    expect(grooves).toHaveLength(1);
    const own = settings({ keys: { kind: "groove" } });
    expect(boltOffMm(own, TERMS)).toBeGreaterThan(grooves[0].offMm + grooves[0].widthMm / 2 + washerMm(6));
    expect(leastWidthMm(own, TERMS)).toBeGreaterThan(leastWidthMm(TYPICAL_FLANGES, TERMS));
  });
});

describe("what is placed on any wall", () => {
  it("keeps clear of jacket, edge, shell, corners and each other", () => {
    const walls = [upright, round, long];
    const made = fc.record({
      wall: fc.constantFrom(...walls),
      widthMm: fc.double({ min: 25, max: 110, noNaN: true }),
      narrowAt: fc.double({ min: 0, max: 1, noNaN: true }),
      narrowMm: fc.double({ min: 0, max: 120, noNaN: true }),
      sine: fc.double({ min: -0.2, max: 1, noNaN: true }),
      diameterMm: fc.integer({ min: 4, max: 12 }),
      pitchMm: fc.integer({ min: 60, max: 300 }),
      radiusMm: fc.integer({ min: 4, max: 14 }),
      keyPitchMm: fc.integer({ min: 80, max: 400 }),
    });
    fc.assert(
      fc.property(made, ({ wall, widthMm, narrowAt, narrowMm, sine, diameterMm, pitchMm, radiusMm, keyPitchMm }) => {
        const count = wall.widthsMm.length;
        const at = Math.floor(narrowAt * count);
        const ground = groundOf(wall, {
          roomMm: Float32Array.from({ length: count }, (_, k) => (Math.abs(k - at) < 8 ? narrowMm : 120)),
          draft: new Float32Array(2 * count).fill(sine),
        });
        const along = alongOf(ground, widthMm);
        const own = settings({ bolts: { diameterMm, pitchMm }, keys: { radiusMm, pitchMm: keyPitchMm } });
        expectClear(along, own, fasteningsOf(along, own, null, TERMS));
      }),
      { numRuns: 300 },
    );
  });
});

describe("a place near a wall", () => {
  it("is told by how far along the wall it lies", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer({ min: 0, max: 40 }), (share, offMm) => {
        const along = alongOf(groundOf(long));
        const alongMm = share * along.lengthMm;
        expect(along.alongNear(along.place({ alongMm, offMm }))).toBeCloseTo(alongMm, 3);
      }),
    );
    // Beyond its ends, by its ends.
    expect(alongOf(groundOf(long)).alongNear([100, 0, -500])).toBe(0);
    expect(alongOf(groundOf(long)).alongNear([100, 0, 5000])).toBeCloseTo(900, 6);
  });
});

describe("what is decided for one wall", () => {
  it("is forgotten when it says nothing any more", () => {
    const wider = chosen(TYPICAL_FLANGES, "line-3", { widthMm: 60 });
    expect(wider.walls).toEqual([{ id: "line-3", widthMm: 60, joint: "bolts", keys: null, bolts: null }]);
    const strapped = chosen(wider, "line-3", { joint: "straps" });
    expect(strapped.walls).toHaveLength(1);
    expect(chosen(chosen(strapped, "line-3", { joint: "bolts" }), "line-3", { widthMm: null }).walls).toEqual([]);
    const { bolts } = fasteningsOf(alongOf(groundOf(long)), strapped, strapped.walls[0], TERMS);
    expect(bolts).toEqual([]);
  });
});
