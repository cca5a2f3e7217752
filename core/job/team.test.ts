import { describe, expect, it } from "vitest";
import { type Helper, help, type Kernel, SharedTeam, type Task } from "./team.ts";

interface Share {
  readonly out: Int32Array;
  readonly at: number;
}

let runs: number[] = [];
const square: Kernel<Share> = {
  name: "square",
  run({ out, at }) {
    runs.push(at);
    out[at] = at * at;
  },
};

function squares(team: SharedTeam, tick?: (done: number) => void): number[] {
  runs = [];
  const out = new Int32Array(team.buffer(4 * 8));
  const shares = Array.from({ length: 8 }, (_, at) => ({ out, at }));
  team.run(square, shares, tick);
  return [...out];
}

const all = [0, 1, 4, 9, 16, 25, 36, 49];
const ready = () => true;

describe("a team whose helper", () => {
  it("dies with a share in hand goes on alone, and says in what it was lost", () => {
    // Takes a share, as a helper does first, and is never heard of again.
    const dying: Helper = { ready, post: ({ counters }: Task) => void Atomics.add(new Int32Array(counters), 0, 1) };
    const team = new SharedTeam([dying], 30);
    expect(team.size).toBe(2);
    expect(squares(team)).toEqual(all);
    expect(team.lost).toBe("square");
    expect(team.size).toBe(1);
    expect(squares(team)).toEqual(all);
    expect(runs).toHaveLength(8);
  });

  it("never answers can be stopped while it is waited for", () => {
    const dying: Helper = { ready, post: () => {} };
    const stop = new Error("stopped");
    let ticks = 0;
    const tick = () => {
      // After the caller's own eight shares.
      if (++ticks > 8) throw stop;
    };
    expect(() => squares(new SharedTeam([dying], 60_000), tick)).toThrow(stop);
  });

  it("fails in a share leaves it to the caller, and stays", () => {
    const failing: Kernel<Share> = {
      name: "square",
      run({ out, at }) {
        if (at === 2) throw new RangeError("no memory");
        out[at] = at * at;
      },
    };
    const helper: Helper = { ready, post: (task) => help(new Map([["square", failing as Kernel<never>]]), task) };
    const team = new SharedTeam([helper]);
    expect(squares(team)).toEqual(all);
    expect(runs).toContain(2);
    expect(team.lost).toBeNull();
    expect(team.size).toBe(2);
  });

  it("does all of it leaves nothing to the caller", () => {
    const helper: Helper = { ready, post: (task) => help(new Map([["square", square as Kernel<never>]]), task) };
    expect(squares(new SharedTeam([helper]))).toEqual(all);
    expect(runs).toHaveLength(8);
  });
});
