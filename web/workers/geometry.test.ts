import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Geometry, keepFor, takeKept } from "./geometry.ts";

/** Workers that do nothing but remember that they were ended. */
const ended: string[] = [];
class StandInWorker extends EventTarget {
  static count = 0;
  private readonly name = `worker ${StandInWorker.count++}`;
  postMessage(): void {}
  terminate(): void {
    ended.push(this.name);
  }
}

beforeEach(() => {
  ended.length = 0;
  StandInWorker.count = 0;
  vi.stubGlobal("Worker", StandInWorker);
});
afterEach(() => {
  takeKept("nobody's");
  vi.unstubAllGlobals();
});

describe("a worker kept for the course that opens next", () => {
  it("is handed over once, to the scan it was kept for", () => {
    const geometry = new Geometry();
    keepFor("a", geometry);
    expect(takeKept("a")).toBe(geometry);
    expect(takeKept("a")).toBeNull();
    expect(ended).toEqual([]);
  });

  it("is ended when another scan is opened", () => {
    keepFor("a", new Geometry());
    expect(takeKept("b")).toBeNull();
    expect(takeKept("a")).toBeNull();
    expect(ended).toEqual(["worker 0"]);
  });

  it("gives way to the next that is kept", () => {
    keepFor("a", new Geometry());
    const next = new Geometry();
    keepFor("b", next);
    expect(ended).toEqual(["worker 0"]);
    expect(takeKept("b")).toBe(next);
  });
});
