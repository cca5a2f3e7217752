import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../../field/nearest.ts";
import { plainContext as ctx } from "../../job/context.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { newPlan } from "../../plan/document/document.ts";
import { depthField } from "../../survey/depth.ts";
import { withinZone } from "../../survey/zones.ts";
import { partingPrices } from "../../takeoff/prices.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { lumps, lumpy } from "../../testing/random.ts";
import { sphere } from "../../testing/shapes.ts";
import { neighbours, vertexGraph } from "../graph/graph.ts";
import { regionsOf } from "../graph/regions.ts";
import type { Given } from "./held.ts";
import { HASTY, type SuggestRequest, surveyPulls } from "./request.ts";
import { PlanSearch } from "./suggest.ts";
import type { Suggestion } from "./trial.ts";

const prices = partingPrices(newPlan(), TYPICAL_RATES);
const ball = sphere(150, 24);

function searchOn(
  coarse: TriangleMesh,
  clear: Uint8Array | null = null,
  given: Given | null = null,
): { request: SuggestRequest; search: PlanSearch } {
  const request: SuggestRequest = {
    coarse,
    depth: depthField(coarse, ctx),
    clear,
    nearest: NearestField.about(coarse, 28, ctx),
    boardMm: null,
    spacingMm: 14,
    mayLift: true,
    draftDeg: 1,
    effort: { ...HASTY, directions: 60, starts: 2, turns: 2, careful: true },
  };
  return { request, search: new PlanSearch(request, surveyPulls(request, ctx), prices, ctx, given) };
}

/** A plan with one section held. */
function givenOf(plan: Suggestion, section: number, members: readonly number[], whole: boolean): Given {
  return {
    held: [{ pull: plan.pulls[section], members, whole }],
    pulls: plan.pulls.map((pull, s) => (s === section ? 0 : pull)),
    label: plan.label,
  };
}

/** Vertices of a section. */
function membersOf(label: Uint8Array, section: number): number[] {
  return [...label.keys()].filter((v) => label[v] === section);
}

describe("the search over lumpy bodies", () => {
  it("is never dearer than the best contrary pair parted straight across", () => {
    const shares: number[] = [];
    fc.assert(
      fc.property(lumps, (waves) => {
        const { search } = searchOn(lumpy(ball, waves));
        const plain = search.straightPair();
        const found = search.best(2, ctx);
        if (!plain) throw new Error("A floating body has contrary pulls.");
        expect(found.energy + found.handling).toBeLessThanOrEqual(plain.energy + plain.handling);
        shares.push(found.energy / plain.energy);
      }),
      { numRuns: 12, seed: 21 },
    );
    // On most of them it is clearly cheaper.
    expect(shares.sort((a, b) => a - b)[Math.floor(shares.length / 2)]).toBeLessThan(0.9);
  });

  it("costs no more with one section more to use, and every section is one piece", () => {
    fc.assert(
      fc.property(lumps, (waves) => {
        const { request, search } = searchOn(lumpy(ball, waves));
        const near = neighbours(vertexGraph(request.coarse));
        let before = Infinity;
        for (const count of [2, 3, 4]) {
          const plan = search.best(count, ctx);
          expect(plan.energy + plan.handling).toBeLessThanOrEqual(before * (1 + 1e-6) + 1);
          expect(plan.pulls.length).toBeLessThanOrEqual(count);
          expect(regionsOf(plan.label, near).label.length).toBe(plan.pulls.length);
          before = plan.energy + plan.handling;
        }
      }),
      { numRuns: 6, seed: 22 },
    );
  });

  it("hands out just as many sections as are asked for", () => {
    const { search } = searchOn(
      lumpy(ball, [
        [20, 1],
        [12, 4],
        [16, 2.2],
      ]),
    );
    for (const count of [2, 3, 4, 5, 6]) expect(new Set(search.exactly(count, ctx).label).size).toBe(count);
  });
});

describe("what is held while the rest is looked for", () => {
  it("keeps a held section as it lies, and a held pull where it was", () => {
    fc.assert(
      fc.property(lumps, fc.nat(2), fc.boolean(), (waves, pick, whole) => {
        const body = lumpy(ball, waves);
        const before = searchOn(body).search.exactly(3, ctx);
        const own = membersOf(before.label, pick);
        const members = whole ? own : own.slice(0, 5);
        const { search } = searchOn(body, null, givenOf(before, pick, members, whole));
        for (const count of [3, 4]) {
          const plan = search.tightened(search.exactly(count, ctx));
          const kept = plan.held.indexOf(0);
          expect(plan.pulls.length).toBe(count);
          expect(plan.pulls[kept]).toEqual(before.pulls[pick]);
          if (whole) expect(membersOf(plan.label, kept)).toEqual(own);
          else for (const v of members) expect(plan.label[v]).toBe(kept);
        }
      }),
      { numRuns: 8, seed: 24, endOnFailure: true },
    );
  });

  it("finds no dearer rest than the one it was taken from", () => {
    fc.assert(
      fc.property(lumps, (waves) => {
        const body = lumpy(ball, waves);
        const before = searchOn(body).search.exactly(3, ctx);
        const given = givenOf(before, 0, membersOf(before.label, 0), true);
        const after = searchOn(body, null, given).search.best(3, ctx);
        expect(after.energy + after.handling).toBeLessThanOrEqual((before.energy + before.handling) * (1 + 1e-5));
      }),
      { numRuns: 6, seed: 25, endOnFailure: true },
    );
  });
});

describe("a zone to keep clear", () => {
  /** Vertices of a body with a neighbour of another section. */
  const onLine = (coarse: TriangleMesh, label: Uint8Array): number[] => {
    const near = neighbours(vertexGraph(coarse));
    return [...label.keys()].filter((v) =>
      near.list.subarray(near.start[v], near.start[v + 1]).some((o) => label[o] !== label[v]),
    );
  };

  it("turns the line aside from where it ran before, unless the way round costs more", () => {
    const through = { before: 0, after: 0 };
    fc.assert(
      fc.property(lumps, fc.integer({ min: 0, max: 1000 }), (waves, pick) => {
        const body = lumpy(ball, waves);
        const plain = searchOn(body);
        const before = plain.search.tightened(plain.search.best(2, ctx));
        const line = onLine(body, before.label);
        const p = body.positions;
        const [x, y, z] = p.subarray(3 * line[pick % line.length], 3 * line[pick % line.length] + 3);
        const within = withinZone([x, y, z, 0, 0, 1, 45], p, null, 0);
        const { search } = searchOn(body, within);
        const after = search.tightened(search.best(2, ctx));
        const crossing = (label: Uint8Array) => onLine(body, label).filter((v) => within[v] === 1).length;
        through.before += crossing(before.label);
        through.after += crossing(after.label);
      }),
      { numRuns: 6, seed: 23, endOnFailure: true },
    );
    expect(through.after).toBeLessThan(0.5 * through.before);
  });
});
