/** Areas of walls and flanges at the widths that were decided. */
import { flangeWidthMm, widthFor } from "../flange/fastenings.ts";
import { footAreaAt } from "../foot/along.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { EDGE_AS_FLANGE_MM } from "../shell/edge.ts";
import { type ShellSpan, shellThicknesses, thickestOf } from "../shell/index.ts";
import { allLayups, layupFor } from "../shell/layup.ts";
import { areaAtWidth } from "../walls/areas.ts";
import { ribsOf } from "./ribs.ts";
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

/**
 * What each section's shell and flanges have to cover, as areas that times their thicknesses are what is laid. A shell laid
 * outwards on what is round takes more than its area there times its thickness (t): A t + M t2 + K t3 / 3, by the integrals of
 * its mean and its Gaussian curvature (Steiner 1840). Its edges are laid as thick as its flanges, and count as such; so do
 * ribs.
 */
export function spanOf(document: PlanDocument, parting: PartingTotals): ShellSpan {
  const flanges = flangeAreasMm2(document, parting);
  const ribs = ribsOf(document, parting);
  const laid = parting.sections.map(({ number, id, areaMm2, bends, lineMm, footMm = 0 }, k) => {
    const { shellMm, flangeMm } = shellThicknesses(layupFor(document.shell, id));
    const { meanMm, gauss } = bends ?? { meanMm: 0, gauss: 0 };
    const wholeMm2 = Math.max(areaMm2 / 2, areaMm2 + meanMm * shellMm + (gauss * shellMm ** 2) / 3);
    const edgeMm2 = Math.min(wholeMm2 / 2, (lineMm + footMm) * EDGE_AS_FLANGE_MM);
    const ribsMm3 = ribs.reduce((sum, rib) => (rib.section === number ? sum + rib.laidMm3 : sum), 0);
    return { skinMm2: wholeMm2 - edgeMm2, flangeMm2: flanges[k] + edgeMm2 + ribsMm3 / flangeMm };
  });
  return { areasMm2: laid.map(({ skinMm2 }) => skinMm2), flangeAreasMm2: laid.map(({ flangeMm2 }) => flangeMm2) };
}

/**
 * Area of one face of each section's flanges, mm2, as far as they stand out of the shell: along every wall it has one of its
 * own, and its foot along the board.
 */
function flangeAreasMm2(document: PlanDocument, parting: PartingTotals): number[] {
  const { shell, jacket } = document;
  const { sections, walls = [] } = parting;
  const insideMm = sections.map(({ id }) => shellThicknesses(layupFor(shell, id)).shellMm);
  const footMm2 = (k: number) => {
    const { footMm = 0, footAreasMm2 = [] } = sections[k];
    const wideMm = jacket.rimWidthMm + shell.foot.beyondMm;
    if (!shell.foot.isFlanged) return 0;
    // Plans of before know its length alone.
    if (footAreasMm2.length === 0) return footMm * Math.max(0, wideMm - insideMm[k]);
    return Math.max(0, footAreaAt(footAreasMm2, wideMm) - footAreaAt(footAreasMm2, insideMm[k]));
  };
  if (walls.length === 0) {
    const widthMm = usualWidthMm(document);
    return sections.map(({ lineMm }, k) => lineMm * Math.max(0, widthMm - insideMm[k]) + footMm2(k));
  }
  const areas = areasOf(document, parting);
  return sections.map(({ number }, k) =>
    walls.reduce(
      (sum, wall, w) =>
        wall.sections.includes(number) ? sum + Math.max(0, areas[w] - areaAtWidth(wall.areasMm2, insideMm[k])) : sum,
      footMm2(k),
    ),
  );
}
