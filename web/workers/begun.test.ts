import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { newPlan } from "../../core/plan/document/document.ts";
import { TYPICAL_RATES } from "../../core/takeoff/rates.ts";
import { StandInWorker } from "../testing/worker.ts";
import { Begun, keepFor, planKey, takeKept } from "./begun.ts";
import { type Answer, freshGeometry, Geometry, readySpare } from "./geometry.ts";
import { ENDS } from "./signals.ts";

beforeEach(() => {
  StandInWorker.all = [];
  vi.stubGlobal("Worker", StandInWorker);
});
afterEach(() => {
  takeKept("nobody's");
  freshGeometry();
  vi.unstubAllGlobals();
});

/** Which workers were ended, in the order they were made. */
const ended = () => [...StandInWorker.all.keys()].filter((n) => StandInWorker.all[n].ended);

const TERMS = { rates: TYPICAL_RATES, fineness: "usual" } as const;
const begunOn = (geometry: Geometry) => new Begun(geometry, newPlan(), TERMS);

describe("what was begun on, kept for the course that opens next", () => {
  it("is handed over once, to the scan it was kept for", () => {
    const begun = begunOn(new Geometry());
    keepFor("a", begun);
    expect(takeKept("a")).toBe(begun);
    expect(takeKept("a")).toBeNull();
    expect(ended()).toEqual([]);
  });

  it("is ended when another scan is opened", () => {
    keepFor("a", begunOn(new Geometry()));
    expect(takeKept("b")).toBeNull();
    expect(takeKept("a")).toBeNull();
    expect(ended()).toEqual([0]);
  });

  it("gives way to the next that is kept", () => {
    keepFor("a", begunOn(new Geometry()));
    const next = begunOn(new Geometry());
    keepFor("b", next);
    expect(ended()).toEqual([0]);
    expect(takeKept("b")).toBe(next);
  });
});

describe("a plan that was begun on", () => {
  const sha = "a".repeat(64);
  const asked: { quality: string; report: (stage: string, fraction: number) => void }[] = [];
  const answer: Answer<Uint8Array> = { ok: true, value: Uint8Array.of(1) };
  const api = {
    lookOver: () => Promise.resolve({ ok: true, value: null }),
    plan: (
      _ticket: number,
      _: unknown,
      __: unknown,
      quality: string,
      report: (stage: string, fraction: number) => void,
    ) => {
      asked.push({ quality, report });
      return Promise.resolve(answer);
    },
  };
  beforeEach(() => {
    asked.length = 0;
  });

  it("asks for both answers at once, and gives them to whom asks the same", async () => {
    const begun = begunOn({ api, ticket: () => 1 } as unknown as Geometry);
    expect(asked.map(({ quality }) => quality)).toEqual(["coarse", "settled"]);
    const key = planKey(sha, newPlan(), TERMS);
    expect(await begun.answer(sha, key, "settled", () => {})).toBe(answer);
    expect(asked).toHaveLength(2);
  });

  it("has none for another document, other rates or another scan", () => {
    const begun = begunOn({ api, ticket: () => 1 } as unknown as Geometry);
    const other = { ...newPlan(), jacket: { ...newPlan().jacket, smoothingMm: 7 } };
    const dearer = { ...TERMS, rates: { ...TYPICAL_RATES, hourMinor: 1 } };
    for (const key of [
      planKey(sha, other, TERMS),
      planKey(sha, newPlan(), dearer),
      planKey("b".repeat(64), newPlan(), TERMS),
    ])
      expect(begun.answer(sha, key, "coarse", () => {})).toBeNull();
  });

  it("tells its progress to the last who asked", () => {
    const begun = begunOn({ api, ticket: () => 1 } as unknown as Geometry);
    asked[1].report("field", 0.1);
    const told: string[] = [];
    begun.answer(sha, planKey(sha, newPlan(), TERMS), "settled", (stage) => told.push(stage));
    asked[1].report("jacket", 0.2);
    expect(told).toEqual(["jacket"]);
  });
});

describe("a worker that is got ready", () => {
  it("practises, and is the next that is wanted; the one after it is new", () => {
    readySpare();
    readySpare();
    expect(StandInWorker.all).toHaveLength(1);
    expect(StandInWorker.all[0].asked).toContain("practise");
    freshGeometry();
    expect(StandInWorker.all).toHaveLength(1);
    freshGeometry();
    expect(StandInWorker.all).toHaveLength(2);
    expect(StandInWorker.all[1].asked).not.toContain("practise");
  });
});

describe("work that is asked for", () => {
  /** The memory that a worker was given to be ended by. */
  const flagsOf = (worker: StandInWorker) => {
    const connect = worker.messages.find(({ path }) => path?.includes("connect"));
    return new Int32Array(connect?.argumentList?.[0]?.value as SharedArrayBuffer);
  };

  it("is ended up to the number it had; what is asked after that brings back nothing that was ended", () => {
    const geometry = new Geometry();
    const flags = flagsOf(StandInWorker.all[0]);
    const isEnded = (ticket: number) => Atomics.load(flags, ENDS.work) >= ticket;
    const plan = geometry.ticket();
    expect(isEnded(plan)).toBe(false);
    geometry.cancel();
    const compare = geometry.ticket();
    expect([isEnded(plan), isEnded(compare)]).toEqual([true, false]);
    geometry.cancel();
    expect([isEnded(plan), isEnded(compare), isEnded(geometry.ticket())]).toEqual([true, true, false]);
  });
});
