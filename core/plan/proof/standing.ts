/**
 * A first proof of lines that were moved: on the body with the fills of the plan before it, for the search for new fills
 * takes most of the time. What comes off past those comes off; what is held may still be filled.
 */

import type { NearestField } from "../../field/nearest.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import type { JobContext } from "../../job/context.ts";
import type { Layout } from "../../parting/layout/layout.ts";
import { Cells } from "../../release/cells.ts";
import { buildingOrder } from "./buildingOrder.ts";
import type { LaidRequest } from "./choosing.ts";
import { type FreeRequest, settled } from "./freeing.ts";
import type { LaidOut } from "./laidOut.ts";
import type { ProvenParting } from "./parting.ts";
import type { SurveyStage } from "./surveyStage.ts";

/** What moved lines come to with the fills as they stand. */
export interface StandingProof {
  /** In the layout's order. */
  readonly sections: readonly {
    /** How deep it presses into the rubber on its way out at most, mm, and where; null where it does not. */
    readonly biteMm: number;
    readonly biteAt: readonly [number, number, number] | null;
    readonly releases: boolean;
  }[];
  /** Sections that block each other in a circle, by their place in the layout. */
  readonly circle: readonly number[];
}

/** A plan of lines laid by hand that was proven before. */
export interface LastProven {
  readonly layout: Layout;
  readonly parting: ProvenParting;
}

/** Where no line has come nearer or gone farther than this, the sections are as they were proven, mm. */
const UNMOVED_MM = 0.5;

/**
 * @param last a plan of the same jacket, with as many sections
 * @returns null where the lines do not part the jacket, so that there is nothing to prove
 */
export function provenOnStandingFills(
  jacket: Jacket,
  survey: SurveyStage,
  last: LastProven,
  { layout, giveMm, shellMm }: LaidRequest,
  ctx: JobContext,
): StandingProof | null {
  const nearest = survey.nearest(jacket, ctx);
  const laid = survey.laid(layout, jacket, ctx);
  if (laid.troubles.length > 0) return null;
  const { pulls } = laid;
  const { body, filled: mesh, filledNearest } = last.parting;
  const filled = { body, mesh, nearest: () => filledNearest };
  const potentials = carriedOver(jacket, nearest, last, laid, survey.laid(last.layout, jacket, ctx), ctx);
  const free: FreeRequest = {
    ...{ jacket, giveMm, pulls, rounds: 0, mostFillMm3: 0, leastMm2: 0, runOn: null },
    open: pulls.map(() => false),
  };
  const freed = settled(filled, potentials, free, ctx);
  const { order, circle } = buildingOrder(
    { freed, pulls, hosts: pulls.map(() => null), jacket, shellMm, blocked: survey.request.effort.order },
    ctx,
  );
  return {
    sections: freed.bites.map(({ biteMm, at }) => ({ biteMm, biteAt: at, releases: biteMm <= giveMm })),
    circle: circle.map((k) => order[k]),
  };
}

/** The sections on the filled body: as they were proven where the lines have not moved, and as they are laid elsewhere. */
function carriedOver(
  jacket: Jacket,
  nearest: NearestField,
  { parting: { filled, cells } }: LastProven,
  now: LaidOut,
  before: LaidOut,
  { team }: JobContext,
): Float32Array[] {
  const count = now.potentials.length;
  const both = Cells.of(nearest, [...now.potentials, ...before.potentials], team);
  const carried = both.carried(filled, jacket.request.stepMm);
  const [potentials, were] = [carried.slice(0, count), carried.slice(count)];
  // A section laid by hand has the cell of its place in the layout.
  const proven = cells.data.potentials;
  for (let v = 0; v < filled.positions.length / 3; v++) {
    if (potentials.some((own, s) => Math.abs(own[v] - were[s][v]) > UNMOVED_MM)) continue;
    potentials.forEach((own, s) => {
      own[v] = proven[s][v];
    });
  }
  return potentials;
}
