import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { type Jacket, makeJacket } from "../jacket/jacket.ts";
import { plainContext as ctx } from "../job/context.ts";
import type { Direction } from "../survey/directions.ts";
import { mushroom } from "../testing/shapes.ts";
import {
  type FreedSections,
  FreeingMemory,
  type FreeRequest,
  freeSections,
  lockedAlike,
  lockedBare,
  tooDeep,
} from "./freeing.ts";

const STEP_MM = 4;
const coats = [{ thicknessMm: 4, thickened: true, pigment: "#cccccc" }];
/** A low mushroom on the board: under its cap a section pulled up is locked, thin enough to be filled. */
const jacket = jacketOf(78);

function jacketOf(capMm: number): Jacket {
  return makeJacket(
    mushroom(60, 40, capMm, 40, 96),
    { coats, smoothingMm: 0, rimWidthMm: 0, stops: [], onBoard: true, stepMm: STEP_MM },
    ctx,
  );
}

interface Some {
  readonly fillDepthMm?: number;
  readonly open?: boolean;
  readonly rounds?: number;
  readonly on?: Jacket;
}

function asked(memory: FreeingMemory | null, some: Some = {}): FreeRequest {
  const { fillDepthMm = 60, open = false, rounds = 3, on = jacket } = some;
  const pulls: readonly Direction[] = [[0, 0, 1]];
  return {
    jacket: on,
    nearest: NearestField.about(on.mesh, 2 * STEP_MM, ctx),
    pulls,
    potentials: [new Float32Array(on.mesh.positions.length / 3).fill(1)],
    fillDepthMm,
    open: [open],
    shellMm: 15,
    rounds,
    memory,
  };
}

const freed = (memory: FreeingMemory | null, some: Some = {}): FreedSections => freeSections(asked(memory, some), ctx);

const holding = ({ last }: FreedSections) => last.reduce((sum, { holdingMm3 }) => sum + holdingMm3, 0);

describe("a lock that can be filled", () => {
  it("is filled, and holds no more: the fill is the ring under the cap", () => {
    const result = freed(new FreeingMemory());
    // From the jacket round the stem to the jacket's own rim, up to its underside.
    const ringMm3 = Math.PI * ((78 + 4) ** 2 - (60 + 4) ** 2) * (40 - 4);
    expect(result.fillsMm3[0] / ringMm3).toBeGreaterThan(0.93);
    expect(result.fillsMm3[0] / ringMm3).toBeLessThan(1.07);
    expect(holding(result)).toBe(0);
    expect(result.mesh).not.toBe(jacket.mesh);
  });

  it("is left as it is where it is to stay open, or lies too deep, and says that it holds", () => {
    const open = freed(new FreeingMemory(), { open: true });
    expect(open.fillsMm3[0]).toBe(0);
    expect(open.mesh).toBe(jacket.mesh);
    const deep = freed(new FreeingMemory(), { fillDepthMm: 5 });
    expect(deep.fillsMm3[0]).toBeLessThan(1000);
    for (const result of [open, deep]) expect(holding(result)).toBeGreaterThan(100_000);
  });

  it("holds where it is left open though it is as thin as the grid's own roughness", () => {
    const capMm = 60 + 1.5 * STEP_MM;
    const [filled, open] = [false, true].map((left) => freed(new FreeingMemory(), { open: left, on: jacketOf(capMm) }));
    expect(holding(filled)).toBe(0);
    expect(holding(open) / filled.locks[0].lockMm3).toBeCloseTo(1, 6);
    expect(open.fillsMm3[0]).toBe(0);
  });
});

describe("a lock looked at before any fill", () => {
  it("is too deep where no fill goes into it, and what is filled in the end then holds", () => {
    for (const [fillDepthMm, deep] of [
      [60, false],
      [5, true],
    ] as const) {
      const request = asked(null, { fillDepthMm });
      const bare = lockedBare(request, ctx);
      expect(tooDeep(bare)).toBe(deep);
      const result = freeSections(request, ctx, bare);
      expect(holding(result) > 0).toBe(deep);
      expect(result.fillsMm3).toEqual(freed(null, { fillDepthMm }).fillsMm3);
    }
  });
});

describe("two ways to lay the same sections", () => {
  it("lock alike where their locks differ by less than a tenth", () => {
    const [first, same, wider] = [78, 78.1, 84].map((capMm) => lockedBare(asked(null, { on: jacketOf(capMm) }), ctx));
    expect(lockedAlike(first, same)).toBe(true);
    expect(lockedAlike(first, wider)).toBe(false);
    expect(lockedAlike(wider, first)).toBe(false);
  });
});

describe("what is remembered", () => {
  it("serves a plan that fills the very same: the filled jacket is not made again", () => {
    const memory = new FreeingMemory();
    const [first, second] = [freed(memory), freed(memory)];
    expect(second.mesh).toBe(first.mesh);
    expect(second.nearest).toBe(first.nearest);
    expect(second.fillsMm3).toEqual(first.fillsMm3);
    expect(second.last[0].holdingMm3).toBe(first.last[0].holdingMm3);
  });

  it("makes it anew where the fill is another", () => {
    const memory = new FreeingMemory();
    const first = freed(memory);
    const shallow = freed(memory, { fillDepthMm: 5 });
    expect(shallow.mesh).not.toBe(first.mesh);
    const again = freed(memory);
    expect(again.mesh.positions).toEqual(first.mesh.positions);
    expect(again.fillsMm3).toEqual(first.fillsMm3);
  });

  it("changes no result: with it and without, a plan comes to the same", () => {
    const memory = new FreeingMemory();
    freed(memory, { fillDepthMm: 5 });
    const [remembered, fresh] = [freed(memory), freed(null)];
    expect(remembered.fillsMm3).toEqual(fresh.fillsMm3);
    expect(remembered.last.map(({ lockMm3, holdingMm3 }) => [lockMm3, holdingMm3])).toEqual(
      fresh.last.map(({ lockMm3, holdingMm3 }) => [lockMm3, holdingMm3]),
    );
  });
});
