/** Areas of walls and flanges at the widths that were decided. */
import { widthFor } from "../flange/settings.ts";
import { footAreasMm2 } from "../foot/along.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { areaAtWidth } from "../walls/areas.ts";
import type { PartingTotals } from "./totals.ts";

/** A wall of clay is so thick, mm, and stands out beyond the flange by so much. */
export const CLAY_WALL_MM = 25;
export const CLAY_BEYOND_MM = 15;
/** A shim covers so much of a line, mm. */
export const SHIM_MM = 50;

type Walled = Pick<PartingTotals, "walls" | "partingLengthMm">;

/** Areas of one face of every wall, mm2, in the order of the lines; none where they are not worked out yet. */
function areasOf({ shell: { flanges } }: PlanDocument, { walls = [] }: Walled): number[] {
  return walls.map(({ areasMm2, id }) => areaAtWidth(areasMm2, widthFor(flanges, id ?? null)));
}

/** Area of one face of all walls, mm2: by their length alone where they are not worked out yet. */
export function wallsMm2(document: PlanDocument, parting: Walled): number {
  if (!parting.walls?.length) return parting.partingLengthMm * document.shell.flanges.widthMm;
  return areasOf(document, parting).reduce((sum, mm2) => sum + mm2, 0);
}

/** Area of one face of each section's flanges, mm2: along every wall it has one of its own, and its foot along the board. */
export function flangeAreasMm2(document: PlanDocument, parting: PartingTotals): number[] {
  const { sections, walls } = parting;
  const feet = footAreasMm2(
    sections.map(({ footMm = 0 }) => footMm),
    document.jacket.rimWidthMm,
    document.shell.foot,
  );
  if (!walls?.length) return sections.map(({ lineMm }, k) => lineMm * document.shell.flanges.widthMm + feet[k]);
  const areas = areasOf(document, parting);
  return sections.map(({ number }, k) =>
    walls.reduce((sum, wall, w) => (wall.sections.includes(number) ? sum + areas[w] : sum), feet[k]),
  );
}
