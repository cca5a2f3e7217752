import { describe, expect, it } from "vitest";
import { makeJacket } from "../../core/jacket/jacket.ts";
import { Cancelled, plainContext } from "../../core/job/context.ts";
import { ALONE, help, type Kernel, runsOf, SharedTeam, shared, type Task } from "../../core/job/team.ts";
import { kernels } from "../../core/kernels.ts";
import { newPlan } from "../../core/plan/document/document.ts";
import { pullDirections } from "../../core/space/directions.ts";
import { depthField } from "../../core/survey/depth.ts";
import { surveyDirections } from "../../core/survey/survey.ts";
import { mushroom } from "../../core/testing/shapes.ts";
import { threadTeam } from "./team.ts";

const body = mushroom(40, 120, 90, 30, 64);
const survey = {
  mesh: body,
  depth: depthField(body, plainContext),
  directions: pullDirections(24),
  spacingMm: 6,
  boardMm: 0,
};
const jacket = {
  coats: newPlan().jacket.coats,
  smoothingMm: 20,
  rimWidthMm: 60,
  onBoard: true,
  stepMm: 5,
};

/** The team with its tasks counted that really go to another thread. */
function counting(team: SharedTeam): { team: SharedTeam; posted: () => number } {
  let posted = 0;
  const helpers = team.helpers.map((helper) => ({
    ready: helper.ready,
    post: (task: Task) => {
      posted++;
      helper.post(task);
    },
  }));
  return { team: new SharedTeam(helpers), posted: () => posted };
}

const threads = threadTeam(3);
const ready = () =>
  expect.poll(() => threads.helpers.every((helper) => helper.ready()), { timeout: 20_000 }).toBe(true);

describe("a team of threads", () => {
  it("gives the bits that one thread gives: jacket and survey", async () => {
    await ready();
    const { team, posted } = counting(threads);
    const shared = makeJacket(body, jacket, { ...plainContext, team });
    const alone = makeJacket(body, jacket, plainContext);
    expect(posted()).toBeGreaterThan(10);
    expect(shared.phi).toEqual(new Float32Array(alone.phi));
    expect(shared.mesh.positions).toEqual(alone.mesh.positions);
    expect(shared.coats).toEqual(alone.coats);
    const before = posted();
    const together = surveyDirections(survey, { ...plainContext, team });
    expect(posted()).toBeGreaterThan(before);
    const apart = surveyDirections(survey, plainContext);
    expect(together.lockMm3.slice()).toEqual(apart.lockMm3);
    expect(together.deepMm3.slice()).toEqual(apart.deepMm3);
  });

  it("does itself what its helpers cannot", async () => {
    await ready();
    const done: number[] = [];
    const unknown: Kernel<number> = { name: "nobody's kernel", run: (share) => done.push(share) };
    threads.run(unknown, [1, 2, 3]);
    expect(done).toEqual([1, 2, 3]);
    expect(threads.lost).toBeNull();
  });

  it("stops taking shares once cancelled, and works again after", async () => {
    await ready();
    const survey48 = { ...survey, directions: pullDirections(48) };
    let ticks = 0;
    const stop = {
      ...plainContext,
      team: threads,
      checkCancelled: () => {
        if (++ticks === 2) throw new Cancelled();
      },
    };
    expect(() => surveyDirections(survey48, stop)).toThrow(Cancelled);
    expect(ticks).toBe(2);
    const after = surveyDirections(survey, { ...plainContext, team: threads });
    expect(after.lockMm3.slice()).toEqual(surveyDirections(survey, plainContext).lockMm3);
  });
});

describe("memory that is shared", () => {
  it("holds the same figures, and is what the array was where there is one thread", () => {
    const figures = Float32Array.of(1.5, -2, 3);
    const copy = shared(threads, figures);
    expect(copy.buffer).toBeInstanceOf(SharedArrayBuffer);
    expect([...copy]).toEqual([1.5, -2, 3]);
    expect(shared(threads, copy)).toBe(copy);
    expect(shared(ALONE, figures)).toBe(figures);
  });
});

describe("sharing out", () => {
  it("covers everything once, in order", () => {
    for (const [count, parts] of [
      [0, 4],
      [1, 4],
      [7, 3],
      [16, 16],
      [1000, 16],
    ]) {
      const taken = runsOf(count, parts).flatMap(({ from, to }) =>
        Array.from({ length: to - from }, (_, k) => from + k),
      );
      expect(taken).toEqual(Array.from({ length: count }, (_, k) => k));
    }
  });

  it("leaves out helpers that are not ready, and does their work itself", () => {
    const done: number[] = [];
    const kernel: Kernel<number> = { name: "own", run: (share) => done.push(share) };
    const asleep = {
      ready: () => false,
      post: () => {
        throw new Error("It was not ready.");
      },
    };
    new SharedTeam([asleep]).run(kernel, [1, 2, 3]);
    ALONE.run(kernel, [4]);
    expect(done).toEqual([1, 2, 3, 4]);
  });

  it("a helper takes what is left and says when it has ended", () => {
    const counters = new SharedArrayBuffer(4 * (3 + 2));
    const taken: number[] = [];
    const own = new Map([["own", { name: "own", run: (share: number) => taken.push(share) } as Kernel<never>]]);
    help(own, { kernel: "own", shares: [5, 6], counters });
    expect(taken).toEqual([5, 6]);
    // One helper ended, two shares done by helpers, and each of them marked as done.
    expect([...new Int32Array(counters)].slice(1)).toEqual([1, 2, 1, 1]);
    expect(kernels.size).toBeGreaterThan(5);
  });
});
