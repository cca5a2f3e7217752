/** Which sections of a plan do not pass each other as they are built. */
import type { JobContext } from "../job/context.ts";
import { shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import { type Clash, clashesAsBuilt } from "../solids/asBuilt.ts";
import type { BuiltSection } from "./builtSections.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanResult } from "./results/planResult.ts";

/** @param ids of the sections, in their order: those that are laid up otherwise are known by them */
export function builtClashes(
  { parting: { sections, body } }: Pick<PlanResult, "parting">,
  { shell }: PlanDocument,
  solids: readonly BuiltSection[],
  ids: readonly string[],
  ctx: JobContext,
): Clash[] {
  const leaving = solids.map(({ mesh }, s) => ({
    ...{ mesh, pull: sections[s].pull, travelMm: sections[s].travelMm },
    flangeMm: shellThicknesses(layupFor(shell, ids[s])).flangeMm,
  }));
  return clashesAsBuilt(leaving, body.grid.stepMm, ctx);
}
