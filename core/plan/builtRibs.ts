/** The ribs or poles of a plan as they are built, and how long each is cut. */
import { standingRibs } from "../ribs/body.ts";
import type { Rib } from "../ribs/ribs.ts";
import { coreOf, type RibCore, ribShape, type StandingRib } from "../ribs/shape.ts";
import { shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import type { PlanDocument } from "./document/document.ts";

/** A stretch that stands between flanges, rims and other ribs. */
export interface BuiltRib extends Omit<Rib, keyof StandingRib>, StandingRib, RibCore {
  /** Half way along it, on the jacket. */
  readonly middleMm: readonly [number, number, number];
}

/** @param ids of the sections, in their order: those that are laid up otherwise are known by them */
export function builtRibs(
  ribs: readonly Rib[],
  { shell }: Pick<PlanDocument, "shell">,
  ids: readonly (string | undefined)[],
): BuiltRib[] {
  return ribs.flatMap((rib) => {
    const layup = layupFor(shell, ids[rib.section - 1]);
    const { shellMm, flangeMm } = shellThicknesses(layup);
    const shape = ribShape(shell.ribs, layup);
    return standingRibs(rib, flangeMm, shape).map((standing): BuiltRib => {
      const { points: p } = standing;
      const m = 3 * Math.floor(p.length / 6);
      return { ...standing, ...coreOf(standing, shellMm, shape), middleMm: [p[m], p[m + 1], p[m + 2]] };
    });
  });
}
