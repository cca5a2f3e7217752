/** Ribs or poles where the sections span too far. Of settled plans alone. */
import { placeRibs, type Spans } from "../../ribs/ribs.ts";
import { spanFor } from "../../ribs/shape.ts";
import { shellSystems, typicalLayup } from "../../shell/index.ts";
import { layupFor } from "../../shell/layup.ts";
import { spanLimitMm } from "../../shell/span.ts";
import type { PlanDocument } from "../document/document.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { stage } from "./stage.ts";

/** What the weakest of all systems, as it is typically laid, may span, mm. */
const WEAKEST_MM = Math.min(...shellSystems.map(({ id }) => spanLimitMm(typicalLayup(id))));

/** What every section may span, mm, where some are laid up otherwise; then what all others may. */
function spansFor({ shell, identity }: PlanDocument): {
  readonly limitMm: number;
  readonly limitsMm: readonly number[];
} {
  const limitMm = spanFor(shell, shell);
  if (shell.sections.length === 0) return { limitMm, limitsMm: [] };
  return { limitMm, limitsMm: identity.sections.map(({ id }) => spanFor(shell, layupFor(shell, id))) };
}

export const ribsStage = stage({
  name: "ribs",
  after: ["parting"],
  reads: (document, { effort }) => ({
    ...spansFor(document),
    wanted: document.shell.ribs.kind !== "none",
    settled: effort.order,
  }),
  progress: {},
  make: ({ limitMm, limitsMm, wanted, settled }, { parting }: { readonly parting: ProvenParting }): Spans => {
    // The shell lies over what is filled.
    const { filled: mesh, filledNearest: nearest, filledLabel: label, surveyEdgeMm: spacingMm, sections } = parting;
    if (!settled) return { widestMm: [], ribs: [], further: [] };
    const request = { mesh, nearest, label, sections: sections.length, spacingMm };
    const limitOf = (section: number) => (wanted ? (limitsMm[section] ?? limitMm) : Number.POSITIVE_INFINITY);
    return placeRibs({ ...request, limitsMm: sections.map((_, s) => limitOf(s)), weakestMm: WEAKEST_MM });
  },
});
