/** Zones in a file of their own: dabs with names, for the command line. */
import { z } from "zod";
import { newPlan } from "../core/plan/document/document.ts";
import { type Dabs, ZONE_KINDS, type Zones } from "../core/survey/zones.ts";

const xyz = z.tuple([z.number(), z.number(), z.number()]);
const dabs = z
  .array(
    z.object({
      at: xyz,
      /** The way the wall faces; a dab without it takes both walls of a thin part. */
      facing: xyz.default([0, 0, 0]),
      radiusMm: z.number().positive().max(2000),
    }),
  )
  .max(4000)
  .default([]);

/** @example {"keepClear": [{"at": [0, -150, 1700], "facing": [0, -1, 0], "radiusMm": 80}], "thickerMm": 3} */
export const zonesFile = z
  .strictObject({
    keepClear: dabs,
    fragile: dabs,
    thicker: dabs,
    thickerMm: z.number().min(0).max(30).default(newPlan().jacket.thickerMm),
  })
  .transform(({ thickerMm, ...kinds }): { zones: Zones; thickerMm: number } => ({
    thickerMm,
    zones: Object.fromEntries(ZONE_KINDS.map((kind) => [kind, flat(kinds[kind])])) as unknown as Zones,
  }));

function flat(list: z.output<typeof dabs>): Dabs {
  return list.flatMap(({ at, facing, radiusMm }) => {
    const length = Math.hypot(...facing) || 1;
    return [...at, ...facing.map((x) => x / length), radiusMm];
  });
}
