/** The ribs and poles that a plan's shell asks for, by what its own lay-up bears. */
import type { PlanDocument } from "../plan/document/document.ts";
import { coreOf, type RibCore, ribLaidMm3, ribShape, spanFor, stretchesMm } from "../ribs/shape.ts";
import { shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import type { PartingTotals } from "./totals.ts";

/** A stretch of a rib that is built. */
export interface TakenRib extends RibCore {
  /** Number of its section. */
  readonly section: number;
  /** What is laid up of it. */
  readonly laidMm3: number;
}

/** Those that a lay-up needs, of all that the weakest would need: a stronger one does with the first of them. */
export function ribsOf({ shell }: PlanDocument, { sections, spans }: PartingTotals): TakenRib[] {
  if (shell.ribs.kind === "none" || !spans) return [];
  const all = [...spans.ribs, ...(spans.further ?? [])];
  return sections.flatMap(({ number, id }) => {
    const layup = layupFor(shell, id);
    const limitMm = spanFor(shell, layup);
    const shape = ribShape(shell.ribs, layup);
    const { shellMm, flangeMm } = shellThicknesses(layup);
    return all
      .filter(({ section, spanMm = Number.POSITIVE_INFINITY }) => section === number && spanMm > limitMm)
      .flatMap((rib) => {
        const turnPerMm = (rib.turnRad ?? 0) / rib.lengthMm;
        return stretchesMm(rib, flangeMm, shape).map(([fromMm, toMm]): TakenRib => {
          const standing = { lengthMm: toMm - fromMm, turnRad: turnPerMm * (toMm - fromMm) };
          const laidMm3 = ribLaidMm3(standing, shellMm, shape);
          return { section: number, laidMm3, ...coreOf(standing, shellMm, shape) };
        });
      });
  });
}

/** What poles and cores of ribs weigh in each section, g, in their order. */
export function coresG(ribs: readonly TakenRib[], { sections }: Pick<PartingTotals, "sections">): number[] {
  return sections.map(({ number }) => ribs.reduce((sum, rib) => (rib.section === number ? sum + rib.coreG : sum), 0));
}
