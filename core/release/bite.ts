/**
 * The proof of release: how deep a rigid section bites into the body it was built on, on its way out along its pull.
 *
 *   bite(x) = max over s > 0 of -phi(x + s d)       x a place of the section's inner face, d its pull
 *
 * phi is the signed distance from the body, true about its surface and measured between the nodes too. A section comes
 * off where its greatest bite is no more than the give.
 *
 * Space of the caller: mm, z up.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import type { Direction } from "../space/directions.ts";
import { Body, type BodyData } from "./body.ts";

export interface BiteRequest {
  readonly body: BodyData;
  /** Places of inner faces, xyz, mm. */
  readonly points: Float32Array;
  /** Number of each place's section. */
  readonly section: Uint8Array;
  /** Pull of each section. */
  readonly pulls: readonly Direction[];
  /** Bites no deeper than this are told as zero, mm. */
  readonly fineMm: number;
}

interface BiteShare extends BiteRequest {
  readonly from: number;
  readonly to: number;
  /** Out: the bite at each place, mm. */
  readonly biteMm: Float32Array;
}

export const biteKernel: Kernel<BiteShare> = {
  name: "bites",
  run({ body: data, points, section, pulls, fineMm, from, to, biteMm }) {
    const body = new Body(data);
    for (let p = from; p < to; p++) {
      const [dx, dy, dz] = pulls[section[p]];
      const [x, y, z] = [points[3 * p], points[3 * p + 1], points[3 * p + 2]];
      const found = -body.leastAlong(x, y, z, dx, dy, dz, -fineMm, -Infinity);
      biteMm[p] = found > fineMm ? found : 0;
    }
  },
};

/** The bite of every place, mm; 0 where it is fine. */
export function measureBites(request: BiteRequest, ctx: JobContext): Float32Array {
  const count = request.section.length;
  const biteMm = new Float32Array(ctx.team.buffer(4 * count));
  const shares = runsOf(count, SHARES).map((run): BiteShare => ({ ...request, ...run, biteMm }));
  ctx.team.run(biteKernel, shares, () => ctx.checkCancelled());
  return biteMm;
}
