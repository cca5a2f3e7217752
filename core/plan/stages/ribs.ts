/** Ribs or poles where the sections span too far. Of settled plans alone. */
import { placeRibs, type Spans } from "../../ribs/ribs.ts";
import { spanLimitMm } from "../../shell/span.ts";
import type { PlanDocument } from "../document/document.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { stage } from "./stage.ts";

/** What a shell may span, mm: as was decided, else by its strength. */
export function spanFor({ system, figures, ribs }: PlanDocument["shell"]): number {
  return ribs.spanMm ?? spanLimitMm(system, figures);
}

export const ribsStage = stage({
  name: "ribs",
  after: ["parting"],
  reads: ({ shell }, { effort }) => ({
    limitMm: spanFor(shell),
    wanted: shell.ribs.kind !== "none",
    settled: effort.order,
  }),
  progress: {},
  make: ({ limitMm, wanted, settled }, { parting }: { readonly parting: ProvenParting }): Spans => {
    const { surveyMesh: mesh, surveyNearest: nearest, surveyLabel: label, surveyEdgeMm: spacingMm, sections } = parting;
    if (!settled) return { widestMm: [], ribs: [] };
    const request = { mesh, nearest, label, sections: sections.length, spacingMm };
    return placeRibs({ ...request, limitMm: wanted ? limitMm : Number.POSITIVE_INFINITY });
  },
});
