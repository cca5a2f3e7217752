/**
 * Labels and pulls in turn, from many starts at once: each start is a share that any thread can take. Trials cross
 * threads as plain arrays: the region of each vertex, and which pull each region took.
 */
import type { JobContext } from "../../job/context.ts";
import type { Kernel } from "../../job/team.ts";
import type { PricedPull, Seams } from "./pricing.ts";
import { bestPulls, label, type Trial } from "./trial.ts";

/** No region has this number. */
const NO_PULL = -1;

interface TrialShare {
  readonly seams: Seams;
  /** Pulls to label by, by number among `pulls`. */
  readonly set: readonly number[];
  readonly pulls: readonly PricedPull[];
  readonly sections: number;
  /** Turns of pulls and labels after the first labelling; 0 keeps the pulls. */
  readonly turns: number;
  /** Labels to begin from, numbers within `set`; each vertex's cheapest where null. */
  readonly start: ArrayLike<number> | null;
  /** Out: region of each vertex, the pull of each region, the energy. */
  readonly of: Int32Array;
  readonly taken: Int32Array;
  readonly energy: Float64Array;
}

export const trialKernel: Kernel<TrialShare> = {
  name: "labels and pulls in turn",
  run(share) {
    const { seams, set, pulls, sections, turns, start, of, taken, energy } = share;
    let trial = label(
      seams,
      set.map((d) => pulls[d]),
      sections,
      start ?? undefined,
    );
    for (let turn = 0; turn < turns; turn++) {
      const next = label(seams, bestPulls(trial, pulls), sections, trial.regions.of);
      if (next.energy >= trial.energy * (1 - 1e-3)) break;
      trial = next;
    }
    of.set(trial.regions.of);
    taken.fill(NO_PULL);
    trial.regions.label.forEach((l, r) => {
      taken[r] = pulls.indexOf(trial.pulls[l]);
    });
    energy[0] = trial.energy;
  },
};

/** Where a trial begins: pulls by number, and labels within them where there are any. */
export interface TrialStart {
  readonly set: readonly number[];
  readonly pulls: readonly PricedPull[];
  readonly labels: ArrayLike<number> | null;
}

/** A trial from every start, in their order; every region numbers a pull of its own. */
export function trialsFrom(
  seams: Seams,
  starts: readonly TrialStart[],
  sections: number,
  turns: number,
  ctx: JobContext,
): Trial[] {
  const shares = starts.map(
    ({ set, pulls, labels }): TrialShare => ({
      ...{ seams, set, pulls, sections, turns, start: labels },
      of: new Int32Array(ctx.team.buffer(4 * seams.graph.vertices)),
      taken: new Int32Array(ctx.team.buffer(4 * sections)),
      energy: new Float64Array(ctx.team.buffer(8)),
    }),
  );
  ctx.team.run(trialKernel, shares, () => ctx.checkCancelled());
  return shares.map(({ pulls, of, taken, energy }): Trial => {
    const own = Array.from(taken).filter((d) => d !== NO_PULL);
    return { pulls: own.map((d) => pulls[d]), regions: { of, label: own.map((_, r) => r) }, energy: energy[0] };
  });
}
