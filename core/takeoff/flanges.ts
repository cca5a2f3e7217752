/** Areas of walls and flanges at the widths that were decided. */
import { flangeWidthMm, widthFor } from "../flange/fastenings.ts";
import { footAreasMm2 } from "../foot/along.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { EDGE_AS_FLANGE_MM } from "../shell/edge.ts";
import { type ShellSpan, thickestOf } from "../shell/index.ts";
import { allLayups } from "../shell/layup.ts";
import { areaAtWidth } from "../walls/areas.ts";
import type { PartingTotals } from "./totals.ts";

/** A wall of clay is so thick, mm, and stands out beyond the flange by so much. */
export const CLAY_WALL_MM = 25;
export const CLAY_BEYOND_MM = 15;
/** A shim covers so much of a line, mm. */
export const SHIM_MM = 50;

type Walled = Pick<PartingTotals, "walls" | "partingLengthMm">;

/** Areas of one face of every wall, mm2, in the order of the lines; none where they are not worked out yet. */
function areasOf({ shell }: PlanDocument, { walls = [] }: Walled): number[] {
  const terms = thickestOf(allLayups(shell));
  return walls.map(({ areasMm2, id }) => areaAtWidth(areasMm2, widthFor(shell.flanges, id ?? null, terms)));
}

function usualWidthMm({ shell }: PlanDocument): number {
  return flangeWidthMm(shell.flanges, thickestOf(allLayups(shell)));
}

/** Area of one face of all walls, mm2: by their length alone where they are not worked out yet. */
export function wallsMm2(document: PlanDocument, parting: Walled): number {
  if (!parting.walls?.length) return parting.partingLengthMm * usualWidthMm(document);
  return areasOf(document, parting).reduce((sum, mm2) => sum + mm2, 0);
}

/** What each section's shell and flanges have to cover: its edges are laid as thick as its flanges, and count as such. */
export function spanOf(document: PlanDocument, parting: PartingTotals): ShellSpan {
  const flanges = flangeAreasMm2(document, parting);
  const edges = parting.sections.map(({ areaMm2, lineMm, footMm = 0 }) =>
    Math.min(areaMm2 / 2, (lineMm + footMm) * EDGE_AS_FLANGE_MM),
  );
  return {
    areasMm2: parting.sections.map(({ areaMm2 }, k) => areaMm2 - edges[k]),
    flangeAreasMm2: flanges.map((mm2, k) => mm2 + edges[k]),
  };
}

/** Area of one face of each section's flanges, mm2: along every wall it has one of its own, and its foot along the board. */
function flangeAreasMm2(document: PlanDocument, parting: PartingTotals): number[] {
  const { sections, walls } = parting;
  const feet = footAreasMm2(
    sections.map(({ footMm = 0 }) => footMm),
    document.jacket.rimWidthMm,
    document.shell.foot,
  );
  if (!walls?.length) {
    const widthMm = usualWidthMm(document);
    return sections.map(({ lineMm }, k) => lineMm * widthMm + feet[k]);
  }
  const areas = areasOf(document, parting);
  return sections.map(({ number }, k) =>
    walls.reduce((sum, wall, w) => (wall.sections.includes(number) ? sum + areas[w] : sum), feet[k]),
  );
}
